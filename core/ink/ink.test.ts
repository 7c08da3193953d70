import { describe, expect, test } from '@jest/globals';
import fc from 'fast-check';
import {
  arrowHead,
  boxAround,
  erase,
  isNear,
  layOut,
  movedBy,
  moveOverLines,
  shapePoints,
  simplify,
  tieToPicture,
  tieToWords,
  type InkBox,
  type InkPoint,
  type Strokes,
  type WordBox,
} from '.';

const TEXT =
  'the marsh keeps its height above the tide only by catching mud from every spring tide that floods it and lets the water go again';
const WORDS = [...TEXT.matchAll(/\S+/g)].map((m) => ({ start: m.index, end: m.index + m[0].length }));

/** A page of lines of letters as wide as `size` halves: where each word stands in a column of `measure` pixels. */
function page(measure: number, size: number): WordBox[] {
  let left = 0;
  let top = 0;
  return WORDS.map(({ start, end }) => {
    const width = ((end - start) * size) / 2;
    if (left > 0 && left + width > measure) {
      left = 0;
      top += size * 1.6;
    }
    const box = { start, end, left: left + 40, top: top + 20, width, height: size };
    left += width + size / 2;
    return box;
  });
}

/** The boxes, one a line, of a stretch of the text. */
const boxesIn =
  (words: readonly WordBox[], offset: number) =>
  (start: number, end: number): InkBox[] => {
    const rows = new Map<number, WordBox[]>();
    for (const w of words)
      if (w.start < offset + end && w.end > offset + start) rows.set(w.top, [...(rows.get(w.top) ?? []), w]);
    return [...rows.values()].map((row) => ({
      left: row[0]!.left,
      top: row[0]!.top,
      width: row.at(-1)!.left + row.at(-1)!.width - row[0]!.left,
      height: row[0]!.height,
    }));
  };
const nothing = (): undefined => undefined;
const shown = (strokes: Strokes, before: readonly WordBox[], after: readonly WordBox[]): Strokes => {
  const ink = tieToWords(strokes, before)!;
  return layOut(ink.tied, ink.range.end - ink.range.start, boxesIn(after, ink.range.start), nothing)!.strokes;
};
const near = (a: Strokes, b: Strokes, by: number): void =>
  a.forEach((stroke, s) =>
    stroke.forEach(([x, y], n) => {
      expect(Math.abs(x - b[s]![n]![0])).toBeLessThan(by);
      expect(Math.abs(y - b[s]![n]![1])).toBeLessThan(by);
    }),
  );
const underline = (words: readonly WordBox[], from: number, to: number): InkPoint[] =>
  shapePoints(
    'line',
    [words[from]!.left, words[from]!.top + words[from]!.height + 2],
    [words[to]!.left + words[to]!.width, words[to]!.top + words[to]!.height + 2],
  );

test('on the same page ink stands where it was drawn, whatever its shape', () => {
  const words = page(400, 20);
  const point = fc.tuple(
    fc.double({ min: -30, max: 520, noNaN: true }),
    fc.double({ min: -20, max: 220, noNaN: true }),
    fc.constant(0.5),
  );
  fc.assert(
    fc.property(
      fc.array(fc.array(point, { minLength: 2, maxLength: 12 }), { minLength: 1, maxLength: 3 }),
      (strokes) => {
        const again = shown(strokes, words, words);
        near(again, strokes, 0.6);
        expect(again).toHaveLength(strokes.length);
      },
    ),
  );
});

describe('an underlined phrase', () => {
  const wide = page(2_000, 20);
  const line = underline(wide, 4, 12);

  test('is underlined after the letters have grown', () => {
    const large = page(4_000, 40);
    const [drawn] = shown([line], wide, large);
    const box = boxAround([drawn!])!;
    expect([box.left, box.left + box.width]).toEqual([large[4]!.left, large[12]!.left + large[12]!.width]);
    expect(box.top).toBeCloseTo(large[4]!.top + 44, 0);
  });

  test.each([300, 200, 120])('wraps with its words into a column of %d pixels', (measure) => {
    const narrow = page(measure, 20);
    const drawn = shown([line], wide, narrow);
    const rows = new Set(narrow.slice(4, 13).map((w) => w.top));
    expect(drawn).toHaveLength(rows.size);
    for (const piece of drawn)
      for (const [x, y] of piece) {
        const over = narrow
          .slice(4, 13)
          .find((w) => x >= w.left - 11 && x <= w.left + w.width + 11 && Math.abs(y - w.top - w.height - 2) < 1);
        expect(over).toBeDefined();
      }
  });

  test('goes back to what it was when the column is wide again', () => near(shown([line], wide, wide), [line], 0.1));
});

