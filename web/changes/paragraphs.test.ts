import { expect, test } from '@jest/globals';
import { compare, indexText } from '@avrelle/core/anchor';
import { paragraphs, wordsOfKind } from './paragraphs';

const told = (before: string, after: string) => ({
  before,
  after,
  changes: compare(indexText(before), indexText(after)),
});

test('changed lines stand by themselves, unchanged ones lie together', () => {
  const before = 'The gate is old.\nIt was hung in spring.\nWe open it in March.\nThe end.';
  const after = 'The gate is old.\nIt was hung in spring.\nWe open it in October.\nThe end.';
  expect(paragraphs(told(before, after))).toEqual([
    { changed: false, lines: ['The gate is old.', 'It was hung in spring.'] },
    {
      changed: true,
      line: [
        { kind: 'kept', text: 'We open it in ' },
        { kind: 'removed', text: 'March' },
        { kind: 'added', text: 'October' },
        { kind: 'kept', text: '.' },
      ],
    },
    { changed: false, lines: ['The end.'] },
  ]);
});

test('a paragraph taken out or put in is a line of its own', () => {
  const one = 'The gate is old.';
  const two = 'Nobody mends it any more.';
  const three = 'The tide does not mind.';
  for (const [before, after, kind] of [
    [`${one}\n${two}\n${three}`, `${one}\n${three}`, 'removed'],
    [`${one}\n${three}`, `${one}\n${two}\n${three}`, 'added'],
  ] as const) {
    expect(paragraphs(told(before, after)).filter((s) => s.changed)).toEqual([
      { changed: true, line: [{ kind, text: two }] },
    ]);
    expect(wordsOfKind(told(before, after), kind)).toBe(5);
  }
});
