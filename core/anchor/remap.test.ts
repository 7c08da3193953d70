import { expect, test } from '@jest/globals';
import fc from 'fast-check';
import { compare, indexText, remap } from './index';

const BEFORE = `The sluice was built in spring. It held the creek for nine years. Nobody asked who would mend it.
The keeper wrote every tide into a blue book, and the book lay in the hut by the bank. After the flood only its cover was found.
Since then the pegs are read by the school. A reading takes two people and a quarter of an hour.`;
const find = (text: string, words: string) => ({ start: text.indexOf(words), end: text.indexOf(words) + words.length });
const one = (after: string, words: string) => remap(indexText(BEFORE), indexText(after), [find(BEFORE, words)])[0]!;

test('words left alone are unchanged, wherever they went', () => {
  const after = `In short. ${BEFORE.replace('for nine years', 'for a decade')}`;
  expect(one(after, 'the book lay in the hut')).toMatchObject({
    touched: 'unchanged',
    parts: [find(after, 'the book lay in the hut')],
    located: { state: 'shifted' },
  });
});

test('a changed word makes it edited', () => {
  const after = BEFORE.replace('blue book', 'green notebook');
  expect(one(after, 'The keeper wrote every tide into a blue book')).toMatchObject({
    touched: 'edited',
    located: { state: 'edited', ...find(after, 'The keeper wrote every tide into a green notebook') },
  });
});

test('a passage with a paragraph put in between is split, its parts in order', () => {
  const put =
    ' One of its pages survives in the town archive, where it may be seen on the first Monday of every month.';
  const after = BEFORE.replace('by the bank. After', `by the bank.${put} After`);
  const { touched, parts } = one(after, 'lay in the hut by the bank. After the flood only its cover');
  expect(touched).toBe('split');
  expect(parts.map((p) => after.slice(p.start, p.end).trim())).toEqual([
    'lay in the hut by the bank.',
    'After the flood only its cover',
  ]);
});

test('a passage taken out is removed', () => {
  expect(one(BEFORE.replace(' Nobody asked who would mend it.', ''), 'Nobody asked who would mend it.')).toMatchObject({
    touched: 'removed',
    parts: [],
    located: { state: 'lost' },
  });
});

test('a range outside the text is refused with its bounds', () => {
  expect(() => remap(indexText('abc'), indexText('abc'), [{ start: 2, end: 9 }])).toThrow(/\[2, 9\).*0\.\.3/);
});

const said = (before: string, after: string) =>
  compare(indexText(before), indexText(after)).map(({ kind, before: b, after: a }) => [
    kind,
    kind === 'removed' ? before.slice(...b) : after.slice(...a),
  ]);

test('a comparison speaks in whole words', () => {
  expect(said('The tide is rising over the bank today.', 'The tide was falling over the bank today.')).toEqual([
    ['kept', 'The tide '],
    ['removed', 'is rising'],
    ['added', 'was falling'],
    ['kept', ' over the bank today.'],
  ]);
  expect(said(BEFORE, BEFORE)).toEqual([['kept', BEFORE]]);
  expect(said('', 'All new.')).toEqual([['added', 'All new.']]);
});

test('a paragraph put in between two that begin alike is told as a paragraph', () => {
  const one = 'The gate is old and nobody mends it.';
  const two = 'The mud lies deep behind the wall.';
  const three = 'The tide does not mind at all.';
  expect(said(`${one}\n${three}`, `${one}\n${two}\n${three}`)).toEqual([
    ['kept', `${one}\n`],
    ['added', `${two}\n`],
    ['kept', three],
  ]);
});

test('put together again, a comparison gives both texts', () => {
  const pieces = fc
    .array(fc.constantFrom('The tide ', 'turns. ', 'Mud ', 'stays\n', 'where it fell, ', 'é ', '潮汐'), {
      maxLength: 40,
    })
    .map((p) => p.join(''));
  fc.assert(
    fc.property(pieces, pieces, (before, after) => {
      const changes = compare(indexText(before), indexText(after));
      expect(changes.map(({ before: [from, until] }) => before.slice(from, until)).join('')).toBe(before);
      expect(changes.map(({ after: [from, until] }) => after.slice(from, until)).join('')).toBe(after);
    }),
    { numRuns: 200, seed: 4 },
  );
});
