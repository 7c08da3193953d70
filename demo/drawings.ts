import { shapePoints, type DrawnSpot, type InkPoint, type TiedPoint, type Tool } from '@avrelle/core/ink';
import type { DemoMark } from './marks';

/** What is drawn in the demo: on words, as a browser would tie it; on the picture, in shares of it. */
export interface DemoDrawing extends DemoMark {
  readonly draw: (content: string | null) => DrawnSpot;
}

const EVEN = 0.5;

/** A stroke below each word, a little unsteady, as a hand draws it. */
function underlined(quote: string, colour: string): DrawnSpot {
  const words = [...quote.matchAll(/\S+/g)].map((m) => [m.index, m.index + m[0].length] as const);
  const points = words.flatMap((_, n) =>
    Array.from({ length: 5 }, (__, step): TiedPoint => [
      n,
      step / 4,
      0.98 + 0.035 * Math.sin(n * 5 + step * 1.1),
      EVEN,
    ]),
  );
  return { type: 'drawn', tool: 'pen', colour, width: 0.12, tied: { to: 'words', words, strokes: [points] } };
}

/** Round a few words of one line. */
function boxed(quote: string, colour: string): DrawnSpot {
  const words = [...quote.matchAll(/\S+/g)].map((m) => [m.index, m.index + m[0].length] as const);
  const last = words.length - 1;
  const along = (y: number): TiedPoint[] =>
    words.flatMap(
      (_, n) =>
        [
          [n, n === 0 ? -0.15 : 0, y, EVEN],
          [n, n === last ? 1.15 : 1, y, EVEN],
        ] as TiedPoint[],
    );
  return {
    type: 'drawn',
    tool: 'box',
    colour,
    width: 0.07,
    tied: { to: 'words', words, strokes: [[...along(-0.02), ...along(1.04).reverse(), [0, -0.15, -0.02, EVEN]]] },
  };
}

const onPicture = (
  content: string | null,
  pen: Pick<DrawnSpot, 'tool' | 'colour' | 'width'>,
  points: readonly InkPoint[],
): DrawnSpot => ({
  type: 'drawn',
  ...pen,
  tied: { to: 'picture', on: { picture: content! }, strokes: [points] },
});
/** Shapes are made in thousandths, so that they have points enough. */
const shape = (tool: Tool, from: readonly [number, number], to: readonly [number, number]): InkPoint[] =>
  shapePoints(tool, from, to).map(([x, y, p]) => [x / 1_000, y / 1_000, p]);

const common = { kind: 'note', for: 'B', daysAgo: 2 } as const;

export const DRAWINGS: readonly DemoDrawing[] = [
  {
    ...common,
    source: 'marsh',
    by: 'ines',
    quote: 'a little under four',
    draw: () => underlined('a little under four', 'madder'),
  },
  {
    ...common,
    source: 'marsh',
    by: 'tomas',
    quote: 'the width of a thumb',
    note: 'About 21 mm: I measured mine.',
    draw: () => boxed('the width of a thumb', 'woad'),
  },
  {
    ...common,
    source: 'dawn',
    by: 'ines',
    for: 'me',
    quote: 'Sluice nine at dawn',
    draw: (picture) =>
      onPicture(picture, { tool: 'arrow', colour: 'madder', width: 4 }, shape('arrow', [180, 640], [262, 520])),
  },
  {
    ...common,
    source: 'dawn',
    by: 'ines',
    for: 'me',
    quote: 'Sluice nine at dawn',
    note: 'hinge side',
    draw: (picture) => onPicture(picture, { tool: 'text', colour: 'madder', width: 40 }, [[0.1, 0.65, EVEN]]),
  },
  {
    ...common,
    source: 'dawn',
    by: 'ines',
    for: 'me',
    quote: 'Sluice nine at dawn',
    draw: (picture) =>
      onPicture(picture, { tool: 'ellipse', colour: 'woad', width: 4 }, shape('ellipse', [665, 590], [850, 790])),
  },
  {
    ...common,
    source: 'dawn',
    by: 'ines',
    for: 'me',
    quote: 'Sluice nine at dawn',
    note: 'four pegs, all dry',
    draw: (picture) => onPicture(picture, { tool: 'text', colour: 'woad', width: 34 }, [[0.66, 0.8, EVEN]]),
  },
];
