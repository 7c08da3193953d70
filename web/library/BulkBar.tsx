import { useState, type FormEvent } from 'react';
import { DropdownMenu, Popover } from 'radix-ui';
import { READING_STATES, STATE_WORDS, type ClassRow, type CollectionRow } from '@avrelle/core/wire';
import { tagsIn } from '../gather/tags-in';
import { Menu } from '../ui/Menu';
import { count } from '../ui/when';
import type { Changing } from './use-changing';
import type { Chosen } from './use-chosen';

interface Props {
  readonly chosen: Chosen;
  readonly changing: Changing;
  readonly collections: readonly CollectionRow[];
  readonly classes: readonly ClassRow[];
  readonly total: number;
  onAll(): void;
}

/** At the foot of the Library while sources are chosen: what can be done with all of them at once. */
export default function BulkBar({ chosen, changing, collections, classes, total, onAll }: Props) {
  const { rows } = chosen, tags = [...new Set(rows.flatMap((r) => r.tags))].sort(), owned = rows.filter((r) => r.owned);
  const done = (work: Promise<boolean>): void => void work.then((held) => held && chosen.none());
  return (
    <section aria-label="The chosen sources" className="sticky bottom-0 z-20 flex flex-wrap items-center gap-x-5 gap-y-1 border-t border-strong bg-paper px-[30px] py-2 text-[14px] max-[900px]:px-4">
      <b aria-live="polite">{count(rows.length, 'source')} chosen</b>
      {rows.length < total && <button className="act" onClick={onAll}>All {total}</button>}
      <Menu words="State">{READING_STATES.map((s) => <DropdownMenu.Item key={s} className="item" onSelect={() => done(changing.state(rows, s))}>{STATE_WORDS[s]}</DropdownMenu.Item>)}</Menu>
      <TagForm tags={tags} onAdd={(added) => done(changing.addTags(rows, added))} onTake={(tag) => done(changing.takeTag(rows, tag))} />
      {collections.length > 0 && <Menu words="Put into">{collections.map((c) => <DropdownMenu.Item key={c.id} className="item" onSelect={() => done(changing.file(rows, c))}>{c.name}</DropdownMenu.Item>)}</Menu>}
      {classes.length > 0 && owned.length === rows.length && <Menu words="Share with">{classes.map((c) => <DropdownMenu.Item key={c.id} className="item" onSelect={() => done(changing.share(rows, c))}>{c.name}</DropdownMenu.Item>)}</Menu>}
      {owned.length === rows.length && <button className="text-brick hover:underline" onClick={() => done(changing.remove(rows))}>Delete</button>}
      <button className="ml-auto text-soft hover:text-ink" onClick={chosen.none}>Choose none</button>
    </section>
  );
}

function TagForm({ tags, onAdd, onTake }: { tags: readonly string[]; onAdd: (tags: readonly string[]) => void; onTake: (tag: string) => void }) {
  const [open, setOpen] = useState(false), [words, setWords] = useState('');
  const submit = (event: FormEvent): void => { event.preventDefault(); const added = tagsIn(words); if (added.length) { onAdd(added); setWords(''); setOpen(false); } };
  return (
    <Popover.Root open={open} onOpenChange={setOpen}>
      <Popover.Trigger className="text-soft hover:text-ink">Tags <span aria-hidden="true">▾</span></Popover.Trigger>
      <Popover.Portal>
        <Popover.Content align="start" sideOffset={6} className="over w-[260px] p-3 text-[14px]">
          <form onSubmit={submit} className="flex gap-3"><input aria-label="Tags to add" autoFocus value={words} onChange={(e) => setWords(e.target.value)} placeholder="#essay #accretion" className="field" /><button className="act">Add</button></form>
          {tags.length > 0 && <ul className="mt-2 flex max-h-[30vh] flex-wrap gap-x-3 overflow-y-auto">{tags.map((t) => <li key={t} className="text-tide">#{t} <button aria-label={`Take #${t} away`} className="text-faint hover:text-brick" onClick={() => { onTake(t); setOpen(false); }}>×</button></li>)}</ul>}
        </Popover.Content>
      </Popover.Portal>
    </Popover.Root>
  );
}
