import { expect, test } from '@jest/globals';
import { answerAudience, audienceWords, ONLY_ME } from './index';

const name = (id: string) => ({ a: 'Field Course A', b: 'Field Course B' })[id];

test('an audience is said in plain words', () => {
  expect(audienceWords(ONLY_ME, name)).toBe('Only me');
  expect(audienceWords({ classIds: ['b'] }, name)).toBe('Field Course B');
  expect(audienceWords({ classIds: ['a', 'b'] }, name)).toBe('Field Course A and Field Course B');
  expect(audienceWords({ classIds: ['x'] }, name)).toBe('another class');
  expect(audienceWords({ classIds: ['b'], teachersOnly: true }, name)).toBe('Teachers of Field Course B');
  expect(audienceWords({ classIds: ['b'], held: true }, name)).toBe('Field Course B, held');
});

test('an answer goes to no class its writer is not in, and under what is held no further than to the teachers', () => {
  const forAll = { teachersOnly: false, held: false };
  const root = [
    { classId: 'a', ...forAll },
    { classId: 'b', ...forAll, held: true },
    { classId: 'c', ...forAll, teachersOnly: true },
  ];
  const forTeachers = { teachersOnly: true, held: false };
  expect(answerAudience(root, new Set(['a', 'b', 'c', 'd']))).toEqual([
    { classId: 'a', ...forAll },
    { classId: 'b', ...forTeachers },
    { classId: 'c', ...forTeachers },
  ]);
  expect(answerAudience(root, new Set(['b', 'd']))).toEqual([{ classId: 'b', ...forTeachers }]);
});
