import { DropdownMenu } from 'radix-ui';
import { useQueryClient } from '@tanstack/react-query';
import type { Kind } from '@avrelle/core/legend';
import type { Annotation, AnnotationHit, ClassId, GroupId } from '@avrelle/core/wire';
import { wordsOf } from '../data/api';
import { call } from '../data/call';
import { renew, useOpenClasses, useLegends } from '../data/queries';
import { MakeCard } from '../review/MakeCard';
import { PutInNote } from '../notes/PutInNote';
import { Menu } from '../ui/Menu';
import { useMessages } from '../ui/Messages';
import { useCopy } from '../ui/use-copy';
import { Sign } from '../ui/Sign';
import { TagForm } from '../ui/TagForm';
import { count } from '../ui/when';

type Fields = {
  readonly kind?: string;
  readonly tags?: readonly string[];
  readonly classIds?: readonly ClassId[];
  readonly teachersOnly?: boolean;
  readonly groupIds?: readonly GroupId[];
  readonly held?: boolean;
  readonly deleted?: boolean;
};

interface Change {
  readonly of: readonly AnnotationHit[];
  readonly to: (mark: AnnotationHit) => Fields;
  /** What undoes it. */
  readonly back: (mark: AnnotationHit) => Fields;
  readonly words: string;
  /** What has to be done before. */
  readonly first?: () => Promise<unknown>;
}

type Sent = { readonly id: string; readonly version: number } & Fields;
const send = (changes: readonly Sent[]): Promise<readonly Annotation[]> =>
  call('POST /api/annotations/changes', { body: { changes } });

/** Changes many at once, with a way back. */
function useChange(onDone: () => void): (change: Change) => void {
  const client = useQueryClient();
  const messages = useMessages();
  const fresh = (): Promise<void> => renew(client, 'marks');
  const change = async ({ of, to, back, words, first }: Change): Promise<void> => {
    await first?.();
    const after = await send(of.map((m) => ({ id: m.id, version: m.version, ...to(m) })));
    const undo = (): void =>
      void send(of.map((m, n) => ({ id: m.id, version: after[n]!.version, ...back(m) }))).then(fresh, warn);
    messages.tell(`${count(of.length, 'mark')} ${words}.`, { label: 'Undo', run: undo });
    onDone();
  };
  const warn = (error: unknown): void => messages.warn(wordsOf(error));
  return (asked) => void change(asked).catch(warn).finally(fresh);
}

interface Props {
  readonly marks: readonly AnnotationHit[];
  onDone(): void;
}

/** What can be done with one's own marks from several sources at once, each with a way back; or copied as Markdown. */
export function ChosenMarks({ marks, onDone }: Props) {
  const change = useChange(onDone);
  const roots = marks.filter((m) => !m.rootId);
  return (
    <section
      aria-label="The chosen marks"
      className="sticky bottom-0 z-20 flex flex-wrap items-center gap-x-5 gap-y-1 border-t border-strong bg-paper px-[30px] py-2 text-[14px] max-[900px]:px-4"
    >
      <b aria-live="polite">{count(marks.length, 'mark')} chosen</b>
      {roots.length > 0 && <KindMenu roots={roots} change={change} />}
      <TagForm
        onAdd={(tags) =>
          change({
            of: marks,
            to: (m) => ({ tags: [...new Set([...m.tags, ...tags])] }),
            back: (m) => ({ tags: m.tags }),
            words: `tagged ${tags.map((t) => `#${t}`).join(' ')}`,
          })
        }
      />
      {roots.length > 0 && <AudienceMenu roots={roots} change={change} />}
      {roots.length > 0 && <PutInNote annotationIds={roots.map((m) => m.id)} />}
      {roots.length > 0 && <MakeCard annotationIds={roots.map((m) => m.id)} />}
      <Copy marks={marks} />
      <button
        className="text-brick hover:underline"
        onClick={() =>
          change({ of: marks, to: () => ({ deleted: true }), back: () => ({ deleted: false }), words: 'deleted' })
        }
      >
        Delete
      </button>
      <button className="ml-auto text-soft hover:text-ink" onClick={onDone}>
        Choose none
      </button>
    </section>
  );
}

interface MenuProps {
  /** The chosen ones that are no answers: those have a kind and readers of their own. */
  readonly roots: readonly AnnotationHit[];
  readonly change: (change: Change) => void;
}

