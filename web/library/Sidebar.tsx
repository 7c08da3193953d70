import { lazy, Suspense, useState, type ReactNode } from 'react';
import { Link } from 'react-router';
import { asksFor, toggled } from '@avrelle/core/query';
import { READING_STATES, STATE_NAMES, STATE_WORDS, type LibraryOutline, type SavedSearch } from '@avrelle/core/wire';
import { TagName } from '../ui/TagNames';

const SearchOrder = lazy(() => import('./SearchOrder'));

interface Props {
  readonly outline: LibraryOutline | undefined;
  readonly q: string;
  onQuery(q: string): void;
  onEditSearch(search: SavedSearch): void;
  onEditTag(tag: string): void;
  onNewCollection(): void;
  /** Where there is no room beside the list: whether it lies over it. */
  readonly open: boolean;
  onClose(): void;
}

const SHOWN_TAGS = 24;

/** Beside the sources: how many there are of each sort. Each is a part of the search above, and one press takes it in or out. */
export function Sidebar({ outline, q, onQuery: ask, onEditSearch, onEditTag, onNewCollection, open, onClose }: Props) {
  const onQuery = (to: string): void => {
    ask(to);
    onClose();
  };
  if (!outline) return <aside aria-label="Filters" className="border-r border-rule max-[900px]:hidden" />;
  const search = (s: SavedSearch) => (
    <Choice
      key={s.id}
      on={q === s.query}
      count={s.count}
      onChoose={() => onQuery(q === s.query ? '' : s.query)}
      {...(s.owned
        ? { more: { words: `Change the search ${s.name}`, run: () => onEditSearch(s) } }
        : { title: `From ${s.ownerName}` })}
    >
      {s.name}
    </Choice>
  );
  return (
    <aside
      aria-label="Filters"
      className={`overflow-y-auto border-r border-rule py-[18px] pl-6 text-[14.5px] ${open ? 'max-[900px]:fixed max-[900px]:inset-x-0 max-[900px]:bottom-0 max-[900px]:top-[47px] max-[900px]:z-30 max-[900px]:bg-paper' : 'max-[900px]:hidden'}`}
    >
      <button className="act mb-3 hidden max-[900px]:block" onClick={onClose}>
        Back to the list
      </button>
      <Group name="States">
        <Choice on={q === ''} count={outline.all} onChoose={() => onQuery('')}>
          All
        </Choice>
        {READING_STATES.map((s) => (
          <Choice
            key={s}
            on={asksFor(q, 'is', STATE_NAMES[s])}
            count={outline.states[s]}
            onChoose={() => onQuery(toggled(q, 'is', STATE_NAMES[s]))}
          >
            {STATE_WORDS[s]}
          </Choice>
        ))}
      </Group>
      <Group name="Saved searches">
        {outline.searches.length === 0 && (
          <p className="pr-4 text-[13px] text-faint">
            Search for something, then press “Save this search”: it stands here with its count.
          </p>
        )}
        <Suspense fallback={outline.searches.map(search)}>
          <SearchOrder searches={outline.searches}>{search}</SearchOrder>
        </Suspense>
      </Group>
      <Group name="Collections" add={{ words: 'New collection', run: onNewCollection }}>
        <Collections of={outline.collections} />
      </Group>
      <Tags tags={outline.tags} q={q} onQuery={onQuery} onEdit={onEditTag} />
      {outline.deleted > 0 && (
        <p className="pr-4 text-[13px]">
          <Link className="text-soft hover:text-ink" to="/library/deleted">
            Deleted, kept for thirty days: {outline.deleted}
          </Link>
        </p>
      )}
    </aside>
  );
}

/** Each with those that stand in it. */
function Collections({ of: all }: { readonly of: LibraryOutline['collections'] }) {
  const outer = all.filter((c) => !c.parentId || !all.some((o) => o.id === c.parentId));
  return outer.map((c) => (
    <div key={c.id}>
      <CollectionLink {...c} />
      {all
        .filter((inner) => inner.parentId === c.id)
        .map((inner) => (
          <CollectionLink key={inner.id} {...inner} inner />
        ))}
    </div>
  ));
}

interface TagsProps {
  readonly tags: LibraryOutline['tags'];
  readonly q: string;
  onQuery(q: string): void;
  onEdit(tag: string): void;
}

/** The most used, and all of them when asked for. */
function Tags({ tags, q, onQuery, onEdit }: TagsProps) {
  const [all, setAll] = useState(false);
  const shown = all ? tags : tags.slice(0, SHOWN_TAGS);
  if (tags.length === 0) return null;
  return (
    <Group name="Tags">
      {shown.map(({ tag, count }) => (
        <Choice
          key={tag}
          on={asksFor(q, 'tag', tag)}
          count={count}
          onChoose={() => onQuery(toggled(q, 'tag', tag))}
          more={{ words: `Change the tag ${tag}`, run: () => onEdit(tag) }}
        >
          <TagName tag={tag} />
        </Choice>
      ))}
      {tags.length > shown.length && (
        <button className="act py-1 text-[13px]" onClick={() => setAll(true)}>
          All {tags.length} tags
        </button>
      )}
    </Group>
  );
}

function Group({
  name,
  add,
  children,
}: {
  name: string;
  add?: { words: string; run: () => void };
  children: ReactNode;
}) {
  return (
    <section className="mb-[18px]">
      <h2 className="!font-ui mb-1 flex items-baseline pr-[18px] text-[13px] text-faint">
        {name}
        {add && (
          <button
            aria-label={add.words}
            title={add.words}
            className="ml-auto px-1 text-[15px] leading-none text-soft hover:text-ink"
            onClick={add.run}
          >
            +
          </button>
        )}
      </h2>
      {children}
    </section>
  );
}

function Choice({
  on,
  count: n,
  onChoose,
  more,
  title,
  children,
}: {
  on: boolean;
  title?: string;
  count: number | null | undefined;
  onChoose: () => void;
  more?: { words: string; run: () => void };
  children: ReactNode;
}) {
  return (
    <div className={`group/choice relative flex pr-[18px] ${on ? 'shadow-[inset_-3px_0_var(--tide)]' : ''}`}>
      <button
        aria-pressed={on}
        title={title}
        onClick={onChoose}
        className={`flex min-w-0 flex-1 justify-between gap-2 py-[3.5px] text-left hover:text-ink ${on ? 'font-semibold text-ink' : 'text-soft'}`}
      >
        <span className="truncate">{children}</span>
        <span
          className={`font-normal text-faint ${more ? 'group-focus-within/choice:invisible group-hover/choice:invisible' : ''}`}
        >
          {n ?? ''}
        </span>
      </button>
      {more && (
        <button
          aria-label={more.words}
          title={more.words}
          onClick={more.run}
          className="absolute right-[18px] top-[3px] px-0.5 text-faint opacity-0 hover:text-ink focus-visible:opacity-100 group-focus-within/choice:opacity-100 group-hover/choice:opacity-100"
        >
          …
        </button>
      )}
    </div>
  );
}

function CollectionLink({
  id,
  name,
  count,
  classId,
  inner = false,
}: LibraryOutline['collections'][number] & { inner?: boolean }) {
  return (
    <Link
      to={`/collection/${id}`}
      className={`flex justify-between gap-2 py-[3.5px] pr-[18px] text-soft hover:text-ink ${inner ? 'pl-[14px]' : ''}`}
    >
      <span className="truncate">
        {name}
        {classId && <span className="text-[12.5px] text-faint"> · class</span>}
      </span>
      <span className="text-faint">{count}</span>
    </Link>
  );
}
