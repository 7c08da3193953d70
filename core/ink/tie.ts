import type { InkBox, InkPoint, Tied, TiedPoint, WordBox } from './drawing';

export type Strokes = readonly (readonly InkPoint[])[];

/** Higher than this, in heights of a line, ink means more than the words of one line, unless each stroke runs along its own. */
const ONE_LINE = 1.9;

export interface TiedInk {
  readonly tied: Extract<Tied, { to: 'words' | 'lines' }>;
  /** The words it is tied to, in the text stream. */
  readonly range: { readonly start: number; readonly end: number };
}

/**
 * Ties strokes (pixels) to words. `words` are those around them, in the order of the text. Undefined where there is no
 * word at all.
 */
export function tieToWords(strokes: Strokes, words: readonly WordBox[]): TiedInk | undefined {
  const box = boxAround(strokes);
  const rows = rowsOf(words);
  if (!box || rows.length === 0) return undefined;
  const lines = strokes.map((stroke) => lineAlong(stroke, rows));
  if (lines.every((line) => line !== undefined)) return toWords(strokes.map((stroke, n) => [lines[n]!, stroke]));
  const row = nearest(rows, box.top + box.height / 2);
  if (box.height <= ONE_LINE * heightOf(row)) return toWords(strokes.map((stroke) => [row, stroke]));
  const over = rows.filter((r) => topOf(r) < box.top + box.height && bottomOf(r) > box.top);
  return toLines(strokes, over.length ? over : [row]);
}

/** The line of words a stroke goes along; undefined for a stroke that is shorter or higher than that. */
function lineAlong(stroke: readonly InkPoint[], rows: readonly (readonly WordBox[])[]): readonly WordBox[] | undefined {
  const box = boxAround([stroke])!;
  const row = nearest(rows, box.top + box.height / 2);
  return box.height <= heightOf(row) && box.width >= 2 * Math.max(box.height, heightOf(row)) ? row : undefined;
}

function toWords(strokes: readonly (readonly [row: readonly WordBox[], stroke: readonly InkPoint[]])[]): TiedInk {
  const marked = strokes.map(([row, stroke]) => stroke.map((point) => [nearestWord(row, point[0]), point] as const));
  const all = [...new Set(marked.flatMap((stroke) => stroke.map(([word]) => word)))].sort((a, b) => a.start - b.start);
  const range = { start: all[0]!.start, end: Math.max(...all.map((w) => w.end)) };
  const tie = ([word, [x, y, pressure]]: readonly [WordBox, InkPoint]): TiedPoint => [
    all.indexOf(word),
    encode(x, word.left, word.left + word.width, word.height),
    round((y - word.top) / word.height),
    round(pressure),
  ];
  return {
    range,
    tied: {
      to: 'words',
      words: all.map((w) => [w.start - range.start, w.end - range.start] as const),
      strokes: marked.map((stroke) => stroke.map(tie)),
    },
  };
}

function toLines(strokes: Strokes, rows: readonly (readonly WordBox[])[]): TiedInk {
  const words = rows.flat();
  const frame = frameOf(rows.map(boxOfRow));
  return {
    range: { start: Math.min(...words.map((w) => w.start)), end: Math.max(...words.map((w) => w.end)) },
    tied: {
      to: 'lines',
      strokes: strokes.map((stroke) => stroke.map((point) => encodeIn(point, frame, heightOf(rows[0]!)))),
    },
  };
}

/**
 * Ties strokes over several lines anew after they were moved by `down` pixels. They keep to as many words as before,
 * `length` characters from the word that stands as far below the former first one, `first`: at another measure of the
 * column they so have the shape they had there, whatever lines lie under them here.
 */
export function moveOverLines(
  strokes: Strokes,
  { first, length, down }: { readonly first: InkBox; readonly length: number; readonly down: number },
  words: readonly WordBox[],
): TiedInk | undefined {
  const rows = rowsOf(words);
  if (rows.length === 0) return undefined;
  const row = nearest(rows, first.top + first.height / 2 + down);
  const begin = row.reduce((best, w) => (Math.abs(w.left - first.left) < Math.abs(best.left - first.left) ? w : best));
  const end = begin.start + length;
  const after = words.filter((w) => w.start >= begin.start);
  const last = after.reduce((best, w) => (Math.abs(w.end - end) < Math.abs(best.end - end) ? w : best));
  return toLines(strokes, rowsOf(after.filter((w) => w.end <= last.end)));
}