function KindMenu({ roots, change }: MenuProps) {
  const kinds = useLegends().data?.mine.kinds ?? [];
  const make = ({ code, name }: Kind): void =>
    change({
      of: roots,
      to: () => ({ kind: code }),
      back: (m) => ({ kind: m.kind.code }),
      words: `made ${name.toLowerCase()}`,
    });
  return (
    <Menu words="Kind">
      {kinds.map((k) => (
        <DropdownMenu.Item key={k.code} className="item" onSelect={() => make(k)}>
          <Sign kind={k} />
          {k.name}
        </DropdownMenu.Item>
      ))}
    </Menu>
  );
}

/** For whom it was: what was held is held again. */
const audienceOf = ({ classIds, teachersOnly, held, groupIds = [] }: AnnotationHit): Fields => ({
  classIds,
  groupIds,
  teachersOnly: teachersOnly === true,
  held: held === true,
});

/** What of it a class has to read first. */
const shareAll = (roots: readonly AnnotationHit[], id: ClassId) => (): Promise<unknown> =>
  Promise.all(
    [...new Set(roots.map(({ sourceId }) => sourceId))].map((sourceId) =>
      call('PUT /api/classes/:id/sources/:sourceId', { params: { id, sourceId } }),
    ),
  );

/** Moves them to one class, or puts them into one more: each stays one annotation. */
function AudienceMenu({ roots, change }: MenuProps) {
  const classes = useOpenClasses().data ?? [];
  const give = (words: string, to: Change['to'], first?: Change['first']): void =>
    change({ of: roots, to, back: audienceOf, words, ...(first ? { first } : {}) });
  const only = (classIds: readonly ClassId[]) => (): Fields => ({ classIds, groupIds: [] });
  const has = (id: ClassId) => (mark: AnnotationHit) => mark.classIds.includes(id);
  const isFurther = (id: ClassId): boolean => !roots.every(has(id)) && roots.some((m) => m.classIds.length > 0);
  const isOneOfMore = (id: ClassId): boolean => roots.some((m) => has(id)(m) && m.classIds.length > 1);
  return (
    <Menu words="Seen by">
      <Choice words="Only me" onSelect={() => give('for you alone', only([]))} />
      {classes.map(({ id, name }) => (
        <Choice
          key={id}
          words={`Only ${name}`}
          onSelect={() => give(`for ${name} alone`, only([id]), shareAll(roots, id))}
        />
      ))}
      {classes
        .filter(({ id }) => isFurther(id))
        .map(({ id, name }) => (
          <Choice
            key={id}
            words={`${name} as well`}
            onSelect={() =>
              give(`for ${name} as well`, (m) => ({ classIds: [...new Set([...m.classIds, id])] }), shareAll(roots, id))
            }
          />
        ))}
      {classes
        .filter(({ id }) => isOneOfMore(id))
        .map(({ id, name }) => (
          <Choice
            key={id}
            words={`No longer ${name}`}
            onSelect={() =>
              give(`for ${name} no longer`, (m) => ({ classIds: m.classIds.filter((one) => one !== id) }))
            }
          />
        ))}
    </Menu>
  );
}

const Choice = ({ words, onSelect }: { readonly words: string; onSelect(): void }) => (
  <DropdownMenu.Item className="item" onSelect={onSelect}>
    {words}
  </DropdownMenu.Item>
);

function Copy({ marks }: Pick<Props, 'marks'>) {
  const copy = useCopy();
  return (
    <button
      className="text-soft hover:text-ink"
      onClick={() => copy(asMarkdown(marks), `${count(marks.length, 'mark')} copied as Markdown.`)}
    >
      Copy as Markdown
    </button>
  );
}

const words = (pieces: AnnotationHit['quote']): string => pieces.map((p) => p.text).join('');
const asMarkdown = (marks: readonly AnnotationHit[]): string =>
  marks
    .map((m) =>
      [
        `> ${words(m.quote)}`,
        words(m.note),
        `— [${m.title}](${location.origin}/source/${m.sourceId}?at=${m.openAt})${m.tags.map((t) => ` #${t}`).join('')}`,
      ]
        .filter(Boolean)
        .join('\n\n'),
    )
    .join('\n\n');
