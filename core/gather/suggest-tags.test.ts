import { expect, test } from '@jest/globals';
import { suggestTags } from './suggest-tags';

const used = (tag: string, uses = 1, near = 0) => ({ tag, uses, near });
const source = {
  title: 'What the dredger said',
  text: 'The sluice is old. Two sluices were built of oak. Mud settles. Levées hold the mud, and the mud holds nothing.',
};

test('tags that title and text speak of come first, whatever their form, then those of the same site', () => {
  expect(
    suggestTags(source, [
      used('sluices'),
      used('mud', 40),
      used('levee'),
      used('birds', 90),
      used('harbour', 2, 3),
      used('essay/mud'),
    ]),
  ).toEqual(['harbour', 'mud', 'essay/mud', 'sluices', 'levee']);
  expect(suggestTags(source, [used('dredger'), used('mud')])).toEqual(['dredger', 'mud']);
});
test('what is often used is not offered for that alone, and a tag of several words only for all of them', () => {
  expect(suggestTags(source, [used('everything', 500), used('oral-history', 3)])).toEqual([]);
  expect(suggestTags({ title: '', text: 'An oral account of history' }, [used('oral-history', 3)])).toEqual([
    'oral-history',
  ]);
  expect(
    suggestTags(
      source,
      Array.from({ length: 9 }, (_, n) => used(`mud-${n}`.replace(/-\d/, '/x'.repeat(n) + '/mud'))),
      3,
    ),
  ).toHaveLength(3);
});
