import { describe as group, expect, test } from '@jest/globals';
import fc from 'fast-check';
import { seeded } from '../random';
import { describe, indexText, locateAll, type Anchor } from './index';

const TEXT =
  'The marsh dies from the middle. Near the creeks the water slows. A hundred paces back the surface gains almost nothing. The marsh dies from the middle, they say.';
const at = (text: string, words: string, from = 0) => {
  const start = text.indexOf(words, from);
  return { start, end: start + words.length };
};
const one = (text: string, anchor: Anchor) => locateAll(indexText(text), [anchor])[0]!;

/** Prose of 2,000 different made-up words, so that chance repeats are rare, as in real prose. */
function prose(sentences: number, seed: number): string[] {
  const random = seeded(seed);
  const syllables = 'mar tid cre lev peg mud sil wat slu kee pas she'.split(' ');
  const word = () =>
    Array.from({ length: 2 + Math.floor(random() * 2) }, () => syllables[Math.floor(random() * 12)]).join('');
  return Array.from({ length: sentences }, () =>
    `${Array.from({ length: 6 + Math.floor(random() * 9) }, word).join(' ')}.`.replace(/^./, (c) => c.toUpperCase()),
  );
}
const BODY = prose(200, 3);
const BODY_TEXT = BODY.join(' ');
const bodyIndex = indexText(BODY_TEXT);
const sentence = (n: number) => describe(bodyIndex, at(BODY_TEXT, BODY[n]!));

group('describing', () => {
  test('context on each side tells equal passages apart by itself', () => {
    const text = `${BODY[0]} The tide turns here. ${BODY[1]} ${BODY[0]} The tide turns here. ${BODY[2]}`;
    const anchor = describe(indexText(text), at(text, 'The tide turns here.', 200));
    expect(anchor.repeats).toBe(2);
    expect(text.split(`${anchor.quote.prefix}${anchor.quote.exact}`)).toHaveLength(2);
    expect(text.split(`${anchor.quote.exact}${anchor.quote.suffix}`)).toHaveLength(2);
  });

  test('whole code points and whole grapheme clusters, after UAX #29', () => {
    const whole = (text: string, start: number, end: number) => describe(indexText(text), { start, end }).quote.exact;
    expect(whole('a \u{1d4b3} b', 3, 4)).toBe('\u{1d4b3}');
    expect(whole('cafe\u0301 au lait', 0, 4)).toBe('cafe\u0301');
    expect(whole('see \u{1f469}\u200d\u{1f52c} there', 4, 6)).toBe('\u{1f469}\u200d\u{1f52c}');
    expect(whole('flag \u{1f1ec}\u{1f1f7} up', 5, 7)).toBe('\u{1f1ec}\u{1f1f7}');
    expect(whole('a\r\nb', 0, 2)).toBe('a\r\n');
    expect(whole('\u0915\u094d\u0937\u093f x', 1, 2)).toBe('\u0915\u094d\u0937\u093f');
  });

  test('the block and the headings above it', () => {
    const text = 'Marsh\nMud\nSoft stuff.\nSand\nHard stuff.';
    const outline = [
      ['heading', 1, 0, 5],
      ['heading', 2, 6, 9],
      ['paragraph', 0, 10, 21],
      ['heading', 2, 22, 26],
      ['paragraph', 0, 27, 38],
    ].map(([role, level, start, end], n) => ({
      role,
      start,
      end,
      path: `0/${n}`,
      ...(level ? { level } : {}),
    })) as never;
    expect(describe(indexText(text, outline), at(text, 'Hard'))).toMatchObject({
      block: '0/4',
      headings: ['Marsh', 'Sand'],
    });
  });

  test.each([[[1, 1]], [[1, 99]], [[3, 1]], [[-1, 2]], [[0.5, 2]], [[Number.NaN, 2]]])(
    'the range %j is refused with its bounds',
    ([start, end]) => {
      expect(() => describe(indexText('abc'), { start: start!, end: end! })).toThrow(
        /expected a non-empty range within 0\.\.3/,
      );
    },
  );
});

