import { DropdownMenu } from 'radix-ui';
import { useQueryClient } from '@tanstack/react-query';
import type { Annotation, AnnotationHit, ClassId } from '@avrelle/core/wire';
import { wordsOf } from '../data/api';
import { call } from '../data/call';
import { renew, useClasses, useLegends } from '../data/queries';
import { Menu } from '../ui/Menu';
import { useMessages } from '../ui/Messages';
import { Sign } from '../ui/Sign';
import { TagForm } from '../ui/TagForm';
import { count } from '../ui/when';

type Fields = {
  readonly kind?: string;
  readonly tags?: readonly string[];
  readonly classIds?: readonly ClassId[];
  readonly deleted?: boolean;
};

/** What can be done with one's own marks from several sources at once, each step with a way back; or taken out as Markdown. */
export function ChosenMarks({ marks, onDone }: { marks: readonly AnnotationHit[]; onDone: () => void }) {
  const client = useQueryClient();
  const messages = useMessages();
  const classes = useClasses().data ?? [];
  const kinds = useLegends().data?.mine.kinds ?? [];
  const roots = marks.filter((m) => !m.rootId);
  const send = (
    changes: readonly ({ readonly id: string; readonly version: number } & Fields)[],
  ): Promise<readonly Annotation[]> => call('POST /api/annotations/changes', { body: { changes } });
  const fresh = (): void => void renew(client, 'marks');
  const change = async (
    of: readonly AnnotationHit[],
    to: (mark: AnnotationHit) => Fields,
    back: (mark: AnnotationHit) => Fields,
    words: string,
  ): Promise<void> => {
    try {
      const after = await send(of.map((m) => ({ id: m.id, version: m.version, ...to(m) })));
      messages.tell(`${count(of.length, 'mark')} ${words}.`, {
        label: 'Undo',
        run: () =>
          void send(of.map((m, n) => ({ id: m.id, version: after[n]!.version, ...back(m) }))).then(
            fresh,
            (error: unknown) => messages.warn(wordsOf(error)),
          ),
      });
      onDone();
    } catch (error) {
      messages.warn(wordsOf(error));
    }
    fresh();
  };
  return (
    <section
      aria-label="The chosen marks"
      className="sticky bottom-0 z-20 flex flex-wrap items-center gap-x-5 gap-y-1 border-t border-strong bg-paper px-[30px] py-2 text-[14px] max-[900px]:px-4"
    >
      <b aria-live="polite">{count(marks.length, 'mark')} chosen</b>
      {roots.length > 0 && (
        <Menu words="Kind">
          {kinds.map((k) => (
            <DropdownMenu.Item
              key={k.code}
              className="item"
              onSelect={() =>
                void change(
                  roots,
                  () => ({ kind: k.code }),
                  (m) => ({ kind: m.kind.code }),
                  `made ${k.name.toLowerCase()}`,
                )
              }
            >
              <Sign kind={k} />
              {k.name}
            </DropdownMenu.Item>
          ))}
        </Menu>
      )}
      <TagForm
        onAdd={(tags) =>
          void change(
            marks,
            (m) => ({ tags: [...new Set([...m.tags, ...tags])] }),
            (m) => ({ tags: m.tags }),
            `tagged ${tags.map((t) => `#${t}`).join(' ')}`,
          )
        }
      />
      {roots.length > 0 && (
        <Menu words="Seen by">
          <DropdownMenu.Item
            className="item"
            onSelect={() =>
              void change(
                roots,
                () => ({ classIds: [] }),
                (m) => ({ classIds: m.classIds }),
                'for you alone',
              )
            }
          >
            Only me
          </DropdownMenu.Item>
          {classes.map((c) => (
            <DropdownMenu.Item
              key={c.id}
              className="item"
              onSelect={() =>
                void change(
                  roots,
                  () => ({ classIds: [c.id] }),
                  (m) => ({ classIds: m.classIds }),
                  `for ${c.name}`,
                )
              }
            >
              {c.name}
            </DropdownMenu.Item>
          ))}
        </Menu>
      )}
      <button
        className="text-soft hover:text-ink"
        onClick={() =>
          void navigator.clipboard.writeText(asMarkdown(marks)).then(
            () => messages.tell(`${count(marks.length, 'mark')} copied as Markdown.`),
            () => messages.warn('They could not be copied here.'),
          )
        }
      >
        Copy as Markdown
      </button>
      <button
        className="text-brick hover:underline"
        onClick={() =>
          void change(
            marks,
            () => ({ deleted: true }),
            () => ({ deleted: false }),
            'deleted',
          )
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
