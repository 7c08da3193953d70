import { useMemo, type ReactNode } from 'react';
import { DropdownMenu } from 'radix-ui';
import type { Annotation, ClassRow } from '@avrelle/core/wire';
import { Sign } from '../../../ui/Sign';
import { useReader, useSession } from '../../session/reader-context';
import { matchesFilter, WHOSE, type Filter, type Whose } from '../../model/thread';

const same = (a: Whose, b: Whose): boolean => JSON.stringify(a) === JSON.stringify(b);

/** Whose marks are on the page, and which: the page itself does not move by a hair. */
export function ShowMenu() {
  const { store, threads, classes, me } = useSession();
  const shown = useReader((s) => s.filter);
  const marks = useMemo(() => threads.map((t) => t.root), [threads]);
  const onShow = (filter: Filter): void => store.dispatch({ type: 'filter', filter });
  const number = marks.filter((a) => matchesFilter(a, shown, me.id)).length;
  const narrowed = [
    typeof shown.whose === 'object' && nameOf(shown.whose, marks, classes),
    shown.kind && marks.find((a) => a.kind.code === shown.kind)?.kind.name.toLowerCase(),
    shown.tag && `#${shown.tag}`,
  ]
    .filter(Boolean)
    .join(', ');
  return (
    <div role="group" aria-label="Show marks" className="flex items-center gap-2 text-soft">
      <span aria-hidden="true">Show</span>
      {WHOSE.map((which) => (
        <button
          key={which}
          aria-pressed={shown.whose === which}
          onClick={() => onShow({ whose: which })}
          className={shown.whose === which ? 'border-b-2 border-tide font-semibold text-ink' : 'hover:text-ink'}
        >
          {which}
          {which !== 'none' && shown.whose === which && !narrowed ? ` ${number}` : ''}
        </button>
      ))}
      <DropdownMenu.Root modal={false}>
        <DropdownMenu.Trigger
          aria-label="Show only some"
          className={`max-w-[170px] truncate ${narrowed ? 'border-b-2 border-tide font-semibold text-ink' : 'hover:text-ink'}`}
        >
          {narrowed ? `${narrowed} ${number}` : 'only'} <span aria-hidden="true">▾</span>
        </DropdownMenu.Trigger>
        <DropdownMenu.Portal>
          <DropdownMenu.Content
            align="end"
            sideOffset={10}
            className="over max-h-[70vh] w-[240px] overflow-y-auto py-1.5 text-[14px]"
          >
            {narrowed && (
              <DropdownMenu.Item className="item text-tide" onSelect={() => onShow({ whose: 'all' })}>
                <span className="w-3" />
                Show all of them
              </DropdownMenu.Item>
            )}
            <Choices marks={marks} />
          </DropdownMenu.Content>
        </DropdownMenu.Portal>
      </DropdownMenu.Root>
    </div>
  );
}

/** What the marks can be narrowed to; reckoned when somebody looks. */
function Choices({ marks }: { readonly marks: readonly Annotation[] }) {
  const { store, classes, me } = useSession();
  const shown = useReader((s) => s.filter);
  const people = [
    ...new Map(marks.filter((a) => a.author.id !== me.id).map((a) => [a.author.id, a.author])).values(),
  ].sort((a, b) => a.name.localeCompare(b.name));
  const kinds = [...new Map(marks.map((a) => [a.kind.code, a.kind])).values()];
  const tags = [...new Set(marks.flatMap((a) => a.tags))].sort();
  const here = classes.filter((c) => marks.some((a) => a.classIds.includes(c.id)));
  const item = (key: string, on: boolean, words: ReactNode, next: Filter) => (
    <DropdownMenu.CheckboxItem
      key={key}
      className="item"
      checked={on}
      onCheckedChange={() => store.dispatch({ type: 'filter', filter: next })}
    >
      <span aria-hidden="true" className="w-3 text-tide">
        {on ? '✓' : ''}
      </span>
      {words}
    </DropdownMenu.CheckboxItem>
  );
  return (
    <>
      {here.length > 0 && (
        <Part title="of a class">
          {here.map((c) =>
            item(c.id, same(shown.whose, { classId: c.id }), c.name, { ...shown, whose: { classId: c.id } }),
          )}
        </Part>
      )}
      {people.length > 0 && (
        <Part title="of one person">
          {people.map((p) =>
            item(p.id, same(shown.whose, { person: p.id }), p.name, { ...shown, whose: { person: p.id } }),
          )}
        </Part>
      )}
      {kinds.length > 0 && (
        <Part title="of a kind">
          {kinds.map((k) =>
            item(
              k.code,
              shown.kind === k.code,
              <>
                <Sign kind={k} className="w-4" />
                {k.name}
              </>,
              { ...shown, kind: shown.kind === k.code ? undefined : k.code },
            ),
          )}
        </Part>
      )}
      {tags.length > 0 && (
        <Part title="with a tag">
          {tags.map((t) => item(t, shown.tag === t, `#${t}`, { ...shown, tag: shown.tag === t ? undefined : t }))}
        </Part>
      )}
    </>
  );
}

function nameOf(whose: Exclude<Whose, string>, marks: readonly Annotation[], classes: readonly ClassRow[]): string {
  return (
    ('person' in whose
      ? marks.find((a) => a.author.id === whose.person)?.author
      : classes.find((c) => c.id === whose.classId)
    )?.name ?? ''
  );
}

function Part({ title, children }: { title: string; children: ReactNode }) {
  return (
    <DropdownMenu.Group className="border-t border-rule py-1 first:border-t-0">
      <DropdownMenu.Label className="px-4 pt-1 text-[12.5px] text-faint">{title}</DropdownMenu.Label>
      {children}
    </DropdownMenu.Group>
  );
}
