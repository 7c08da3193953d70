import { expect, test } from '@jest/globals';
import { answerAudience, audienceWords, ONLY_ME } from './index';

const CLASSES = [
  { id: 'a', name: 'Field Course A', groups: [] },
  { id: 'b', name: 'Field Course B', groups: [{ id: 'g', name: 'Group 2' }] },
];

test('an audience is said in plain words', () => {
  expect(audienceWords(ONLY_ME, CLASSES)).toBe('Only me');
  expect(audienceWords({ classIds: ['b'] }, CLASSES)).toBe('Field Course B');
  expect(audienceWords({ classIds: ['a', 'b'] }, CLASSES)).toBe('Field Course A and Field Course B');
  expect(audienceWords({ classIds: ['x'] }, CLASSES)).toBe('another class');
  expect(audienceWords({ classIds: ['b'], teachersOnly: true }, CLASSES)).toBe('Teachers of Field Course B');
  expect(audienceWords({ classIds: ['b'], held: true }, CLASSES)).toBe('Field Course B, held');
  expect(audienceWords({ classIds: ['a', 'b'], groupIds: ['g'] }, CLASSES)).toBe(
    'Field Course A and Group 2 of Field Course B',
  );
});

test('an answer goes to no class its writer is not in, and under what is held no further than to the teachers', () => {
  const forAll = { teachersOnly: false, held: false, groupId: null };
  const root = [
    { classId: 'a', ...forAll },
    { classId: 'b', ...forAll, held: true },
    { classId: 'c', ...forAll, teachersOnly: true },
    { classId: 'e', ...forAll, groupId: 'g' },
  ];
  const forTeachers = { ...forAll, teachersOnly: true };
  expect(answerAudience(root, new Set(['a', 'b', 'c', 'd']))).toEqual([
    { classId: 'a', ...forAll },
    { classId: 'b', ...forTeachers },
    { classId: 'c', ...forTeachers },
  ]);
  expect(answerAudience(root, new Set(['b', 'd']))).toEqual([{ classId: 'b', ...forTeachers }]);
  expect(answerAudience(root, new Set(['e']))).toEqual([{ classId: 'e', ...forAll, groupId: 'g' }]);
});
