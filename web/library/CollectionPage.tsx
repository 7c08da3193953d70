import { useState, type ReactNode } from 'react';
import { useForm } from 'react-hook-form';
import { useQueryClient } from '@tanstack/react-query';
import { Link, useNavigate, useParams } from 'react-router';
import type { CollectionDetail, SourceChange, SourceRow as Row } from '@avrelle/core/wire';
import { ProblemError, wordsOf } from '../data/api';
import { useWrite } from '../data/use-write';
import { keys, renew, useCollection } from '../data/queries';
import { useMessages } from '../ui/Messages';
import { leftOf, marksOf } from '../ui/SourceRow';
import { SortableList, useSortableRow } from '../ui/Sortable';
import { State } from '../ui/State';
import { Strand } from '../ui/Strand';
import { count } from '../ui/when';
import CollectionDialog from './CollectionDialog';
import { arranged, flat, movedTo, sectionKey, withNewSection, withoutSection, type Arrangement } from './arrange';
import { TagNames } from '../ui/TagNames';
import { changeSources } from './use-changing';
import { PageHeading } from '../ui/PageHeading';

/** Sources in sections, in an order of one's own; whoever may add to it may order it. */
export default function CollectionPage() {
  const { id = '' } = useParams();
  const found = useCollection(id);
  const navigate = useNavigate();
  const [editing, setEditing] = useState(false);
  if (!found.data)
    return (
      <main>
        <State of={found} />
      </main>
    );
  const c = found.data;
  const may = c.owned || c.may === 'add';
  return (
    <main className="min-h-0 overflow-y-auto bg-sheet">
      <div className="flex flex-wrap items-baseline gap-x-5 gap-y-1 border-b border-strong px-[30px] pb-2.5 pt-3.5 max-[900px]:px-4">
        <Link to="/library" className="reach text-[14px] text-soft hover:text-ink">
          Library
        </Link>
        <PageHeading>{c.name}</PageHeading>
        <span className="text-[14px] text-soft">
          {count(c.items.length, 'source')}
          {c.className &&
            ` · ${c.owned ? `shared with ${c.className}` : `from ${c.ownerName}, for ${c.className}`}${c.may === 'add' ? ', who may add to it' : ''}`}
          {c.hidden > 0 && ` · ${count(c.hidden, 'source')} you may not read`}
        </span>
        {c.owned && (
          <button className="act ml-auto text-[14px]" onClick={() => setEditing(true)}>
            About it…
          </button>
        )}
      </div>
      <Ordered collection={c} may={may} />
      {editing && (
        <CollectionDialog
          collection={c}
          onClose={() => setEditing(false)}
          onRemoved={() => void navigate('/library')}
        />
      )}
    </main>
  );
}

const arrangementOf = (c: CollectionDetail): Arrangement =>
  arranged(
    c.sections,
    c.items.map((i) => ({ id: i.source.id, section: i.section })),
  );

/** The order as it is seen, and changing it: what was moved stays shown, and gives way to what another did. */
function useOrder(c: CollectionDetail) {
  const client = useQueryClient();
  const ordering = useWrite('PUT /api/collections/:id/order');
  const messages = useMessages();
  const [now, setNow] = useState(() => arrangementOf(c));
  const [version, setVersion] = useState(c.version);
  // What somebody else ordered is shown; the handle that is held stays held.
  if (version !== c.version) {
    setVersion(c.version);
    setNow(arrangementOf(c));
  }
  const put = (detail: CollectionDetail): void => {
    client.setQueryData(keys.collection(c.id), detail);
    void renew(client, 'outline');
  };
  const store = async (next: Arrangement): Promise<void> => {
    setNow(next);
    const body = {
      version: c.version,
      sections: next.sections,
      was: next.was ?? [...next.sections.keys()],
      items: next.groups.flatMap((ids, n) => ids.map((sourceId) => ({ sourceId, section: n - 1 }))),
    };
    try {
      put(await ordering.send({ params: { id: c.id }, body }));
    } catch (error) {
      messages.warn(
        error instanceof ProblemError && error.problem.code === 'stale'
          ? 'Somebody changed the order at the same time. Their order is shown; move yours again if you still want to.'
          : wordsOf(error),
      );
      if (error instanceof ProblemError && error.problem.current) put(error.problem.current as CollectionDetail);
      else void renew(client, 'collection', c.id);
    }
  };
  return { now, store: (next: Arrangement): void => void store(next) };
}

/** Takes a source out of a collection, with a way back. */
function useTakingOut(collectionId: CollectionDetail['id']): (source: Row) => void {
  const client = useQueryClient();
  const messages = useMessages();
  const send = async (changes: readonly SourceChange[]): Promise<readonly SourceChange[]> => {
    const { undo } = await changeSources(changes);
    await renew(client, 'collection', collectionId);
    void renew(client, 'outline');
    return undo;
  };
  const failed = (error: unknown): void => messages.warn(wordsOf(error));
  return (source) =>
    void send([{ id: source.id, takeFrom: collectionId }]).then(
      (undo) =>
        messages.tell(`“${source.title}” taken out.`, { label: 'Undo', run: () => void send(undo).catch(failed) }),
      failed,
    );
}

