import { DropdownMenu } from 'radix-ui';
import { READING_STATES, STATE_WORDS, type ClassRow, type CollectionRow } from '@avrelle/core/wire';
import { wordsOf } from '../data/api';
import { save } from '../data/call';
import { Menu } from '../ui/Menu';
import { useMessages } from '../ui/Messages';
import { TagForm } from '../ui/TagForm';
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
  const { rows } = chosen;
  const tags = [...new Set(rows.flatMap((r) => r.tags))].sort();
  const owned = rows.filter((r) => r.owned);
  const messages = useMessages();
  const done = (work: Promise<boolean>): void => void work.then((held) => held && chosen.none());
  return (
    <section
      aria-label="The chosen sources"
      className="sticky bottom-0 z-20 flex flex-wrap items-center gap-x-5 gap-y-1 border-t border-strong bg-paper px-[30px] py-2 text-[14px] max-[900px]:px-4"
    >
      <b aria-live="polite">{count(rows.length, 'source')} chosen</b>
      {rows.length < total && (
        <button className="act" onClick={onAll}>
          All {total}
        </button>
      )}
      <Menu words="State">
        {READING_STATES.map((s) => (
          <DropdownMenu.Item key={s} className="item" onSelect={() => done(changing.state(rows, s))}>
            {STATE_WORDS[s]}
          </DropdownMenu.Item>
        ))}
      </Menu>
      <TagForm
        tags={tags}
        onAdd={(added) => done(changing.addTags(rows, added))}
        onTake={(tag) => done(changing.takeTag(rows, tag))}
      />
      {collections.length > 0 && (
        <Menu words="Put into">
          {collections.map((c) => (
            <DropdownMenu.Item key={c.id} className="item" onSelect={() => done(changing.file(rows, c))}>
              {c.name}
            </DropdownMenu.Item>
          ))}
        </Menu>
      )}
      {classes.length > 0 && owned.length === rows.length && (
        <Menu words="Share with">
          {classes.map((c) => (
            <DropdownMenu.Item key={c.id} className="item" onSelect={() => done(changing.share(rows, c))}>
              {c.name}
            </DropdownMenu.Item>
          ))}
        </Menu>
      )}
      <Menu words="Export">
        {(
          [
            ['csv', 'As a table (CSV)', 'library.csv'],
            ['bookmarks', 'As bookmarks', 'bookmarks.html'],
            ['notes', 'Study notes, a file each (zip)', 'study-notes.zip'],
          ] as const
        ).map(([as, words, name]) => (
          <DropdownMenu.Item
            key={as}
            className="item"
            onSelect={() =>
              void save(name, 'POST /api/sources/take-out', { body: { sourceIds: rows.map((r) => r.id), as } }).catch(
                (error: unknown) => messages.warn(wordsOf(error)),
              )
            }
          >
            {words}
          </DropdownMenu.Item>
        ))}
      </Menu>
      {owned.length === rows.length && (
        <button className="text-brick hover:underline" onClick={() => done(changing.remove(rows))}>
          Delete
        </button>
      )}
      <button className="ml-auto text-soft hover:text-ink" onClick={chosen.none}>
        Choose none
      </button>
    </section>
  );
}