/** How far strokes were moved, in pixels; undefined where they were changed in another way as well. */
export function movedBy(before: Strokes, after: Strokes): { readonly x: number; readonly y: number } | undefined {
  const points = before.flat();
  const moved = after.flat();
  const [from, to] = [points[0], moved[0]];
  if (!from || !to || points.length !== moved.length) return undefined;
  const by = { x: to[0] - from[0], y: to[1] - from[1] };
  const same = points.every(([x, y], n) => {
    const [movedX, movedY] = moved[n]!;
    return Math.abs(movedX - x - by.x) < 0.01 && Math.abs(movedY - y - by.y) < 0.01;
  });
  return same ? by : undefined;
}

/** Ties strokes (pixels) to a page or picture, as shares of it. */
export function tieToPicture(strokes: Strokes, on: Extract<Tied, { to: 'picture' }>['on'], box: InkBox): Tied {
  return {
    to: 'picture',
    on,
    strokes: strokes.map((stroke) =>
      stroke.map(([x, y, p]): InkPoint => [
        round((x - box.left) / box.width, 5),
        round((y - box.top) / box.height, 5),
        round(p),
      ]),
    ),
  };
}

export interface LaidOut {
  /** Each stroke in pixels; one whose words stand on several lines by now is in as many pieces. */
  readonly strokes: Strokes;
  /** Pixels to a unit of width. */
  readonly unit: number;
}

/**
 * Where ink stands now. `boxesOf` gives the boxes, one a line, of a stretch of the quotation's words, none where they are
 * not shown; `pictureBox` that of a page or picture. Undefined where nothing of it can be shown.
 */
export function layOut(
  tied: Tied,
  length: number,
  boxesOf: (start: number, end: number) => readonly InkBox[],
  pictureBox: (on: Extract<Tied, { to: 'picture' }>['on']) => InkBox | undefined,
): LaidOut | undefined {
  switch (tied.to) {
    case 'picture': {
      const box = pictureBox(tied.on);
      return (
        box && {
          unit: box.width / 1_000,
          strokes: tied.strokes.map((stroke) =>
            stroke.map(([x, y, p]): InkPoint => [box.left + x * box.width, box.top + y * box.height, p]),
          ),
        }
      );
    }
    case 'lines': {
      const lines = boxesOf(0, length);
      const frame = lines.length ? frameOf(lines) : undefined;
      const unit = lines[0]?.height ?? 0;
      return (
        frame && { unit, strokes: tied.strokes.map((stroke) => stroke.map((point) => decodeIn(point, frame, unit))) }
      );
    }
    case 'words': {
      const boxes = tied.words.map(([start, end]) => boxesOf(start, end)[0]);
      const unit = boxes.find(Boolean)?.height;
      return unit === undefined
        ? undefined
        : { unit, strokes: tied.strokes.flatMap((stroke) => pieces(stroke, boxes)) };
    }
  }
}

/** A stroke over words, parted where the next word has gone to another line. */
function pieces(stroke: readonly TiedPoint[], boxes: readonly (InkBox | undefined)[]): InkPoint[][] {
  const made: InkPoint[][] = [];
  let before: InkBox | undefined;
  for (const [word, x, y, pressure] of stroke) {
    const box = boxes[word];
    if (!box) {
      before = undefined;
      continue;
    }
    if (!before || Math.abs(before.top - box.top) > box.height / 2) made.push([]);
    made.at(-1)!.push([decode(x, box.left, box.left + box.width, box.height), box.top + y * box.height, pressure]);
    before = box;
  }
  return made;
}

/** The strokes without what lies within `radius` pixels of a point: an eraser's work. The same array where nothing is touched. */
export function erase(strokes: Strokes, x: number, y: number, radius: number): Strokes {
  if (!isNear(strokes, x, y, radius)) return strokes;
  return strokes.flatMap((stroke) => {
    const left: InkPoint[][] = [[]];
    stroke.forEach((to, n) => {
      const from = stroke[n - 1];
      if (!from) {
        if (Math.hypot(to[0] - x, to[1] - y) > radius) left[0]!.push(to);
        return;
      }
      const cut = within(from, to, { x, y, radius });
      if (!cut) {
        left.at(-1)!.push(to);
        return;
      }
      if (cut.enters > 0) left.at(-1)!.push(between(from, to, cut.enters));
      left.push(cut.leaves < 1 ? [between(from, to, cut.leaves), to] : []);
    });
    return left.filter((piece) => piece.length > 1);
  });
}

interface Circle {
  readonly x: number;
  readonly y: number;
  readonly radius: number;
}

