import { useEffect, useMemo, useState, type KeyboardEvent } from 'react';
import { findWords, placeName } from '@avrelle/core/text';
import { useLatest } from '../../../ui/use-latest';
import type { StreamRange } from '../../../page/page-frame';
import { useDocument } from '../../document/document-context';
import { useReader, useSession } from '../../session/reader-context';
import { Strip } from './Strip';

/** Looking for words within the source: how many there are, and one after the other. */
export function FindWithin() {
  const { source, text, store } = useSession();
  const view = useReader((s) => s.view);
  const [words, setWords] = useState('');
  const [at, setAt] = useState(0);
  const found = useMemo(() => findWords(text.text, words), [text, words]);
  const number = Math.min(at, found.length - 1);
  const here = found[number];
  useShown(here);
  const close = (): void => store.dispatch({ type: 'find', on: false });
  const step = (by: 1 | -1): void => {
    if (found.length) setAt((now) => (Math.min(now, found.length - 1) + by + found.length) % found.length);
  };
  const onKey = (event: KeyboardEvent): void => {
    if (event.key === 'Escape') close();
    if (event.key !== 'Enter') return;
    event.preventDefault();
    step(event.shiftKey ? -1 : 1);
  };
  const block = here && text.outline.find((b) => b.start <= here.start && here.start < b.end);
  const hasWhole = view === 'main' && (source.kind === 'page' || source.kind === 'letter');
  return (
    <Strip>
      <input
        autoFocus
        type="search"
        aria-label="Words in this source"
        value={words}
        placeholder="words in this source"
        className="field !w-[260px]"
        onChange={(e) => {
          setWords(e.target.value);
          setAt(0);
        }}
        onKeyDown={onKey}
      />
      <span aria-live="polite" className="min-w-[130px] text-soft">
        {words.trim() !== '' && countWords(number, found.length, placeName(block?.locator))}
      </span>
      {block?.aside && hasWhole && (
        <span className="text-soft">
          not in the main text ·{' '}
          <button className="act" onClick={() => store.dispatch({ type: 'view', view: 'kept' })}>
            Show the whole page
          </button>
        </span>
      )}
      <button className="act" disabled={found.length < 2} onClick={() => step(-1)}>
        Previous
      </button>
      <button className="act" disabled={found.length < 2} onClick={() => step(1)}>
        Next
      </button>
      <button aria-label="Close the search" className="ml-auto text-faint hover:text-ink" onClick={close}>
        ×
      </button>
    </Strip>
  );
}

function countWords(number: number, all: number, place: string): string {
  if (all === 0) return 'not in this source';
  return `${number + 1} of ${all}${place ? `, ${place}` : ''}`;
}

/** What was found is shown on the page, for as long as it is looked for. */
function useShown(here: StreamRange | undefined): void {
  const { page, reveal } = useDocument();
  const latest = useLatest({ page, reveal });
  useEffect(() => {
    latest.current.page?.painter.found(here);
    if (here) latest.current.reveal(here);
  }, [here, latest]);
  useEffect(() => () => latest.current.page?.painter.found(undefined), [latest]);
}
