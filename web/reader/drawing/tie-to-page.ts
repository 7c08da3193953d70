import {
  boxAround,
  movedBy,
  moveOverLines,
  tieToPicture,
  tieToWords,
  type DrawnSpot,
  type Strokes,
  type Tied,
  type TiedInk,
  type Tool,
  type WordBox,
} from '@avrelle/core/ink';
import { blockOf } from '../../page/block-of';
import type { Extent, PageAdapter, StreamRange } from '../../page/page-frame';
import { inkOn } from '../../page/spot-box';
import { isNear, wordsNear } from './words-near';

/** How something is drawn; the width in pixels. */
export interface Look {
  readonly tool: Tool;
  readonly colour: string;
  readonly width: number;
}

export interface TiedSpot {
  readonly spot: DrawnSpot;
  /** The words it is tied to, or those nearest to the picture it lies on. */
  readonly range: StreamRange;
}

/** The page that strokes are drawn on, as it stands, and its language. */
export interface Onto {
  readonly adapter: PageAdapter;
  readonly blocks: readonly Extent[];
  readonly language: string;
  /** True where it is for other windows, too: a narrow one shows the words of a PDF, not its pages. */
  readonly wordsOverPages?: boolean;
}

/** What was drawn before its strokes were moved. */
export interface Former {
  readonly tied: Tied;
  readonly range: StreamRange;
  readonly strokes: Strokes;
}

/**
 * Ties strokes (pixels as shown) to what lies under them: the picture or page they begin on, else the words they are
 * about; what was only moved keeps to as many words as before. Undefined where there is neither.
 */
export function tieToPage(
  onto: Onto,
  strokes: Strokes,
  { tool, colour, width }: Look,
  former?: Former,
): TiedSpot | undefined {
  const made = toPicture(onto, strokes) ?? toWords(onto, strokes, former);
  if (!made) return undefined;
  const { range, unit, tied } = made;
  const inUnits = Math.max(0.001, Math.round((width / unit) * 1_000) / 1_000);
  return {
    range: { start: range.start, end: range.end },
    spot: { type: 'drawn', tool, colour, width: inUnits, tied },
  };
}

interface Made {
  readonly tied: Tied;
  readonly range: StreamRange;
  /** Pixels to a unit of width. */
  readonly unit: number;
}

function toPicture({ adapter, blocks, wordsOverPages }: Onto, strokes: Strokes): Made | undefined {
  const first = strokes[0]?.[0];
  const holder = first && adapter.holderAt(first[0], first[1]);
  if (wordsOverPages && holder && 'page' in holder.on && isNear(blocks, boxAround(strokes)!)) return undefined;
  const block = holder && blockOf(adapter, holder.element);
  if (!holder || !block) return undefined;
  return { tied: tieToPicture(strokes, holder.on, holder.box), range: block, unit: holder.box.width / 1_000 };
}

function toWords({ adapter, blocks, language }: Onto, strokes: Strokes, former: Former | undefined): Made | undefined {
  const box = boxAround(strokes);
  if (!box) return undefined;
  const words = wordsNear(adapter, blocks, box, language);
  const made = (former && movedOnly(adapter, former, strokes, words)) ?? tieToWords(strokes, words);
  const unit = made && inkOn(adapter, made.tied, made.range)?.unit;
  return made && unit ? { ...made, unit } : undefined;
}

function movedOnly(
  adapter: PageAdapter,
  { tied, range, strokes: before }: Former,
  strokes: Strokes,
  words: readonly WordBox[],
): TiedInk | undefined {
  const by = tied.to === 'lines' ? movedBy(before, strokes) : undefined;
  const [first] = by ? adapter.boxes(range) : [];
  if (!by || !first) return undefined;
  return moveOverLines(strokes, { first, length: range.end - range.start, down: by.y }, words);
}
