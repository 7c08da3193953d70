import { useMemo } from 'react';
import type { Edge } from '@avrelle/core/text';
import { openCommands } from '../../commands/registry';
import { useLatest } from '../../ui/use-latest';
import { useDocument } from '../document/document-context';
import type { CommandId, Situation } from '../model/commands';
import { openIn } from '../model/reader-state';
import type { Thread } from '../model/thread';
import { useSession, type ReaderSession } from './reader-context';
import type { ReaderTools } from './tools-context';

type Tools = Omit<ReaderTools, 'run' | 'situation' | 'press'>;
type Runs = Readonly<Record<CommandId, (letter: string) => void>>;

/** My own thread that is at hand and open. */
export function openThread({ store, threads, me }: ReaderSession): Thread | undefined {
  const id = openIn(store.getState());
  return threads.find(({ root }) => root.id === id && root.author.id === me.id && !root.deleted);
}

/** What each command does. One and the same for as long as the source is read: it looks up what is at hand when it is run. */
export function useCommands(tools: Tools): Pick<ReaderTools, 'run' | 'situation'> {
  const session = useSession();
  const { page, selection } = useDocument();
  const latest = useLatest({ session, tools, page, selection });
  return useMemo(
    () => ({
      run: (id, letter = '') => {
        const { session: now, tools: at, page: shown } = latest.current;
        const escape = (): void => {
          at.placing.leave();
          shown?.adapter.select(undefined);
          shown?.painter.found(undefined);
          now.store.dispatch({ type: 'escape' });
        };
        const runs: Runs = { ...noteRuns(now, at), ...screenRuns(now, at), ...recordingRuns(at), escape };
        runs[id](letter);
      },
      situation: (onControl = false): Situation => {
        const { session: now, tools: at, selection: selected } = latest.current;
        return {
          onControl,
          tool: now.store.getState().tool,
          selecting: selected() !== undefined,
          openOwn: openThread(now) !== undefined,
          recording: at.player.current !== null,
          kinds: now.legend.kinds.length,
        };
      },
    }),
    [latest],
  );
}

type Part<Ids extends CommandId> = Pick<Runs, Ids>;
type NoteIds = 'next sentence' | 'sentence before' | 'mark as kind' | 'change kind' | 'mark again' | 'write';
type OtherNoteIds = 'write on all' | 'hold tool' | 'remove' | 'next mark' | 'mark before' | 'undo' | 'redo';

function noteRuns(session: ReaderSession, tools: Tools): Part<NoteIds | OtherNoteIds> {
  const { legend, writer, store } = session;
  const { marking, navigation, drawing } = tools;
  const draws = store.getState().tool === 'draw';
  const kindOf = (digit: string) => legend.kinds[Number(digit) - 1];
  return {
    'next sentence': () => navigation.stepSentence(1),
    'sentence before': () => navigation.stepSentence(-1),
    'mark as kind': (digit) => {
      const kind = kindOf(digit);
      if (kind) marking.mark(kind);
    },
    'change kind': (digit) => {
      const kind = kindOf(digit);
      const open = openThread(session);
      if (kind && open) void writer.change(open.root, { kind: kind.code }, `made a ${kind.name.toLowerCase()}`);
    },
    'mark again': () => (draws ? drawing.onWords() : marking.markAgain()),
    write: marking.write,
    'write on all': marking.writeOnAll,
    'hold tool': drawing.holdBy,
    remove: () => {
      const open = openThread(session);
      if (draws) drawing.remove();
      else if (open) writer.remove([open.root]);
    },
    'next mark': () => navigation.stepMark(1),
    'mark before': () => navigation.stepMark(-1),
    undo: writer.undo,
    redo: writer.redo,
  };
}

type ScreenIds =
  | 'mark on select'
  | 'area'
  | 'draw'
  | 'take end'
  | 'take start'
  | 'find'
  | 'listen'
  | 'focus mode'
  | 'card'
  | 'legend'
  | 'commands';

function screenRuns({ store, mayWrite }: ReaderSession, { aloud }: Tools): Part<ScreenIds> {
  const { dispatch, getState } = store;
  const focusHandle = (edge: Edge): void =>
    document.querySelector<HTMLElement>(`[data-edge=${edge}]`)?.focus({ preventScroll: true });
  return {
    'mark on select': () => dispatch({ type: 'mark on select' }),
    area: () => dispatch({ type: 'tool', tool: 'area' }),
    draw: () => {
      if (getState().tool === 'draw' || mayWrite()) dispatch({ type: 'tool', tool: 'draw' });
    },
    'take end': () => focusHandle('end'),
    'take start': () => focusHandle('start'),
    find: () => dispatch({ type: 'find', on: true }),
    listen: () => aloud.listen(!getState().listening),
    'focus mode': () => dispatch({ type: 'focus mode', on: !getState().focusMode }),
    card: () => dispatch({ type: 'dialog', dialog: 'card' }),
    legend: () => dispatch({ type: 'dialog', dialog: 'legend' }),
    commands: openCommands,
  };
}

const recordingRuns = ({ player }: Tools): Part<'play' | 'back' | 'note moment' | 'stretch'> => ({
  play: () => player.current?.toggle(),
  back: () => player.current?.back(),
  'note moment': () => player.current?.mark(),
  stretch: () => player.current?.stretch(),
});