/** Which part of a segment lies in a circle, in shares of it; undefined for none. */
function within(
  [ax, ay]: InkPoint,
  [bx, by]: InkPoint,
  { x, y, radius }: Circle,
): { readonly enters: number; readonly leaves: number } | undefined {
  const dx = bx - ax;
  const dy = by - ay;
  const a = dx * dx + dy * dy;
  const b = (ax - x) * dx + (ay - y) * dy;
  const c = (ax - x) ** 2 + (ay - y) ** 2 - radius * radius;
  if (a === 0) return c <= 0 ? { enters: 0, leaves: 1 } : undefined;
  const root = b * b - a * c;
  if (root <= 0) return undefined;
  const enters = (-b - Math.sqrt(root)) / a;
  const leaves = (-b + Math.sqrt(root)) / a;
  return enters < 1 && leaves > 0 ? { enters: Math.max(0, enters), leaves: Math.min(1, leaves) } : undefined;
}

const between = ([ax, ay, ap]: InkPoint, [bx, by, bp]: InkPoint, at: number): InkPoint => [
  ax + (bx - ax) * at,
  ay + (by - ay) * at,
  ap + (bp - ap) * at,
];

/** Whether a point lies within `radius` pixels of any stroke. */
export const isNear = (strokes: Strokes, x: number, y: number, radius: number): boolean =>
  strokes.some((stroke) =>
    stroke.some(([bx, by], n) => {
      const [ax, ay] = stroke[Math.max(0, n - 1)]!;
      const length = (bx - ax) ** 2 + (by - ay) ** 2;
      const along = length === 0 ? 0 : Math.min(1, Math.max(0, ((x - ax) * (bx - ax) + (y - ay) * (by - ay)) / length));
      return Math.hypot(x - ax - along * (bx - ax), y - ay - along * (by - ay)) <= radius;
    }),
  );

export function boxAround(strokes: Strokes): InkBox | undefined {
  let left = Infinity;
  let top = Infinity;
  let right = -Infinity;
  let bottom = -Infinity;
  for (const stroke of strokes)
    for (const [x, y] of stroke) {
      left = Math.min(left, x);
      right = Math.max(right, x);
      top = Math.min(top, y);
      bottom = Math.max(bottom, y);
    }
  return left <= right ? { left, top, width: right - left, height: bottom - top } : undefined;
}

const round = (value: number, digits = 3): number => Math.round(value * 10 ** digits) / 10 ** digits;
function encode(value: number, from: number, to: number, unit: number): number {
  if (value < from) return round((value - from) / unit);
  if (value > to) return round(1 + (value - to) / unit);
  return round((value - from) / Math.max(1e-6, to - from));
}
function decode(value: number, from: number, to: number, unit: number): number {
  if (value < 0) return from + value * unit;
  return value > 1 ? to + (value - 1) * unit : from + value * (to - from);
}
const encodeIn = ([x, y, p]: InkPoint, box: InkBox, unit: number): InkPoint => [
  encode(x, box.left, box.left + box.width, unit),
  encode(y, box.top, box.top + box.height, unit),
  round(p),
];
const decodeIn = ([x, y, p]: InkPoint, box: InkBox, unit: number): InkPoint => [
  decode(x, box.left, box.left + box.width, unit),
  decode(y, box.top, box.top + box.height, unit),
  p,
];

/** Words by the lines they stand on. */
function rowsOf(words: readonly WordBox[]): WordBox[][] {
  const rows: WordBox[][] = [];
  for (const word of words) {
    const row = rows.at(-1);
    const last = row?.at(-1);
    if (last && Math.abs(last.top - word.top) < word.height / 2) row!.push(word);
    else rows.push([word]);
  }
  return rows;
}

const topOf = (row: readonly WordBox[]): number => Math.min(...row.map((w) => w.top));
const bottomOf = (row: readonly WordBox[]): number => Math.max(...row.map((w) => w.top + w.height));
const heightOf = (row: readonly WordBox[]): number => bottomOf(row) - topOf(row);
const boxOfRow = (row: readonly WordBox[]): InkBox => frameOf(row);
const nearest = (rows: readonly (readonly WordBox[])[], y: number): readonly WordBox[] =>
  rows.reduce(
    (best, row) =>
      Math.abs(topOf(row) + heightOf(row) / 2 - y) < Math.abs(topOf(best) + heightOf(best) / 2 - y) ? row : best,
    rows[0]!,
  );

function nearestWord(row: readonly WordBox[], x: number): WordBox {
  const distance = ({ left, width }: WordBox): number => Math.max(left - x, x - left - width, 0);
  return row.reduce((best, word) => (distance(word) < distance(best) ? word : best), row[0]!);
}

function frameOf(boxes: readonly InkBox[]): InkBox {
  const left = Math.min(...boxes.map((b) => b.left));
  const top = Math.min(...boxes.map((b) => b.top));
  return {
    left,
    top,
    width: Math.max(...boxes.map((b) => b.left + b.width)) - left,
    height: Math.max(...boxes.map((b) => b.top + b.height)) - top,
  };
}
