import { describe, expect, test } from '@jest/globals';
import { STARTING_LEGEND } from '@avrelle/core/legend';
import type { PageAdapter, StreamRange } from './page-frame';
import { Painter } from './painter';

/** As a browser holds highlights (CSS Custom Highlight API 1): sets of ranges by name. What was touched is counted. */
function browser() {
  const highlights = new Map<string, Set<unknown> & { priority: number }>();
  const touched: string[] = [];
  const sheets: string[] = [];
  class Highlight extends Set<unknown> {
    priority = 0;
    constructor(...ranges: unknown[]) {
      super();
      ranges.forEach((r) => super.add(r));
    }
    override add(range: unknown): this {
      touched.push('add');
      return super.add(range);
    }
    override delete(range: unknown): boolean {
      touched.push('delete');
      return super.delete(range);
    }
  }
  const window = {
    CSS: { highlights },
    Highlight,
    CSSStyleSheet: class {
      replaceSync(text: string): void {
        sheets.push(text);
      }
    },
  };
  const page = {
    window,
    document: { adoptedStyleSheets: [] },
    domRange: ({ start, end }: StreamRange) => (start < 0 ? undefined : { start, end }),
  } as unknown as PageAdapter;
  return {
    painter: new Painter(page),
    touched,
    sheets,
    held: () => Object.fromEntries([...highlights].filter(([, h]) => h.size > 0).map(([name, h]) => [name, [...h]])),
  };
}
const [claim, evidence] = [STARTING_LEGEND[0]!, STARTING_LEGEND[1]!];
const mark = (start: number, kind = claim) => ({ start, end: start + 5, kind });

describe('painting marks', () => {
  test('kinds that look the same are one highlight; what does not stand on the page is none', () => {
    const { painter, held } = browser();
    painter.paint([mark(0), mark(10), mark(20, evidence), mark(-1)]);
    expect(held()).toEqual({
      'avrelle-weld-solid': [
        { start: 0, end: 5 },
        { start: 10, end: 15 },
      ],
      'avrelle-verdigris-dashed': [{ start: 20, end: 25 }],
    });
  });
  test('every line is a decoration of its own, in longhands, for where colours and backgrounds are taken away', () => {
    const { painter, sheets } = browser();
    painter.dress({ getPropertyValue: (token: string) => token } as CSSStyleDeclaration);
    const drawn = STARTING_LEGEND.map(({ pigment, line }) => {
      const rule = sheets[0]!.split('\n').find((each) => each.startsWith(`::highlight(avrelle-${pigment}-${line})`))!;
      expect(rule).toContain('text-decoration-line:underline');
      return /text-decoration-style:[^;]*;text-decoration-thickness:[^;]*/.exec(rule)![0];
    });
    expect(new Set(drawn).size).toBe(STARTING_LEGEND.length);
    expect(sheets[0]).not.toContain('text-decoration:');
  });
  test('a mark more or less touches nothing but itself', () => {
    const { painter, held, touched } = browser();
    painter.paint([mark(0), mark(10)]);
    touched.length = 0;
    painter.paint([mark(0), mark(10), mark(20)]);
    expect(touched).toEqual(['add']);
    painter.paint([mark(0), mark(20)]);
    expect(touched).toEqual(['add', 'delete']);
    painter.paint([mark(20), mark(0)]);
    expect(touched).toHaveLength(2);
    expect(held()).toEqual({
      'avrelle-weld-solid': [
        { start: 0, end: 5 },
        { start: 20, end: 25 },
      ],
    });
  });
  test('a mark of another kind moves from one look to the other, and none at all leaves nothing', () => {
    const { painter, held } = browser();
    painter.paint([mark(0)]);
    painter.paint([mark(0, evidence)]);
    expect(held()).toEqual({ 'avrelle-verdigris-dashed': [{ start: 0, end: 5 }] });
    painter.paint([]);
    expect(held()).toEqual({});
  });
  test('one that is painted ahead of the others stays when they are painted, or goes with that', () => {
    const { painter, held, touched } = browser();
    painter.paint([mark(0)]);
    painter.add(mark(10));
    painter.add(mark(20, evidence));
    painter.add(mark(10));
    expect(held()).toEqual({
      'avrelle-weld-solid': [
        { start: 0, end: 5 },
        { start: 10, end: 15 },
      ],
      'avrelle-verdigris-dashed': [{ start: 20, end: 25 }],
    });
    touched.length = 0;
    painter.paint([mark(0), mark(10)]);
    expect(touched).toEqual(['delete']);
    expect(held()).toEqual({
      'avrelle-weld-solid': [
        { start: 0, end: 5 },
        { start: 10, end: 15 },
      ],
    });
  });
  test('the same words marked alike by two people are painted until both are gone', () => {
    const { painter, held } = browser();
    painter.paint([mark(0), mark(0)]);
    painter.paint([mark(0)]);
    expect(held()).toEqual({ 'avrelle-weld-solid': [{ start: 0, end: 5 }] });
  });
});

test('what is found, open or spoken is shown beside the marks, and goes again', () => {
  const { painter, held } = browser();
  painter.found({ start: 1, end: 3 });
  painter.open([mark(0), mark(10)]);
  expect(held()).toEqual({
    'avrelle-found': [{ start: 1, end: 3 }],
    'avrelle-open': [
      { start: 0, end: 5 },
      { start: 10, end: 15 },
    ],
  });
  painter.found(undefined);
  painter.open([]);
  expect(held()).toEqual({});
});
