import { PIGMENTS } from '../legend/legend';
import type { Surface } from '../anchor/surface';

export const TOOLS = ['pen', 'broad', 'line', 'arrow', 'box', 'ellipse', 'text', 'sign'] as const;
export type Tool = (typeof TOOLS)[number];

/**
 * What was drawn, without pixels. The words of a `text` are its annotation's note, a `sign` is that of its kind: both
 * stand at their first point. Every point is tied to something that moves with the text, and stands where that
 * stands: `words` to the words of one line, wherever these are by now; `lines` to the span from the first to the last
 * line it was drawn over; `picture` to a page or picture. A coordinate from 0 to 1 is a share of what it is tied to;
 * beyond that it goes on in heights of a line, so that ink keeps its distance when letters grow or columns narrow.
 */
export interface DrawnSpot {
  readonly type: 'drawn';
  readonly tool: Tool;
  /** `#rrggbb`, or the name of a pigment, or `ink`. */
  readonly colour: string;
  /** Of the line, or the height of letters: in heights of a line; on a picture in thousandths of its width. */
  readonly width: number;
  readonly tied: Tied;
}

export type Tied =
  /** Words by their places in the anchor's quotation, `[start, end)`; points as `[word, x, y, pressure]`. */
  | {
      readonly to: 'words';
      readonly words: readonly (readonly [number, number])[];
      readonly strokes: readonly (readonly TiedPoint[])[];
    }
  /** Points as `[x, y, pressure]`. */
  | { readonly to: 'lines'; readonly strokes: readonly (readonly InkPoint[])[] }
  | { readonly to: 'picture'; readonly on: Surface; readonly strokes: readonly (readonly InkPoint[])[] };

/** Pressure is 0 to 1; 0.5 where the device tells none. */
export type InkPoint = readonly [x: number, y: number, pressure: number];
export type TiedPoint = readonly [word: number, x: number, y: number, pressure: number];

/** Where something stands on the page, in pixels. */
export interface InkBox {
  readonly left: number;
  readonly top: number;
  readonly width: number;
  readonly height: number;
}

/** A word of the text as it stands on the page. */
export interface WordBox extends InkBox {
  readonly start: number;
  readonly end: number;
}

const MOST_POINTS = 20_000;
const FARTHEST = 10_000;

/** Whether something from outside is a drawing: every number finite and within bounds, every word of a point named. */
export function isDrawnSpot(value: unknown): value is DrawnSpot {
  const { type, tool, colour, width, tied, ...more } = record(value);
  return (
    type === 'drawn' &&
    TOOLS.includes(tool as Tool) &&
    isColour(colour) &&
    isNumber(width) &&
    width > 0 &&
    width <= 1_000 &&
    isTied(tied) &&
    Object.keys(more).length === 0
  );
}

export const isColour = (value: unknown): value is string =>
  typeof value === 'string' &&
  (/^#[0-9a-f]{6}$/.test(value) ||
    (PIGMENTS as readonly string[]).includes(value) ||
    value === 'ink' ||
    value === 'plain');

function isTied(value: unknown): value is Tied {
  const { to, words, on, strokes } = record(value);
  if (to === 'words')
    return (
      Array.isArray(words) &&
      words.length > 0 &&
      words.length <= 1_000 &&
      words.every(isStretch) &&
      areStrokes(strokes, 4) &&
      strokes.flat().every(([word]) => Number.isInteger(word) && word! >= 0 && word! < words.length)
    );
  if (to === 'picture' && !isHolder(on)) return false;
  return (to === 'lines' || to === 'picture') && areStrokes(strokes, 3);
}

function areStrokes(value: unknown, size: number): value is number[][][] {
  if (!Array.isArray(value) || value.length === 0 || value.length > MOST_POINTS) return false;
  const points = (value as unknown[]).flatMap((stroke) =>
    Array.isArray(stroke) && stroke.length > 0 ? (stroke as unknown[]) : [undefined],
  );
  return (
    points.length <= MOST_POINTS &&
    points.every((point) => Array.isArray(point) && point.length === size && point.every(isNumber))
  );
}

const record = (value: unknown): Readonly<Record<string, unknown>> =>
  typeof value === 'object' && value !== null ? (value as Record<string, unknown>) : {};
const isNumber = (value: unknown): value is number =>
  typeof value === 'number' && Number.isFinite(value) && Math.abs(value) <= FARTHEST;
const isStretch = (value: unknown): boolean =>
  Array.isArray(value) &&
  value.length === 2 &&
  value.every((n) => Number.isInteger(n) && n >= 0) &&
  value[0] < value[1];
const isHolder = (value: unknown): boolean => {
  const { page, picture, ...more } = record(value);
  return (
    Object.keys(more).length === 0 &&
    (page === undefined) !== (picture === undefined) &&
    (picture === undefined ? Number.isInteger(page) && (page as number) > 0 : /^[0-9a-f]{64}$/.test(String(picture)))
  );
};
