import { useEffect, useState, type ReactNode } from 'react';
import { DropdownMenu } from 'radix-ui';
import { useQueryClient } from '@tanstack/react-query';
import { useSearchParams } from 'react-router';
import { READING_STATES, STATE_WORDS, type ReadingState, type SourceRow as Row } from '@avrelle/core/wire';
import { request, wordsOf } from '../data/api';
import { useLibrary, type LibraryFilter } from '../data/queries';
import { useMessages } from '../ui/Messages';
import { SourceRow } from '../ui/SourceRow';
import { State } from '../ui/State';
import { count } from '../ui/when';
import { EditSource } from './EditSource';
import { KeepBar } from './KeepBar';

const PAUSE = 200;

/** Every source one may read, by state, tag and words. */
export default function LibraryPage() {
  const [params, setParams] = useSearchParams();
  const filter: LibraryFilter = Object.fromEntries(['state', 'tag', 'words'].flatMap((k) => (params.get(k) ? [[k, params.get(k)!]] : [])));
  const library = useLibrary(filter);
  const [editing, setEditing] = useState<Row>();
  const to = (change: Record<string, string | undefined>): void => setParams((before) => {
    const after = new URLSearchParams(before);
    for (const [key, value] of Object.entries(change)) { if (value) after.set(key, value); else after.delete(key); }
    return after;
  }, { replace: true });
  const counts = library.data?.counts;
  const filtered = Object.keys(filter).length > 0;
  return (
    <div className="grid min-h-0 grid-cols-[236px_1fr] max-[900px]:grid-cols-1">
      <aside aria-label="Filters" className="overflow-y-auto border-r border-rule py-[18px] pl-6 text-[14.5px] max-[900px]:hidden">
        <Group name="States">
          <Choice on={!filtered} count={counts?.all} onChoose={() => setParams({}, { replace: true })}>All</Choice>
          {READING_STATES.map((s) => <Choice key={s} on={filter.state === s} count={counts?.states[s]} onChoose={() => to({ state: filter.state === s ? undefined : s })}>{STATE_WORDS[s]}</Choice>)}
        </Group>
        {counts && counts.tags.length > 0 && <Group name="Tags">{counts.tags.slice(0, 24).map(({ tag, count: n }) => <Choice key={tag} on={filter.tag === tag} count={n} onChoose={() => to({ tag: filter.tag === tag ? undefined : tag })}>#{tag}</Choice>)}</Group>}
      </aside>
      <main className="min-h-0 overflow-y-auto bg-sheet">
        <div className="flex flex-wrap items-baseline gap-5 border-b border-strong px-[30px] pb-2.5 pt-3.5 max-[900px]:px-4">
          <h1 className="text-[23px]">Library</h1>
          <WordsField value={filter.words ?? ''} onChange={(words) => to({ words })} />
          <span aria-live="polite" className="text-[14px] text-soft">{library.data && (filtered ? `${library.data.sources.length} of ${counts?.all}` : count(library.data.sources.length, 'source'))}</span>
          {filtered && <button className="act text-[14px]" onClick={() => setParams({}, { replace: true })}>Show all</button>}
        </div>
        <KeepBar />
        <State of={library}>
          {library.data?.sources.length === 0 ? <Empty filtered={filtered} /> : (
            <ol>{library.data?.sources.map((source, i) => <SourceRow key={source.id} source={source} number={i + 1} excerpts><RowActions source={source} onEdit={() => setEditing(source)} /></SourceRow>)}</ol>
          )}
        </State>
      </main>
      {editing && <EditSource source={editing} onClose={() => setEditing(undefined)} />}
    </div>
  );
}

function Empty({ filtered }: { filtered: boolean }) {
  if (filtered) return <p className="p-8 text-soft">Nothing here fits. Take a filter away, or look for the words in texts and notes with Find.</p>;
  return <div className="max-w-[56ch] p-8"><h2 className="text-[18px]">Your reading belongs here</h2><p className="mt-2 text-soft">Paste the address of a page above and press Keep: it is fetched, made complete, and opens with its text ready to mark. Files can be dropped here, too: PDF, books, documents, pictures, recordings, letters, saved pages.</p></div>;
}

function Group({ name, children }: { name: string; children: ReactNode }) {
  return <section className="mb-[18px]"><h2 className="!font-ui mb-1 text-[13px] text-faint">{name}</h2>{children}</section>;
}

function Choice({ on, count: n, onChoose, children }: { on: boolean; count: number | undefined; onChoose: () => void; children: ReactNode }) {
  return <button aria-pressed={on} onClick={onChoose} className={`flex w-full justify-between py-[3.5px] pr-[18px] text-left hover:text-ink ${on ? 'border-r-[3px] border-tide font-semibold text-ink' : 'text-soft'}`}><span>{children}</span><span className="font-normal text-faint">{n ?? ''}</span></button>;
}

/** Filters a moment after the last key. */
function WordsField({ value, onChange }: { value: string; onChange: (words: string) => void }) {
  const [words, setWords] = useState(value);
  useEffect(() => {
    if (words === value) return;
    const timer = setTimeout(() => onChange(words), PAUSE);
    return () => clearTimeout(timer);
  }, [words, value, onChange]);
  return <input type="search" aria-label="Filter by words in title, author and site" value={words} onChange={(e) => setWords(e.target.value)} placeholder="words in title, author, site" className="field !w-auto min-w-0 max-w-[280px] flex-1" />;
}

function RowActions({ source, onEdit }: { source: Row; onEdit: () => void }) {
  const client = useQueryClient();
  const messages = useMessages();
  const again = () => client.invalidateQueries({ queryKey: ['library'] });
  const send = (method: 'PUT' | 'DELETE' | 'POST', path: string, body?: unknown) => request(method, `/api/sources/${source.id}${path}`, body).then(again, (e: unknown) => messages.warn(wordsOf(e)));
  const setState = (state: ReadingState) => void send('PUT', '/shelf', { state }).then(() => messages.tell(`“${source.title}” is ${STATE_WORDS[state].toLowerCase()}.`, { label: 'Undo', run: () => void send('PUT', '/shelf', { state: source.state }) }));
  const remove = () => void send('DELETE', '').then(() => messages.tell(`“${source.title}” was deleted, with its marks.`, { label: 'Undo', run: () => void send('POST', '/restore', {}) }));
  return (
    <DropdownMenu.Root modal={false}>
      <DropdownMenu.Trigger aria-label={`More for ${source.title}`} className="ml-auto block text-[13px] text-faint hover:text-ink">more <span aria-hidden="true">▾</span></DropdownMenu.Trigger>
      <DropdownMenu.Portal>
        <DropdownMenu.Content align="end" sideOffset={4} className="over min-w-[190px] py-1.5 text-[14px]">
          {READING_STATES.map((s) => <DropdownMenu.Item key={s} className="item" onSelect={() => setState(s)}><span aria-hidden="true" className="w-3 text-tide">{source.state === s ? '✓' : ''}</span>{STATE_WORDS[s]}</DropdownMenu.Item>)}
          <DropdownMenu.Separator className="my-1 border-t border-rule" />
          <DropdownMenu.Item className="item" onSelect={onEdit}><span className="w-3" />{source.owned ? 'About it, tags…' : 'Tags…'}</DropdownMenu.Item>
          {source.owned && <DropdownMenu.Item className="item text-brick" onSelect={remove}><span className="w-3" />Delete</DropdownMenu.Item>}
        </DropdownMenu.Content>
      </DropdownMenu.Portal>
    </DropdownMenu.Root>
  );
}
