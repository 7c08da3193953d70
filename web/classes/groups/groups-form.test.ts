import { expect, test } from '@jest/globals';
import { seeded } from '@avrelle/core/random';
import { atRandom, groupsSchema, newGroup, putOf } from './groups-form';

const people = ['Ines', 'Tomas', 'Priya', 'Kit', 'Luz'].map((name) => ({ personId: name, name, group: '' }));

test('groups that are there keep their names when people are dealt anew; what is too much goes', () => {
  const before = { groups: ['a', 'b', 'c'].map((id) => ({ id, name: `Table ${id}` })), people };
  const two = atRandom(before, 2, seeded(1));
  expect(two.groups).toEqual(before.groups.slice(0, 2));
  expect(two.people.map((p) => p.group).filter((g) => g === 'a').length).toBe(3);
  const four = atRandom(two, 4, seeded(2));
  expect(four.groups.map((g) => g.name)).toEqual(['Table a', 'Table b', 'Group 1', 'Group 2']);
  expect(new Set(four.people.map((p) => p.group)).size).toBe(4);
});

test('a new group has a name that none has; what is sent has everybody in theirs', () => {
  const groups = [
    { id: 'a', name: 'Group 2' },
    { id: 'b', name: 'Group 1' },
  ];
  expect(newGroup(groups).name).toBe('Group 3');
  const put = putOf({ groups, people: people.map((p, n) => ({ ...p, group: n === 0 ? 'a' : '' })) }, 3);
  expect(put).toEqual({
    version: 3,
    groups: [
      { id: 'a', name: 'Group 2', personIds: ['Ines'] },
      { id: 'b', name: 'Group 1', personIds: [] },
    ],
  });
  expect(groupsSchema.isValidSync({ groups: [...groups, { id: 'c', name: 'group 1' }], people })).toBe(false);
});
