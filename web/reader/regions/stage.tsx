import { render } from '@testing-library/react';
import { QueryClient, QueryClientProvider, type QueryKey } from '@tanstack/react-query';
import { MemoryRouter } from 'react-router';
import { useStore } from 'zustand';
import { ONLY_ME, type Audience } from '@avrelle/core/audience';
import { STARTING_LEGEND, startingKind } from '@avrelle/core/legend';
import type { Annotation, ClassRow, Me, SourceDetail, SourceText } from '@avrelle/core/wire';
import { useMemo, type ReactNode } from 'react';
import { MeContext } from '../../account/me';
import type { Slot } from '../../data/unfinished';
import { DocumentContext, type DocumentView } from '../document/document-context';
import { initialState } from '../model/reader-state';
import { matchesFilter, threads } from '../model/thread';
import { createReaderStore, SessionContext, type ReaderSession, type ReaderStore } from '../session/reader-context';
import type { NoteActions } from '../session/note-actions';
import { ToolsContext, type ReaderTools } from '../session/tools-context';
import { useChoosing } from '../session/use-choosing';
import type { Drawing } from '../drawing/use-drawing';
import type { Marking } from '../session/use-marking';
import type { Navigation } from '../session/use-navigation';
import type { Placing } from '../session/use-placing';
import type { Progress } from '../session/use-progress';
import type { ReadingAloud } from '../session/use-reading-aloud';

export const ME = { id: 'ines', name: 'Ines Kestle', email: '', role: 'member' } as unknown as Me;
const CLASS = {
  id: 'b',
  name: 'Field Course B',
  tint: 'moss',
  role: 'student',
  groups: [],
  archivedAt: null,
} as unknown as ClassRow;

/** A note of somebody's on a passage, with whatever a test is about. */
export function noteBy(name: string, id: string, more: Partial<Annotation> = {}): Annotation {
  const kind = startingKind('claim')!;
  const place = { start: 10 * id.charCodeAt(0), end: 10 * id.charCodeAt(0) + 5, outcome: 'exact', confidence: 1 };
  return {
    ...{ id, rootId: null, parentId: null, version: 1, kind, note: `a note ${id}`, tags: [], classIds: [], place },
    ...{
      author: { id: name.split(' ')[0]!.toLowerCase(), name },
      createdAt: '2026-11-18T09:00:00.000Z',
      deleted: false,
    },
    ...{ anchor: { quote: { exact: `words ${id}`, prefix: '', suffix: '' } }, links: [], quoted: null },
    ...more,
  } as unknown as Annotation;
}

const NO_TEXT = { text: '', outline: [] } as unknown as SourceText;

/** What a region asked of the writer, the commands and the actions on notes, in order. */
type Calls = (readonly [string, ...unknown[]])[];

/** Answers whatever it is asked for with a function that writes down the asking. */
const recorder = <T extends object>(name: string, calls: Calls, known: Partial<T> = {}): T =>
  new Proxy(known as T, {
    get: (target, property) =>
      property in target
        ? Reflect.get(target, property)
        : (...given: unknown[]) => {
            calls.push([`${name}.${String(property)}`, ...given]);
            return Promise.resolve(true);
          },
  });

interface Given {
  /** What I am in the class; a student where nothing is said. */
  readonly role?: ClassRow['role'];
  /** Groups of the class that I may write for. */
  readonly groups?: ClassRow['groups'];
  readonly audience?: Audience;
  readonly annotations?: readonly Annotation[];
  readonly source?: Partial<SourceDetail>;
  readonly text?: SourceText;
  readonly document?: Partial<DocumentView>;
  /** What the server answered already, by its key. */
  readonly answers?: readonly (readonly [QueryKey, unknown])[];
  readonly tools?: { readonly [Tool in keyof ReaderTools]?: Partial<ReaderTools[Tool]> };
}

/** A region of the reading view on a model of its own: real store, threads and choosing; page and server only listen. */
export function stage(region: ReactNode, given: Given = {}) {
  const { annotations = [], source = {}, text = NO_TEXT, role = 'student', groups = [], audience = ONLY_ME } = given;
  const calls: Calls = [];
  const store = createReaderStore(initialState('page', true));
  const shown = { id: 's', title: 'The Marsh', kind: 'page', versionNumber: 1, newest: 1, heard: [], ...source };
  const fixed = {
    ...{
      store,
      me: ME,
      annotations,
      classes: [{ ...CLASS, role, groups }],
      audience,
      having: new Set(['b']),
      source: shown,
      text,
    },
    legend: { kinds: STARTING_LEGEND, className: null, ownerId: ME.id, find: startingKind },
    writer: recorder('writer', calls),
    chooseAudience: (audience: Audience) => {
      calls.push(['chooseAudience', audience]);
      return Promise.resolve();
    },
    share: () => Promise.resolve(true),
    mayWrite: () => true,
  } as unknown as ReaderSession;
  const client = new QueryClient({ defaultOptions: { queries: { enabled: false } } });
  for (const [key, answer] of given.answers ?? []) client.setQueryData(key, answer);
  const view = render(
    <QueryClientProvider client={client}>
      <MeContext value={ME}>
        <MemoryRouter>
          <Session fixed={fixed} store={store} annotations={annotations}>
            <Tools calls={calls} given={given}>
              {region}
            </Tools>
          </Session>
        </MemoryRouter>
      </MeContext>
    </QueryClientProvider>,
  );
  return { ...view, store, calls };
}

interface SessionProps {
  readonly fixed: ReaderSession;
  readonly store: ReaderStore;
  readonly annotations: readonly Annotation[];
  readonly children: ReactNode;
}

function Session({ fixed, store, annotations, children }: SessionProps) {
  const filter = useStore(store, (state) => state.filter);
  const session = useMemo((): ReaderSession => {
    const { placed, unplaced } = threads(annotations);
    const visible = placed.filter((t) => matchesFilter(t.root, filter, ME.id));
    return { ...fixed, threads: placed, unplaced, visible, inText: visible };
  }, [fixed, annotations, filter]);
  return <SessionContext value={session}>{children}</SessionContext>;
}

const nothing = (): undefined => undefined;
const NOTHING_UNFINISHED: Slot = { read: nothing, write: nothing, drop: nothing, settle: nothing };
const NO_RECORDING = { copyAddress: undefined, playFrom: undefined } as unknown as Partial<NoteActions>;

interface ToolsProps {
  readonly calls: Calls;
  readonly given: Given;
  readonly children: ReactNode;
}

function Tools({ calls, given: { document = {}, tools: known = {} }, children }: ToolsProps) {
  const choosing = useChoosing();
  const tools = recorder<ReaderTools>('tools', calls, {
    choosing,
    marking: recorder<Marking>('marking', calls),
    noteActions: recorder<NoteActions>('note', calls, { ...NO_RECORDING, slot: () => NOTHING_UNFINISHED }),
    progress: recorder<Progress>('progress', calls, { share: 0.25, minutesLeft: 3, spans: [] }),
    placing: recorder<Placing>('placing', calls, { placing: undefined }),
    aloud: recorder<ReadingAloud>('aloud', calls, known.aloud),
    drawing: recorder<Drawing>('drawing', calls, known.drawing),
    navigation: recorder<Navigation>('navigation', calls),
    player: known.player as ReaderTools['player'],
  });
  const view = recorder<DocumentView>('document', calls, {
    ...{ page: undefined, layout: 1, places: new Map(), blocks: [], asPictures: false, height: 1_000 },
    ...document,
  });
  return (
    <DocumentContext value={view}>
      <ToolsContext value={tools}>{children}</ToolsContext>
    </DocumentContext>
  );
}
