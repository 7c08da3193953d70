import { afterEach, expect, test } from '@jest/globals';
import { ThreadIngester } from './thread-ingester';

/** A thread that answers as the script says: `answer(request)` gives what is sent back, undefined for nothing. */
const thread = (answer: string): URL => new URL(`data:text/javascript,${encodeURIComponent(`import { parentPort } from 'node:worker_threads'; const answer = ${answer}; parentPort.on('message', (r) => { const result = answer(r); if (result !== undefined) parentPort.postMessage({ id: r.id, type: 'done', result }); });`)}`);
const open: ThreadIngester[] = [];
const ingester = (answer: string): ThreadIngester => { const made = new ThreadIngester(thread(answer), { names: [], privateHosts: [] }, 2_000, 1_500); open.push(made); return made; };
afterEach(() => Promise.all(open.splice(0).map((i) => i.close())));
const code = (work: Promise<unknown>): Promise<string> => work.then(() => 'done', (e: { code?: string }) => e.code ?? 'broken');

test('a task that takes too long is given up alone: the thread goes on with what others wait for', async () => {
  const { compare, feed } = bound(ingester("(r) => { globalThis.asked ??= 0; return r.type === 'feed' ? undefined : r.type === 'compare' ? [++globalThis.asked] : 1; }"));
  expect(await compare('a', 'b')).toEqual([1]);
  expect(await code(feed('http://slow.saltmere.test/'))).toBe('too_slow');
  // Counted on by the same thread; a new one would begin at one.
  expect(await compare('c', 'd')).toEqual([2]);
});

test('a thread that is stuck is ended with all it was doing, and the next task has a new one', async () => {
  const { compare, feed } = bound(ingester("(r) => { if (r.type === 'feed') for (;;); return []; }"));
  const [stuck, beside] = [code(feed('http://hostile.saltmere.test/')), code(compare('a', 'b'))];
  expect([await stuck, await beside]).toEqual(['too_slow', 'too_slow']);
  expect(await compare('a', 'b')).toEqual([]);
});

const bound = (i: ThreadIngester) => ({ compare: i.compare.bind(i), feed: i.feed.bind(i) });
