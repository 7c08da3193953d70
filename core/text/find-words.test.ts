import { expect, test } from '@jest/globals';
import fc from 'fast-check';
import { findWords } from './find-words';

const words = (text: string, wanted: string): string[] =>
  findWords(text, wanted).map(({ start, end }) => text.slice(start, end));

test('case, line ends and the form of quotation marks do not matter', () => {
  expect(words('The Mud\nkeeps the tide’s mud  keeps.', 'mud keeps')).toEqual(['Mud\nkeeps', 'mud  keeps']);
  expect(words('the tide’s “edge” – and', 'tide\'s "edge" -')).toEqual(['tide’s “edge” –']);
  expect(words('ΛΑΣΠΗ λάσπη', 'λασπη')).toEqual(['ΛΑΣΠΗ']);
});

test('signs stand for themselves, and nothing is found of nothing', () => {
  expect(words('a.b a+b (c) [d] \\ ^$', '(c) [d] \\ ^$')).toEqual(['(c) [d] \\ ^$']);
  expect([words('abc', '  '), words('abc', '.')]).toEqual([[], []]);
});

test('any text is found in itself', () => {
  fc.assert(
    fc.property(
      fc.string({ minLength: 1 }).filter((s) => s.trim() !== ''),
      (s) => findWords(s, s).length >= 1,
    ),
  );
});
