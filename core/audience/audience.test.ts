import { expect, test } from '@jest/globals';
import { audienceWords, ONLY_ME, replyAudience } from './index';

const name = (id: string) => ({ a: 'Field Course A', b: 'Field Course B' })[id];

test('an audience is said in plain words', () => {
  expect(audienceWords(ONLY_ME, name)).toBe('Only me');
  expect(audienceWords({ classIds: ['b'] }, name)).toBe('Field Course B');
  expect(audienceWords({ classIds: ['a', 'b'] }, name)).toBe('Field Course A and Field Course B');
  expect(audienceWords({ classIds: ['x'] }, name)).toBe('another class');
});

test('a reply goes to no class its writer is not in', () => {
  const root = { classIds: ['a', 'b'] };
  expect(replyAudience(root, new Set(['b', 'c']))).toEqual({ classIds: ['b'] });
  expect(replyAudience(root, new Set(['a', 'b']))).toBe(root);
});
