import { expect, test } from '@jest/globals';
import { flushOnInput, flush, defer } from './deferred';

test('what comes in is taken in later, in its order, and before anything that asks for it', async () => {
  const done: string[] = [];
  defer(() => done.push('first'));
  defer(() => done.push('second'));
  expect(done).toEqual([]);
  flush();
  expect(done).toEqual(['first', 'second']);
  defer(() => done.push('third'));
  await new Promise((later) => setTimeout(later, 20));
  expect(done).toEqual(['first', 'second', 'third']);
});

test('a key or a press finds it done, until that is stopped', () => {
  const target = new EventTarget();
  const done: string[] = [];
  const heard: string[][] = [];
  const stop = flushOnInput(target);
  target.addEventListener('keydown', () => heard.push([...done]));
  defer(() => done.push('first'));
  target.dispatchEvent(new Event('keydown'));
  stop();
  defer(() => done.push('second'));
  target.dispatchEvent(new Event('keydown'));
  expect(heard).toEqual([['first'], ['first']]);
  flush();
});
