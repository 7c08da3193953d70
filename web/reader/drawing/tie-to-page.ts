import { boxAround, tieToPicture, tieToWords, type DrawnSpot, type Strokes, type Tied, type Tool } from '@avrelle/core/ink';
import { blockOf } from '../block-of';
import type { Extent, PageAdapter, StreamRange } from '../page-frame';
import { inkOn } from '../spot-box';
import { wordsNear } from './words-near';

/** How something is drawn; the width in pixels. */
export interface Look { readonly tool: Tool; readonly colour: string; readonly width: number }

export interface TiedSpot {
  readonly spot: DrawnSpot;
  /** The words it is tied to, or those nearest to the picture it lies on. */
  readonly range: StreamRange;
}

/** Ties strokes (pixels as shown) to what lies under them: the picture or page they begin on, else the words they are about. Undefined where there is neither. */
export function tieToPage(adapter: PageAdapter, blocks: readonly Extent[], language: string, strokes: Strokes, { tool, colour, width }: Look): TiedSpot | undefined {
  const made = tied(adapter, blocks, language, strokes);
  return made && { range: { start: made.range.start, end: made.range.end }, spot: { type: 'drawn', tool, colour, width: Math.max(0.001, Math.round((width / made.unit) * 1_000) / 1_000), tied: made.tied } };
}

function tied(adapter: PageAdapter, blocks: readonly Extent[], language: string, strokes: Strokes): { readonly tied: Tied; readonly range: StreamRange; /** Pixels to a unit of width. */ readonly unit: number } | undefined {
  const first = strokes[0]?.[0], box = boxAround(strokes);
  if (!first || !box) return undefined;
  const holder = adapter.holderAt(first[0], first[1]), block = holder && blockOf(adapter, holder.element);
  if (holder && block) return { tied: tieToPicture(strokes, holder.on, holder.box), range: block, unit: holder.box.width / 1_000 };
  const made = tieToWords(strokes, wordsNear(adapter, blocks, box, language));
  const unit = made && inkOn(adapter, made.tied, made.range)?.unit;
  return made && unit ? { ...made, unit } : undefined;
}