test('lines under a phrase on two lines wrap with its words, each for itself', () => {
  const two = page(400, 20);
  const rows = [...new Set(two.map((w) => w.top))];
  const under = (top: number): InkPoint[] => {
    const row = two.filter((w) => w.top === top);
    return shapePoints('line', [row[0]!.left, top + 22], [row.at(-1)!.left + row.at(-1)!.width, top + 22]);
  };
  const lines = [under(rows[0]!), under(rows[1]!)];
  const wide = page(4_000, 20);
  const ink = tieToWords(lines, two)!;
  expect(ink.tied.to).toBe('words');
  const again = layOut(ink.tied, ink.range.end - ink.range.start, boxesIn(wide, ink.range.start), nothing)!.strokes;
  for (const stroke of again) for (const [, y] of stroke) expect(y).toBeCloseTo(wide[0]!.top + 22, 0);
  near(shown(lines, two, two), lines, 0.1);
});

test('a bracket beside several lines spans the same words when these take more lines', () => {
  const wide = page(400, 20);
  const narrow = page(200, 20);
  const rows = [...new Set(wide.map((w) => w.top))];
  const bracket = shapePoints('line', [20, rows[0]! + 2], [20, rows[2]! + 18]);
  const last = wide.findLast((w) => w.top === rows[2])!;
  const [drawn] = shown([bracket], wide, narrow);
  const box = boxAround([drawn!])!;
  const foot = narrow.find((w) => w.start === last.start)!;
  expect(box.left).toBeCloseTo(20, 0);
  expect(Math.abs(box.top + box.height - (foot.top + foot.height))).toBeLessThan(foot.height / 2);
});

describe('a box over several lines', () => {
  const box = (words: readonly WordBox[], from: number, lines: number): InkPoint[] => {
    const tops = [...new Set(words.map((w) => w.top))];
    return shapePoints('box', [90, tops[from]! - 2], [190, tops[from + lines - 1]! + 22]);
  };

  test.each([
    [400, 200],
    [200, 400],
    [600, 250],
    [250, 500],
  ])('drawn at %d pixels and moved at %d keeps its shape', (drawn, other) => {
    const here = page(drawn, 20);
    const there = page(other, 20);
    const made = tieToWords([box(here, 1, 2)], here)!;
    const length = made.range.end - made.range.start;
    const shown = layOut(made.tied, length, boxesIn(there, made.range.start), nothing)!.strokes;
    const [first] = boxesIn(there, made.range.start)(0, length);
    for (const down of [-32, -8, 0, 8, 32]) {
      const moved = shown.map((s) => s.map(([x, y, p]): InkPoint => [x, y + down, p]));
      const by = movedBy(shown, moved)!;
      const again = moveOverLines(moved, { first: first!, length, down: by.y }, there)!;
      // Where it was put it stands.
      near(
        layOut(again.tied, again.range.end - again.range.start, boxesIn(there, again.range.start), nothing)!.strokes,
        moved,
        0.6,
      );
      const back = boxAround(
        layOut(again.tied, again.range.end - again.range.start, boxesIn(here, again.range.start), nothing)!.strokes,
      )!;
      const before = boxAround([box(here, 1, 2)])!;
      expect(Math.abs(back.height - before.height)).toBeLessThan(down === 0 ? 1 : 20 * 1.6 + 1);
      expect(Math.abs(back.width - before.width)).toBeLessThan(down === 0 ? 1 : 60);
    }
  });

  test('made larger it was not only moved', () => {
    expect(
      movedBy(
        [
          [
            [0, 0, 1],
            [10, 10, 1],
          ],
        ],
        [
          [
            [5, 5, 1],
            [15, 15, 1],
          ],
        ],
      ),
    ).toEqual({ x: 5, y: 5 });
    expect(
      movedBy(
        [
          [
            [0, 0, 1],
            [10, 10, 1],
          ],
        ],
        [
          [
            [0, 0, 1],
            [20, 20, 1],
          ],
        ],
      ),
    ).toBeUndefined();
    expect(movedBy([[[0, 0, 1]]], [])).toBeUndefined();
  });
});

test('words that are not shown bear no ink; words elsewhere bear theirs', () => {
  const words = page(400, 20);
  const ink = tieToWords([underline(words, 0, 3)], words)!;
  expect(layOut(ink.tied, 30, () => [], nothing)).toBeUndefined();
  expect(tieToWords([[[1, 1, 0.5]]], [])).toBeUndefined();
  expect(tieToWords([], words)).toBeUndefined();
});