function Ordered({ collection: c, may }: { collection: CollectionDetail; may: boolean }) {
  const { now, store } = useOrder(c);
  const takeOut = useTakingOut(c.id);
  const sources = new Map(c.items.map((i) => [i.source.id, i.source]));
  const nameOf = (id: string): string =>
    sources.get(id)?.title ?? `The section ${now.sections.find((_name, n) => sectionKey(n) === id) ?? ''}`;
  const onMove = (id: string, over: string): void => {
    const next = movedTo(now, id, over);
    if (next !== now) store(next);
  };
  if (c.items.length === 0 && c.sections.length === 0)
    return (
      <p className="max-w-[58ch] p-8 text-soft">
        Nothing is in it yet. In the Library choose sources, then “Put into”, and this collection.
      </p>
    );
  const item = (source: Row | undefined): ReactNode =>
    source && (
      <Item key={source.id} source={source} may={may}>
        {may && (
          <button className="text-[13px] text-faint hover:text-brick" onClick={() => takeOut(source)}>
            remove
          </button>
        )}
      </Item>
    );
  return (
    <>
      <SortableList ids={flat(now)} disabled={!may} nameOf={nameOf} onMove={onMove}>
        <ol aria-label="Sources" className="px-[30px] pb-6 max-[900px]:px-4">
          {now.groups.map((ids, n) => [
            n > 0 && (
              <Section
                key={`${sectionKey(n - 1)} ${now.sections[n - 1]}`}
                id={sectionKey(n - 1)}
                may={may}
                name={now.sections[n - 1]!}
                onName={(name) => store(withSectionNamed(now, n - 1, name))}
                onRemove={() => store(withoutSection(now, n - 1))}
              />
            ),
            ...ids.map((id) => item(sources.get(id))),
          ])}
        </ol>
      </SortableList>
      {may && <NewSection onName={(name) => store(withNewSection(now, name))} />}
    </>
  );
}

const withSectionNamed = ({ groups, sections }: Arrangement, at: number, name: string): Arrangement => ({
  groups,
  sections: sections.map((section, n) => (n === at ? name : section)),
});

/** Asks for the name of a section when it is wanted; without one there is none. */
function NewSection({ onName }: { readonly onName: (name: string) => void }) {
  const [naming, setNaming] = useState(false);
  const { register, handleSubmit, reset } = useForm({ defaultValues: { name: '' } });
  const submit = handleSubmit(({ name }) => {
    setNaming(false);
    reset();
    if (name.trim()) onName(name.trim());
  });
  return (
    <div className="px-[30px] pb-8 text-[14px] max-[900px]:px-4">
      {naming ? (
        <form className="flex max-w-[340px] gap-4" onSubmit={(event) => void submit(event)}>
          <input {...register('name')} autoFocus aria-label="Name of the section" className="field" />
          <button className="act">Add</button>
        </form>
      ) : (
        <button className="act" onClick={() => setNaming(true)}>
          New section
        </button>
      )}
    </div>
  );
}

function Item({ source, may, children }: { source: Row; may: boolean; children: ReactNode }) {
  const { ref, style, isDragging, grip } = useSortableRow(source.id);
  return (
    <li
      ref={ref}
      style={style}
      className={`grid grid-cols-[16px_minmax(0,1fr)_150px_90px_60px] items-center gap-x-4 border-b border-rule bg-sheet py-2 max-[900px]:grid-cols-[16px_minmax(0,1fr)_auto] ${isDragging ? 'relative z-10 bg-wash' : ''}`}
    >
      {may ? grip(source.title) : <span />}
      <div className="min-w-0">
        <Link
          to={`/source/${source.id}`}
          dir="auto"
          lang={source.language || undefined}
          className="reach font-read text-[16px] font-semibold"
        >
          {source.title}
        </Link>
        <p className="truncate text-[13.5px] text-soft">
          {[source.author, source.site].filter(Boolean).join(' · ')}
          {source.tags.length > 0 && (
            <span className="text-tide">
              {' '}
              <TagNames tags={source.tags.slice(0, 4)} />
            </span>
          )}
        </p>
      </div>
      <div className="max-[900px]:hidden" title={marksOf(source)}>
        <Strand strand={source.strand} width={150} />
      </div>
      <b className="text-right text-[13.5px] font-semibold max-[900px]:hidden">{leftOf(source)}</b>
      <span className="text-right">{children}</span>
    </li>
  );
}

function Section({
  id,
  name,
  may,
  onName,
  onRemove,
}: {
  id: string;
  name: string;
  may: boolean;
  onName: (name: string) => void;
  onRemove: () => void;
}) {
  const { ref, style, grip } = useSortableRow(id);
  return (
    <li ref={ref} style={style} className="flex items-baseline gap-4 border-b border-strong bg-sheet pb-1 pt-5">
      {may && grip(`the section ${name}`)}
      {may ? (
        <input
          aria-label="Name of the section"
          defaultValue={name}
          onBlur={(e) => {
            const to = e.target.value.trim();
            if (to && to !== name) onName(to);
            else e.target.value = name;
          }}
          onKeyDown={(e) => {
            if (e.key === 'Enter') e.currentTarget.blur();
          }}
          className="min-w-0 flex-1 bg-transparent font-read text-[17px] font-semibold"
        />
      ) : (
        <h2 className="text-[17px]">{name}</h2>
      )}
      {may && (
        <button
          className="text-[13px] text-faint hover:text-brick"
          title="Its sources stay in the section above"
          onClick={onRemove}
        >
          remove section
        </button>
      )}
    </li>
  );
}
