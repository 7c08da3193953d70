import { useMemo } from 'react';
import { addSpan, covered, removeSpan, type Spans } from '@avrelle/core/reading';
import { mainText } from '@avrelle/core/text';
import type { SourceDetail, SourceText } from '@avrelle/core/wire';
import type { PlacedBlock } from '../document/use-layout';
import { useReading, type Scroll } from './use-reading';
import type { Correction } from '../regions/legend/ProgressMenu';

interface Given {
  readonly source: SourceDetail;
  readonly text: SourceText;
  readonly blocks: readonly PlacedBlock[];
  scroll(): Scroll | undefined;
}

/** A block that reaches less far than this below the top of the window, in pixels, is left behind. */
const BEHIND = 40;

export const firstSeen = (blocks: readonly PlacedBlock[], scroll: Scroll | undefined): PlacedBlock | undefined =>
  blocks.find((b) => b.bottom > (scroll?.top ?? 0) + BEHIND);

/** What has been read of a source, how much is left, and setting it right by hand. */
export function useProgress({ source, text, blocks, scroll }: Given) {
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
