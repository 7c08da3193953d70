import { describe, expect, test } from '@jest/globals';
import fc from 'fast-check';
import { seeded } from '../random/seeded';
import { sentences } from '../text/sentences';
import { alphaInterval, krippendorffsAlpha } from './agreement';
import {
  againstTeacher,
  agreementOn,
  densityOf,
  drawing,
  missed,
  passagesOf,
  sentencesOf,
  splitting,
  type ReadersMark,
} from './coverage';

const TEXT = 'The tide turns at seven. Nobody had told the heron. It stood in the creek until the water reached it.';
const SENTENCES = sentences(TEXT);
const at = (words: string) => ({ start: TEXT.indexOf(words), end: TEXT.indexOf(words) + words.length });
const by = (reader: string, kind: string, words: string): ReadersMark => ({ reader, kind, ...at(words) });

describe('which sentences a mark means', () => {
  test.each([
    ['The tide turns at seven.', [0]],
    ['turns at seven. Nobody had told the heron.', [0, 1]],
    ['seven. Nobody had told the heron. It', [1]],
    ['heron', [1]],
    ['seven. Nobody had', [1]],
    [TEXT, [0, 1, 2]],
  ])('%s', (words, expected) => expect(sentencesOf(SENTENCES, at(words))).toEqual(expected));

  test('every mark within the text means one at least, in order, and each of them it touches', () => {
    const places = fc.tuple(fc.nat(TEXT.length - 1), fc.integer({ min: 1, max: TEXT.length }));
    fc.assert(
      fc.property(places, ([start, length]) => {
        const mark = { start, end: Math.min(TEXT.length, start + length) };
        const found = sentencesOf(SENTENCES, mark);
        const touched = SENTENCES.filter((s) => s.start < mark.end && mark.start < s.end).length;
        expect(found.length >= Math.min(1, touched) && found.length <= touched).toBe(true);
        for (const i of found) expect(SENTENCES[i]!.start < mark.end && mark.start < SENTENCES[i]!.end).toBe(true);
        expect(found).toEqual(found.toSorted((a, b) => a - b));
      }),
    );
  });
});

describe('what the class made of the text', () => {
  const marks = [
    by('ines', 'claim', 'The tide turns at seven.'),
    by('ines', 'doubt', 'turns at seven.'),
    by('tomas', 'claim', 'The tide turns'),
    by('luz', 'question', 'The tide turns at seven.'),
    by('kit', 'question', 'tide turns at seven.'),
    by('kit', 'question', 'heron'),
  ];
  const passages = passagesOf(SENTENCES, marks, [{ kind: 'term', ...at('reached') }]);

  test('each sentence with how many marked it, and as what; nobody counts twice', () => {
    expect(passages.map(({ index, readers, kinds, taught }) => [index, readers, kinds, taught])).toEqual([
      [
        0,
        4,
        [
          { kind: 'claim', readers: 2 },
          { kind: 'question', readers: 2 },
          { kind: 'doubt', readers: 1 },
        ],
        [],
      ],
      [1, 1, [{ kind: 'question', readers: 1 }], []],
      [2, 0, [], ['term']],
    ]);
  });
  test('what drew the class, what split it, and what only the teacher marked', () => {
    const places = (some: typeof passages) => some.map((p) => p.index);
    expect([places(drawing(passages, 9)), places(splitting(passages)), places(missed(passages))]).toEqual([
      [0],
      [0],
      [2],
    ]);
    expect(drawing(passages, 0)).toEqual([]);
  });
  test('how many marked each stretch: readers, not marks', () => {
    expect(densityOf(marks, TEXT.length, 3)).toEqual([4, 1, 0]);
    expect(densityOf(marks, TEXT.length, 1)).toEqual([4]);
  });
});

describe('agreement on kinds', () => {
  const readers = ['a', 'b', 'c', 'd', 'e'];
  test('of fewer than five readers nothing is said', () => {
    const few = readers.slice(0, 4).map((reader) => by(reader, 'claim', 'The tide turns at seven.'));
    expect(agreementOn(SENTENCES, few)).toEqual({ readers: 4, units: 1, alpha: null, interval: null });
  });
  test('where all agree it is 1; a sentence that one alone marked is no unit', () => {
    const all = readers.flatMap((reader) => [
      by(reader, 'claim', 'The tide turns at seven.'),
      by(reader, 'doubt', 'Nobody had told the heron.'),
    ]);
    expect(agreementOn(SENTENCES, [...all, by('a', 'term', 'creek')])).toEqual({
      readers: 5,
      units: 2,
      alpha: 1,
      interval: [1, 1],
    });
  });
  test('it is the α of its sentences, within its interval, and the same whenever it is asked', () => {
    const some = readers.flatMap((reader, i) => [
      by(reader, i < 4 ? 'claim' : 'doubt', 'The tide turns at seven.'),
      by(reader, i < 3 ? 'doubt' : 'claim', 'Nobody had told the heron.'),
      by(reader, 'term', 'It stood in the creek until the water reached it.'),
    ]);
    const found = agreementOn(SENTENCES, some);
    const rows = [
      ['claim', 'claim', 'claim', 'claim', 'doubt'],
      ['doubt', 'doubt', 'doubt', 'claim', 'claim'],
      ['term', 'term', 'term', 'term', 'term'],
    ];
    expect(found.alpha).toBeCloseTo(krippendorffsAlpha(rows)!, 12);
    expect(found.interval![0] <= found.alpha! && found.alpha! <= found.interval![1]).toBe(true);
    expect(agreementOn(SENTENCES, some)).toEqual(found);
  });
  test('the interval is narrower the more there is to go by', () => {
    const random = seeded(7);
    const rows = (n: number) =>
      Array.from({ length: n }, () => Array.from({ length: 6 }, () => (random() < 0.6 ? 'claim' : 'doubt')));
    const width = (n: number): number => {
      const [low, high] = alphaInterval(rows(n), seeded(1))!;
      return high - low;
    };
    expect(width(400)).toBeLessThan(width(40));
  });
});

test('a reader beside the teachers: the share of theirs that was found, and of one’s own that is theirs', () => {
  const taught = [at('The tide turns at seven.'), at('heron')];
  expect(againstTeacher(SENTENCES, [at('The tide turns'), at('creek')], taught)).toEqual({
    recall: 0.5,
    precision: 0.5,
    // Of three sentences they agree on one; by chance on five ninths: (1/3 − 5/9) / (1 − 5/9).
    kappa: expect.closeTo(-0.5),
  });
  expect(againstTeacher(SENTENCES, [], taught)).toEqual({ recall: 0, precision: null, kappa: null });
  expect(againstTeacher(SENTENCES, [at('creek')], [])).toEqual({ recall: null, precision: 0, kappa: null });
  expect(againstTeacher(SENTENCES, taught, taught)).toEqual({ recall: 1, precision: 1, kappa: 1 });
});
