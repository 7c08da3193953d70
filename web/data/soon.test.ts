import { expect, test } from '@jest/globals';
import { now, soon } from './soon';

test('what comes in is taken in later, in its order, and before anything that asks for it', async () => {
  const done: string[] = [];
  soon(() => done.push('first'));
  soon(() => done.push('second'));
  expect(done).toEqual([]);
  now();
  expect(done).toEqual(['first', 'second']);
  soon(() => done.push('third'));
  await new Promise((later) => setTimeout(later, 20));
  expect(done).toEqual(['first', 'second', 'third']);
});
