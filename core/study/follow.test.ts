import { describe, expect, test } from '@jest/globals';
import fc from 'fast-check';
import { visit } from 'unist-util-visit';
import {
  excerptIn,
  readExcerpt,
  withPassage,
  excerptsOf,
  follow,
  placesIn,
  shortReference,
  writeExcerpt,
  type Current,
  type Followed,
} from './index';
import { parseMarkdown } from '../markdown/parse';

const idOf = (n: number): string => `0193a1b2-0000-7000-8000-${String(n).padStart(12, '0')}`;
const current = (n: number, passage = `passage ${n}`, note = ''): Current => ({
  annotationId: idOf(n),
  text: writeExcerpt({
    ...{ annotationId: idOf(n), passage, note, tags: [], answers: [] },
    reference: `Farrant 2026, ¶ ${n}`,
    sign: '§',
  }),
});
const fingerprint = (text: string): string => `~${text}`;
const everything = (all: readonly Current[]): ReadonlySet<string> => new Set(all.map((c) => c.annotationId));
const step = (note: string, all: readonly Current[], known: Followed['known'] = new Map()): Followed =>
  follow(note, { current: all, joins: everything(all), known, fingerprint });
const orderIn = (note: string): number[] => excerptsOf(note).map((e) => Number(e.annotationId.slice(-12)));

describe('an excerpt', () => {
  test('is a quotation with its passage, its way back, tags, note and answers', () => {
    const text = writeExcerpt({
      annotationId: idOf(1),
      passage: 'rose by **117** mm\n\nand on',
      reference: 'Farrant 2026, ¶ 3',
      sign: '∴',
      tags: ['essay/opening'],
      note: 'So 117 / 30 = 3.9.\n',
      answers: [{ author: 'Tomas Rell', note: 'The same\nby me' }],
    });
    expect(text).toBe(
      [
        '> rose by **117** mm\n>\n> and on\n>',
        `> ∴ [Farrant 2026, ¶ 3](avrelle:annotation/${idOf(1)}) #essay/opening\n>`,
        '> So 117 / 30 = 3.9.\n>',
        '> - **Tomas Rell:** The same\n>   by me',
      ].join('\n'),
    );
    expect(excerptIn(parseMarkdown(text).children[0])).toEqual({ annotationId: idOf(1), passage: 2 });
    expect(readExcerpt(text)).toEqual({
      annotationId: idOf(1),
      passage: 'rose by **117** mm\n\nand on',
      line: `∴ [Farrant 2026, ¶ 3](avrelle:annotation/${idOf(1)}) #essay/opening`,
      reference: 'Farrant 2026, ¶ 3',
      after: '#essay/opening',
      note: 'So 117 / 30 = 3.9.\n\n- **Tomas Rell:** The same\n  by me',
    });
    expect(withPassage(text, 'rose by **117** mm')).toBe(text.replace('> and on\n>\n', ''));
    expect(withPassage('words', 'other')).toBe('words');
  });
  test('is none where a quotation only names an annotation among its words', () => {
    const said = `> as [she says](avrelle:annotation/${idOf(1)})`;
    const source = `> [the page](avrelle:source/${idOf(1)})`;
    for (const text of [said, source, '> words', 'words', '']) expect(excerptsOf(text)).toEqual([]);
  });
});

test('read in stretches, a note has the same excerpts as read at once', () => {
  const lines = fc.array(
    fc.constantFrom(
      ...['words', '', '', '- item', '  on', '> said', '```', '~~~', '$$', '# Tide', '   more', '1. one'],
      ...[current(1), current(2)].map(({ text }) => text),
      `- ${current(3).text.replaceAll('\n', '\n  ')}`,
      `> ${current(4).text.replaceAll('\n', '\n> ')}`,
    ),
    { maxLength: 12 },
  );
  const atOnce = (note: string): string[] => {
    const found: string[] = [];
    visit(parseMarkdown(note), 'blockquote', (node) => {
      const parts = excerptIn(node);
      if (parts) found.push(`${parts.annotationId} ${node.position?.start.offset} ${node.position?.end.offset}`);
    });
    return found;
  };
  fc.assert(
    fc.property(lines, (all) => {
      const note = all.join('\n');
      expect(excerptsOf(note).map((e) => `${e.annotationId} ${e.start} ${e.end}`)).toEqual(atOnce(note));
    }),
    { numRuns: 500 },
  );
});