test('on a picture ink keeps its share of it', () => {
  const tied = tieToPicture(
    [
      [
        [110, 60, 0.5],
        [210, 160, 1],
      ],
    ],
    { page: 3 },
    { left: 10, top: 10, width: 400, height: 500 },
  );
  const twice = layOut(
    tied,
    0,
    () => [],
    () => ({ left: 0, top: 0, width: 800, height: 1_000 }),
  )!;
  expect(twice).toEqual({
    unit: 0.8,
    strokes: [
      [
        [200, 100, 0.5],
        [400, 300, 1],
      ],
    ],
  });
});

test('an eraser takes what it touches and leaves the rest in pieces', () => {
  const line: InkPoint[] = Array.from({ length: 11 }, (_, n) => [n * 10, 0, 0.5]);
  expect(erase([line], 50, 0, 12).map((piece) => piece.map(([x]) => x))).toEqual([
    [0, 10, 20, 30, 38],
    [62, 70, 80, 90, 100],
  ]);
  const strokes = [line];
  expect(erase(strokes, 50, 40, 12)).toBe(strokes);
  expect(erase([line], 50, 0, 200)).toEqual([]);
  // Also between two points that lie far apart, and through an end.
  expect(
    erase(
      [
        [
          [0, 0, 0],
          [100, 0, 1],
        ],
      ],
      50,
      6,
      10,
    ),
  ).toEqual([
    [
      [0, 0, 0],
      [42, 0, 0.42],
    ],
    [
      [expect.closeTo(58), 0, expect.closeTo(0.58)],
      [100, 0, 1],
    ],
  ]);
  expect(
    erase(
      [
        [
          [0, 0, 0.5],
          [100, 0, 0.5],
        ],
      ],
      0,
      0,
      10,
    ),
  ).toEqual([
    [
      [10, 0, 0.5],
      [100, 0, 0.5],
    ],
  ]);
});

test('what an eraser leaves lies outside of its circle and on the stroke, whatever the stroke', () => {
  const point = fc.tuple(fc.integer({ min: -50, max: 50 }), fc.integer({ min: -50, max: 50 }), fc.constant(0.5));
  fc.assert(
    fc.property(fc.array(point, { minLength: 2, maxLength: 9 }), fc.integer({ min: 2, max: 40 }), (stroke, radius) => {
      for (const [x, y] of erase([stroke], 0, 0, radius).flat()) {
        expect(Math.hypot(x, y)).toBeGreaterThan(radius - 1e-6);
        expect(isNear([stroke], x, y, 1e-6)).toBe(true);
      }
    }),
  );
});

test('a simplified stroke stays within its tolerance, and keeps its ends', () => {
  const wave: InkPoint[] = Array.from({ length: 200 }, (_, n) => [n, 20 * Math.sin(n / 15), 0.5]);
  const simple = simplify(wave, 0.5);
  expect(simple.length).toBeLessThan(80);
  expect([simple[0], simple.at(-1)]).toEqual([wave[0], wave.at(-1)]);
  for (const [x, y] of wave) {
    const next = simple.findIndex((p) => p[0] >= x);
    const b = simple[Math.max(1, next)]!;
    const a = simple[Math.max(0, next - 1)]!;
    expect(Math.abs(a[1] + ((b[1] - a[1]) * (x - a[0])) / Math.max(1, b[0] - a[0]) - y)).toBeLessThan(0.7);
  }
});

test('shapes begin and end where they should; an arrow’s barbs lie behind its tip', () => {
  expect(boxAround([shapePoints('ellipse', [10, 10], [110, 60])])).toEqual({
    left: 10,
    top: expect.closeTo(10, 0),
    width: 100,
    height: expect.closeTo(50, 0),
  });
  const box = shapePoints('box', [0, 0], [30, 20]);
  expect(box[0]).toEqual(box.at(-1));
  const [a, tip, b] = arrowHead(shapePoints('arrow', [0, 0], [100, 0]), 10);
  expect(tip).toEqual([100, 0]);
  expect([a![0], b![0]].every((x) => x < 100)).toBe(true);
  expect(a![1]).toBeCloseTo(-b![1]);
});

test('a point is near a stroke beside its line, not only at its points', () => {
  const stroke: InkPoint[] = [
    [0, 0, 0.5],
    [100, 0, 0.5],
  ];
  expect([
    isNear([stroke], 50, 4, 5),
    isNear([stroke], 50, 6, 5),
    isNear([stroke], 104, 0, 5),
    isNear([[[10, 10, 1]]], 12, 10, 3),
  ]).toEqual([true, false, true, true]);
});
