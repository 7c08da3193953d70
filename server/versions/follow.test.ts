import { expect, test } from '@jest/globals';
import { describe, indexText } from '@avrelle/core/anchor';
import { follow } from './follow';

const BEFORE =
  'The bell rings at noon in the harbour. Gulls rise from the slipway. The ferry leaves with whoever is on board and nobody else. A dog sleeps on the quay.';
const AFTER = `A line about the weather. ${BEFORE.replace('Gulls rise from the slipway. ', '')} A dog barks at the tide.`;
const anchor = (words: string) =>
  describe(indexText(BEFORE), { start: BEFORE.indexOf(words), end: BEFORE.indexOf(words) + words.length });
const at = (text: string, words: string): [number, number] => [text.indexOf(words), text.indexOf(words) + words.length];

test('annotations, what was read and the place in reading all move along', () => {
  const ferry = anchor('The ferry leaves');
  const gulls = anchor('Gulls rise from the slipway.');
  const { marks, reads } = follow({
    before: BEFORE,
    after: AFTER,
    outline: [],
    marks: [
      { id: 'ferry', anchor: ferry, range: ferry.position },
      { id: 'gulls', anchor: gulls, range: gulls.position },
    ],
    reads: [
      {
        personId: 'p',
        spans: [at(BEFORE, 'The bell rings at noon in the harbour.'), at(BEFORE, 'Gulls rise from the slipway.')],
        position: BEFORE.indexOf('The ferry'),
      },
    ],
  });
  expect(marks).toMatchObject([
    { id: 'ferry', located: { state: 'shifted', start: AFTER.indexOf('The ferry') } },
    { id: 'gulls', located: { state: 'lost' } },
  ]);
  expect(reads).toEqual([
    {
      personId: 'p',
      spans: [at(AFTER, 'The bell rings at noon in the harbour.')],
      position: AFTER.indexOf('The ferry'),
    },
  ]);
});

test('what was lost before is found when it comes back', () => {
  const gulls = anchor('Gulls rise from the slipway.');
  const { marks } = follow({
    before: AFTER,
    after: `${BEFORE} The end.`,
    outline: [],
    marks: [{ id: 'gulls', anchor: gulls, range: null }],
    reads: [],
  });
  expect(marks).toMatchObject([{ located: { state: 'exact', ...gulls.position } }]);
});

test('nothing read, nothing marked, a span beyond the end: nothing breaks', () => {
  expect(
    follow({
      before: BEFORE,
      after: '',
      outline: [],
      marks: [],
      reads: [{ personId: 'p', spans: [[0, 9999]], position: 9999 }],
    }),
  ).toMatchObject({ marks: [], reads: [{ spans: [] }] });
});
