import { useMemo } from 'react';
import { addSpan, covered, removeSpan, type Spans } from '@avrelle/core/reading';
import { mainText } from '@avrelle/core/text';
import { useDocument } from '../document/document-context';
import type { PlacedBlock } from '../document/use-layout';
import type { Scroll } from '../model/reader-state';
import { useSession } from './reader-context';
import { useReading } from './use-reading';

/** What the clock got wrong, set right by hand. */
export const CORRECTIONS = ['read to here', 'not read from here', 'all read', 'nothing read'] as const;
export type Correction = (typeof CORRECTIONS)[number];

/** A block that reaches less far than this below the top of the window, in pixels, is left behind. */
const BEHIND = 40;

export const firstSeen = (blocks: readonly PlacedBlock[], scroll: Scroll | undefined): PlacedBlock | undefined =>
  blocks.find((b) => b.bottom > (scroll?.top ?? 0) + BEHIND);

export interface Progress {
  readonly spans: Spans;
  /** 0 to 1. */
  readonly share: number;
  readonly minutesLeft: number;
  setRight(what: Correction): void;
}

/** What has been read of a source, how much is left, and setting it right by hand. */
export function useProgress(): Progress {
  const { source, text } = useSession();
  const { blocks, scroll } = useDocument();
  const [spans, correct] = useReading(source, text.text, blocks, scroll);
  const main = useMemo(() => mainText(text.text, text.outline).length, [text]);
  const share = Math.min(1, covered(spans) / Math.max(1, main));
  const setRight = (what: Correction): void => {
    const length = text.text.length;
    const view = scroll();
    const foot = (view?.top ?? 0) + (view?.height ?? 0);
    const here = blocks.findLast((b) => b.bottom <= foot)?.block.end ?? 0;
    const from = firstSeen(blocks, view)?.block.start ?? length;
    const corrected: Readonly<Record<Correction, () => Spans>> = {
      'all read': () => [[0, length]],
      'nothing read': () => [],
      'read to here': () => addSpan(spans, 0, here),
      'not read from here': () => removeSpan(spans, from, length),
    };
    correct(corrected[what]());
  };
  return { spans, share, minutesLeft: Math.round(source.minutes * (1 - share)), setRight };
}
