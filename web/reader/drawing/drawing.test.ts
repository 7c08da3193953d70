import { describe, expect, test } from '@jest/globals';
import { boxAround, type InkPoint, type Strokes } from '@avrelle/core/ink';
import { aroundWords } from './around-words';
import { inkPath } from './ink-path';
import type { Laid } from './laid';
import { laidAt, liesAt } from './laid-at';
import { cssColour, HELD, readSettings, USUAL, WIDTHS } from './tools';

const LINES = [
  { left: 100, top: 200, width: 300, height: 24 },
  { left: 80, top: 230, width: 120, height: 24 },
];

describe('a tool at work on selected words', () => {
  test('a line and a pen go under each line of them, a broad pen through its middle', () => {
    for (const tool of ['line', 'pen'] as const)
      expect(aroundWords(tool, LINES, 2, 'ltr').map((s) => boxAround([s]))).toEqual([
        { left: 100, top: 225, width: 300, height: 0 },
        { left: 80, top: 255, width: 120, height: 0 },
      ]);
    expect(aroundWords('broad', LINES, 18, 'ltr').map((s) => s[0]![1])).toEqual([212, 242]);
  });
  test.each(['box', 'ellipse'] as const)('a %s holds all of them', (tool) => {
    const box = boxAround(aroundWords(tool, LINES, 2, 'ltr'))!;
    expect([box.left, box.top, box.left + box.width, box.top + box.height].map(Math.round)).toEqual([
      76, 198, 404, 256,
    ]);
  });
  test('an arrow points at the first of them; a sign stands before it, in either direction; without words there is nothing to draw', () => {
    expect(aroundWords('arrow', LINES, 2, 'ltr')[0]!.at(-1)!.slice(0, 2)).toEqual([96, 212]);
    expect(aroundWords('sign', LINES, 26, 'ltr')).toEqual([[[74, 200, 0.5]]]);
    expect(aroundWords('arrow', LINES, 2, 'rtl')[0]!.at(-1)!.slice(0, 2)).toEqual([404, 212]);
    expect(aroundWords('sign', LINES, 26, 'rtl')).toEqual([[[400, 200, 0.5]]]);
    expect(aroundWords('box', [], 2, 'ltr')).toEqual([]);
  });
});

describe('how ink is drawn', () => {
  const stroke: InkPoint[] = Array.from({ length: 30 }, (_, n) => [n * 4, 10, 0.5]);
  const heights = (d: string): number[] => [...d.matchAll(/[MQ]([\d.-]+) ([\d.-]+)/g)].map((m) => Number(m[2]));
  test('a broad pen is as broad all along as it is said to be', () => {
    const { d, filled } = inkPath('broad', [stroke], 18);
    const all = heights(d);
    expect(filled).toBe(true);
    expect(Math.max(...all) - Math.min(...all)).toBeCloseTo(18, 0);
  });
  test('a pen pressed harder leaves a broader line', () => {
    const spread = (pressure: number): number => {
      const all = heights(inkPath('pen', [stroke.map(([x, y]) => [x, y, pressure] as const)], 10).d);
      return Math.max(...all) - Math.min(...all);
    };
    expect(spread(0.9)).toBeGreaterThan(spread(0.2) + 2);
  });
  test('shapes are lines of one width; an arrow has its head at the last point', () => {
    expect(inkPath('line', [stroke], 2)).toEqual({ filled: false, d: expect.stringMatching(/^M0 10L4 10/) });
    expect(inkPath('arrow', [stroke], 2).d.split('M')).toHaveLength(3);
    expect(inkPath('arrow', [stroke], 2).d).toContain('L116 10L');
  });
});

describe('what lies at a point', () => {
  const laid = (strokes: Strokes, more: Partial<Laid> = {}): Laid =>
    ({ strokes, width: 4, box: boxAround(strokes)!, lines: [], ...more }) as Laid;
  const line = laid([
    [
      [0, 0, 0.5],
      [100, 0, 0.5],
    ],
  ]);
  const words = laid([[[200, 0, 0.5]]], { lines: ['here'], box: { left: 200, top: 0, width: 40, height: 25 } });
  test('is a line a little beside it, too, and words anywhere among their letters', () => {
    expect([liesAt(line, 50, 7), liesAt(line, 50, 12), liesAt(words, 220, 12), liesAt(words, 260, 12)]).toEqual([
      true,
      false,
      true,
      false,
    ]);
  });
  test('is what was drawn last of all that lies there', () => {
    const later = laid([
      [
        [50, -20, 0.5],
        [50, 20, 0.5],
      ],
    ]);
    expect(laidAt([line, later], 50, 0)).toBe(later);
    expect(laidAt([line, later], 10, 0)).toBe(line);
    expect(laidAt([line, later], 10, 60)).toBeUndefined();
  });
});

describe('what the hand held last', () => {
  test('is as usual where nothing, nonsense or something out of bounds was kept', () => {
    expect(readSettings(null)).toEqual(USUAL);
    expect(readSettings('{"tool":')).toEqual(USUAL);
    expect(readSettings(JSON.stringify({ tool: 'spray', colour: 'url(x)', widths: { pen: 9_999, box: '2' } }))).toEqual(
      USUAL,
    );
  });
  test('is kept where it is sound', () => {
    expect(
      readSettings(JSON.stringify({ tool: 'arrow', colour: '#aa00ff', widths: { ...USUAL.widths, arrow: 7 } })),
    ).toMatchObject({ tool: 'arrow', colour: '#aa00ff', widths: { arrow: 7, pen: USUAL.widths.pen } });
  });
  test('every tool has a width within its bounds, and a digit of its own', () => {
    for (const held of HELD) {
      const [least, most] = WIDTHS[held];
      expect(USUAL.widths[held]).toBeGreaterThanOrEqual(least);
      expect(USUAL.widths[held]).toBeLessThanOrEqual(most);
    }
    expect(HELD).toHaveLength(10);
  });
  test('a pigment has the tone of the theme in force, a colour of one’s own is that colour', () => {
    expect([cssColour('woad'), cssColour('ink'), cssColour('#aa00ff')]).toEqual([
      'var(--woad-line)',
      'var(--ink)',
      '#aa00ff',
    ]);
    expect(cssColour('woad', 'broad')).not.toBe(cssColour('woad'));
  });
});
