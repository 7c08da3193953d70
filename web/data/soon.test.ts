import { expect, test } from '@jest/globals';
import { heed, now, soon } from './soon';

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

test('a key or a press finds it done, until that is stopped', () => {
  const target = new EventTarget();
  const done: string[] = [];
  const heard: string[][] = [];
  const stop = heed(target);
  target.addEventListener('keydown', () => heard.push([...done]));
  soon(() => done.push('first'));
  target.dispatchEvent(new Event('keydown'));
  stop();
  soon(() => done.push('second'));
  target.dispatchEvent(new Event('keydown'));
  expect(heard).toEqual([['first'], ['first']]);
  now();
});
