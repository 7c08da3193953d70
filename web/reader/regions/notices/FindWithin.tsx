import { useEffect, useMemo, useRef, useState } from 'react';
import { findWords, placeName, type Outline } from '@avrelle/core/text';
import type { StreamRange } from '../../../page/page-frame';
import { Strip } from './Strip';

interface Props {
  readonly text: string;
  readonly outline: Outline;
  /** Shows what the main text leaves out; absent where all is shown. */
  readonly showWhole?: (() => void) | undefined;
  /** Shows a passage, or none. */
  onShow(range: StreamRange | undefined): void;
  onClose(): void;
}

/** Looking for words within the source: how many there are, and one after the other. */
export function FindWithin({ text, outline, showWhole, onShow, onClose }: Props) {
  const [words, setWords] = useState('');
  const [at, setAt] = useState(0);
  const found = useMemo(() => findWords(text, words), [text, words]);
  const here = found[Math.min(at, found.length - 1)];
  const latest = useRef(onShow);
  useEffect(() => {
    latest.current = onShow;
  });
  useEffect(() => {
    latest.current(here);
  }, [here]);
  useEffect(() => () => latest.current(undefined), []);
  const step = (by: 1 | -1): void => {
    if (found.length) setAt((now) => (Math.min(now, found.length - 1) + by + found.length) % found.length);
  };
  const block = here && outline.find((b) => b.start <= here.start && here.start < b.end);
  const place = placeName(block?.locator);
  const unseen = block?.aside && showWhole;
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
        onKeyDown={(e) => {
          if (e.key === 'Enter') {
            e.preventDefault();
            step(e.shiftKey ? -1 : 1);
          }
          if (e.key === 'Escape') onClose();
        }}
      />
      <span aria-live="polite" className="min-w-[130px] text-soft">
        {words.trim() !== '' && found.length === 0 && 'not in this source'}
        {words.trim() !== '' &&
          found.length > 0 &&
          `${Math.min(at, found.length - 1) + 1} of ${found.length}${place ? `, ${place}` : ''}`}
      </span>
      {unseen && (
        <span className="text-soft">
          not in the main text ·{' '}
          <button className="act" onClick={unseen}>
            Show the whole page
          </button>
        </span>
      )}
      <button className="act" disabled={found.length < 2} onClick={() => step(-1)}>
        Before
      </button>
      <button className="act" disabled={found.length < 2} onClick={() => step(1)}>
        Next
      </button>
      <button aria-label="Close the search" className="ml-auto text-faint hover:text-ink" onClick={onClose}>
        ×
      </button>
    </Strip>
  );
}