group('locating', () => {
  test('describe, then locate in the same text: the same range, whatever the text', () => {
    const texts = fc.oneof(
      fc.string({ minLength: 1, maxLength: 400, unit: 'grapheme' }),
      fc
        .array(fc.constantFrom('the ', 'marsh ', 'dies. ', '\n', 'é', '湿地', 'ปาก'), { minLength: 1, maxLength: 80 })
        .map((p) => p.join('')),
      fc.string({ minLength: 1, maxLength: 60, unit: 'binary' }),
    );
    fc.assert(
      fc.property(texts, fc.array(fc.tuple(fc.nat(), fc.nat()), { minLength: 1, maxLength: 8 }), (text, pairs) => {
        const index = indexText(text);
        const anchors = pairs.map(([a, b]) =>
          describe(index, {
            start: a % text.length,
            end: (a % text.length) + 1 + (b % (text.length - (a % text.length))),
          }),
        );
        locateAll(index, anchors).forEach((found, n) => {
          if (found.state === 'lost') return expect(anchors[n]!.quote.exact).toMatch(/^[\s\p{Cf}\p{Cc}\p{Mn}]*$/u);
          expect(found).toMatchObject({ state: 'exact', ...anchors[n]!.position });
        });
      }),
      { numRuns: 400, seed: 7 },
    );
  });

  test('edits outside shift a range exactly', () => {
    fc.assert(
      fc.property(fc.integer({ min: 3, max: 190 }), fc.array(fc.nat({ max: 199 }), { maxLength: 12 }), (n, cut) => {
        const anchor = sentence(n);
        const kept = BODY.map((s, i) =>
          cut.includes(i) && Math.abs(i - n) > 2 ? `New words ${i} stand here now.` : s,
        );
        expect(one(kept.join(' '), anchor)).toMatchObject({
          state: expect.stringMatching(/exact|shifted/),
          ...at(kept.join(' '), BODY[n]!),
        });
      }),
      { numRuns: 60, seed: 8 },
    );
  });

  test('of two equal sentences the one with the same surroundings is found after a shift', () => {
    const second = describe(indexText(TEXT), at(TEXT, 'The marsh dies from the middle', 40));
    expect(one(`A new opening. ${TEXT}`, second)).toMatchObject({
      state: 'shifted',
      start: 15 + second.position.start,
    });
  });

  test('of many equal sentences each keeps its own place, by context and by the order of its neighbours', () => {
    const text = BODY.slice(0, 40)
      .map((s) => `${s} The water stands still.`)
      .join(' ');
    const index = indexText(text);
    const starts = [...text.matchAll(/The water stands still\./g)].map((m) => m.index);
    const anchors = starts.map((start) => describe(index, { start, end: start + 23 }));
    const changed = `First of all. ${text.replace(BODY[7]!, 'Something wholly different now.').replace(BODY[20]!, '')}`;
    const found = locateAll(indexText(changed), anchors);
    const expected = [...changed.matchAll(/The water stands still\./g)].map((m) => m.index);
    expect(found.map((f) => f.state !== 'lost' && f.start)).toEqual(expected);
  });

  test('a removed passage is lost, not placed on its lookalike', () => {
    const text = BODY.map((s, n) =>
      n % 10 === 0 ? `Station ${n / 10 + 1}: depth ${n + 3} cm, mud grey, water slack.` : s,
    ).join(' ');
    const row = 'Station 8: depth 73 cm, mud grey, water slack.';
    const anchor = describe(indexText(text), at(text, row));
    expect(one(text.replace(`${row} `, ''), anchor)).toMatchObject({ state: 'lost' });
    expect(
      one(text.replace(new RegExp(`${BODY[69]} ${row} ${BODY[71]} `.replace(/\./g, '\\.')), ''), anchor),
    ).toMatchObject({ state: 'lost' });
  });

  const change = (from: string, to: string) => BODY_TEXT.replace(from, to);
  const words = BODY[50]!.split(' ');
  const half = Math.floor(words.length / 2);
  test.each([
    ['a word changed', words.with(2, 'another').join(' ')],
    ['a word put in', words.toSpliced(3, 0, 'quite suddenly').join(' ')],
    ['a word taken out', words.toSpliced(3, 1).join(' ')],
    ['the sentence split', `${words.slice(0, half).join(' ')}. It was ${words.slice(half).join(' ')}`],
    ['other spaces and line ends', words.join('\n  ')],
    ['broken at a hyphen', words.map((w, n) => (n === 1 ? `${w.slice(0, 3)}-\n${w.slice(3)}` : w)).join(' ')],
    ['in capitals', BODY[50]!.toUpperCase()],
  ])('%s: found where it is', (_, changed) => {
    const text = change(BODY[50]!, changed);
    const found = one(text, sentence(50));
    const { start, end } = at(text, changed);
    expect(found).toMatchObject({ state: 'edited', start, end });
    expect(found.confidence).toBeGreaterThan(0.9);
  });

  test('joined with the next sentence', () => {
    const text = change(`${BODY[50]} ${BODY[51]}`, `${BODY[50]!.slice(0, -1)}, and ${BODY[51]!.toLowerCase()}`);
    const start = at(text, BODY[50]!.slice(0, -1)).start;
    const found = one(text, sentence(50));
    expect(found).toMatchObject({ state: 'edited', start });
    expect(Math.abs((found as { end: number }).end - start - BODY[50]!.length)).toBeLessThanOrEqual(1);
  });

  test('moved to another section', () => {
    const text = [...BODY.toSpliced(50, 1).slice(0, 150), BODY[50]!, ...BODY.slice(151)].join(' ');
    expect(one(text, sentence(50))).toMatchObject({ state: 'shifted', ...at(text, BODY[50]!) });
  });

  test.each([
    [
      'quotation marks, dashes, ligatures',
      'She said "the first office" is in the field - so it\'s there',
      'She said “the ﬁrst oﬃce” is in the ﬁeld – so it’s there',
    ],
    [
      'composed and decomposed letters',
      'Das Ästuar der Flöße wächst über die Jahre',
      'Das Ästuar der Flöße wächst über die Jahre'.normalize('NFD'),
    ],
    ['wide forms', 'The gauge read 12.5 at noon', 'The gauge read １２．５ at noon'],
  ])('%s changed', (_, before, after) => {
    const frame = (s: string) => `${BODY.slice(0, 5).join(' ')} ${s}. ${BODY.slice(5, 10).join(' ')}`;
    const anchor = describe(indexText(frame(before)), at(frame(before), before));
    expect(one(frame(after), anchor)).toMatchObject({ state: 'edited', ...at(frame(after), after) });
  });

  test.each([
    [
      'Han',
      '湿地从中间开始死去。小溪旁的水流变慢，泥沙就留在那里。再往里一百步，地面几乎不再升高。',
      '泥沙就留在那里',
      '夜里下了一场大雨。',
    ],
    ['Thai', 'ป่าชายเลนเริ่มตายจากตรงกลางใกล้ลำธารน้ำไหลช้าลงและทิ้งโคลนไว้ที่นั่นทุกวัน', 'ทิ้งโคลนไว้ที่นั่น', 'เมื่อคืนฝนตกหนักมาก'],
    [
      'Arabic',
      'يموت المستنقع من وسطه. قرب الجداول يبطؤ الماء ويترك الطين. وعلى بعد مئة خطوة لا يكاد السطح يرتفع.',
      'ويترك الطين',
      'هطل المطر ليلا. ',
    ],
  ])('text in %s, moved by new words', (_, text, quote, opening) => {
    const anchor = describe(indexText(text), at(text, quote));
    expect(one(opening + text, anchor)).toMatchObject({ state: 'shifted', ...at(opening + text, quote) });
  });

  test('an anchor of another program, with little context and no memory, is found where it is the only one', () => {
    const bare = (exact: string): Anchor => ({
      quote: { exact, prefix: '', suffix: '' },
      position: { start: 5, end: 5 + exact.length },
    });
    expect(one(BODY_TEXT, bare(BODY[9]!))).toMatchObject({ state: 'shifted', ...at(BODY_TEXT, BODY[9]!) });
    expect(one(`${BODY_TEXT} ${TEXT}`, bare('The marsh dies from the middle'))).toMatchObject({
      state: 'lost',
      candidates: [expect.anything(), expect.anything()],
    });
  });
});