describe('a note follows its annotations', () => {
  test('new ones join in order of place, between what the person wrote', () => {
    const first = step('# Marsh\n\nMy words.\n', [current(2), current(5)]);
    const more = step(
      first.markdown.replace('passage 2', 'passage 2').concat('\nThe end.\n'),
      [1, 2, 3, 5, 9].map((n) => current(n)),
      first.known,
    );
    expect(orderIn(more.markdown)).toEqual([1, 2, 3, 5, 9]);
    expect(more.markdown).toMatch(/^# Marsh\n\nMy words\.\n\n> passage 1[^]*The end\.\n$/);
  });
  test('what was put elsewhere stays, and the next joins behind its neighbour', () => {
    const { known } = step('', [current(1), current(2), current(3)]);
    const moved = [current(3), current(1), current(2)].map((c) => c.text).join('\n\nWhy?\n\n');
    expect(
      orderIn(
        step(
          moved,
          [1, 2, 3, 4].map((n) => current(n)),
          known,
        ).markdown,
      ),
    ).toEqual([3, 4, 1, 2]);
  });
  test('a changed one is written anew, also in a list or a quotation; one that was shortened is kept and told', () => {
    const before = [current(1), current(2)];
    const { known } = step('', before);
    const within = (text: string, by: string): string => by + text.replaceAll('\n', `\n${by}`);
    const nested = `- so\n\n${within(before[0]!.text, '  ')}\n\n${within(before[1]!.text, '> ')}\n`;
    const after = step(nested, [current(1, 'other\n\nwords', 'noted'), current(2, 'new')], known);
    expect(after.markdown).toContain('- so\n\n  > other\n  >\n  > words\n  >\n  > § [Farr');
    expect(after.markdown).toContain('> > new\n> >\n> > § [Farr');
    expect(excerptsOf(after.markdown).map((e) => e.text)).toEqual([
      current(1, 'other\n\nwords', 'noted').text,
      current(2, 'new').text,
    ]);
    const short = before[0]!.text.replace('passage', '[…]');
    const kept = step(short, [current(1, 'other')], known);
    expect([kept.markdown, kept.states.get(idOf(1))]).toEqual([short, 'changed']);
    expect(step(short, [before[0]!], known).states.get(idOf(1))).toBe('follows');
  });
  test('a deleted one keeps its words; what was taken out stays out; joining off and on doubles nothing', () => {
    const all = [current(1), current(2)];
    const { markdown, known } = step('', all);
    const without = step(markdown, [all[0]!], known);
    expect([without.markdown, [...without.states]]).toEqual([
      markdown,
      [
        [idOf(2), 'deleted'],
        [idOf(1), 'follows'],
      ],
    ]);
    expect(orderIn(step(all[1]!.text, all, known).markdown)).toEqual([2]);
    const off = follow(markdown, { current: all, joins: new Set(), known, fingerprint });
    expect(step(off.markdown, all, off.known).markdown).toBe(markdown);
  });
  test('brought by hand it is known as if it had joined', () => {
    const put = step(`${current(1).text}\n`, [current(1)]);
    expect(step(put.markdown, [current(1, 'newer')], put.known).markdown).toContain('> newer');
  });
  test('whatever is moved, shortened and written: each stands once, and no word of the person is lost', () => {
    const many = fc.array(fc.tuple(fc.constantFrom('mark', 'move', 'write', 'cut', 'change'), fc.nat(8), fc.nat(8)), {
      maxLength: 12,
    });
    fc.assert(
      fc.property(many, (steps) => {
        const marks = new Map<number, Current>();
        const written: string[] = [];
        const gone = new Set<number>();
        let state = step('', []);
        const doing: Readonly<Record<string, (blocks: string[], a: number, b: number, n: number) => unknown>> = {
          mark: (_, a) => marks.has(a) || marks.set(a, current(a)),
          change: (_, a, _b, n) => marks.has(a) && marks.set(a, current(a, `passage ${a} of step ${n}`)),
          write: (blocks, _, b, n) => {
            written.push(`mine${n}`);
            blocks.splice(b, 0, `mine${n}`);
          },
          move: (blocks, a, b) => blocks.splice(b, 0, ...blocks.splice(a, 1)),
          cut: (blocks, a) =>
            blocks[a]?.startsWith('>') && orderIn(blocks.splice(a, 1)[0]!).forEach((cut) => gone.add(cut)),
        };
        steps.forEach(([what, a, b], n) => {
          const blocks = state.markdown.trim().split(/\n\n/).filter(Boolean);
          doing[what]!(blocks, a, b, n);
          const all = [...marks.keys()].sort((x, y) => x - y).map((key) => marks.get(key)!);
          state = step(`${blocks.join('\n\n')}\n`, all, state.known);
        });
        const standing = orderIn(state.markdown);
        expect([...standing].sort()).toEqual([...marks.keys()].filter((n) => !gone.has(n)).sort());
        for (const words of written) expect(state.markdown).toContain(words);
        for (const n of standing) expect(state.markdown).toContain(marks.get(n)!.text);
      }),
      { numRuns: 300 },
    );
  });
});

describe('a short reference', () => {
  test.each([
    ['Oona Farrant', '2026-10-02T00:00:00Z', 'Farrant 2026'],
    ['Farrant, Oona; Jory Oake', '2026', 'Farrant and Oake 2026'],
    ['A B; C D; E F', null, 'B and others'],
    ['', '2026', 'Who pays for high water, and who would… 2026'],
  ])('%s %s', (author, publishedAt, expected) => {
    expect(shortReference({ title: 'Who pays for high water, and who would rather not?', author, publishedAt })).toBe(
      expected,
    );
  });
  test('says the page as printed, the time, or the paragraph; in a book that of the chapter', () => {
    const at = (locator?: object, role = 'paragraph', more: object = {}) => ({ role, path: '', locator, ...more });
    const outline = (blocks: object[]) => blocks.map((b, n) => ({ start: n * 10, end: n * 10 + 9, ...b })) as never;
    expect(placesIn(outline([at({ page: 6, label: 'iv' })]))(4)).toBe('p. iv');
    expect(placesIn(outline([at({ from: 41, to: 50 }, 'cue')]))(0)).toBe('0:41');
    const text = outline([
      at(undefined, 'heading'),
      at(undefined, 'paragraph', { aside: true }),
      at(),
      at(),
      at(undefined, 'heading'),
    ]);
    expect([0, 12, 25, 34, 41].map((n) => placesIn(text)(n))).toEqual(['¶ 1', '', '¶ 1', '¶ 2', '¶ 2']);
    const book = outline([at({ file: 'a' }), at({ file: 'b' }), at({ file: 'b' })]);
    expect([placesIn(book)(5), placesIn(book)(25), placesIn([])(3)]).toEqual(['¶ 1', '¶ 2', '']);
  });
});
