import { expect, test } from '@jest/globals';
import { QueryClient, QueryObserver } from '@tanstack/react-query';
import type { Annotation, Job, SourceId } from '@avrelle/core/wire';
import { showAnnotation, upsert, without } from './annotation-cache';
import { request } from './api';
import { begunAgain, mergedBatch, withJob } from './jobs';
import { keys } from './queries';
import { underWay, withOwn } from './under-way';
import { receive } from './use-live';

const job = (id: string, state: Job['state'], progress: number): Job => ({
  id,
  state,
  progress,
  step: state,
  sourceId: null,
  already: false,
  error: null,
  batchId: null,
  look: false,
  before: null,
  label: id,
});

test('a page that a network shows in the server’s place is no answer: what is sent waits for the server', async () => {
  const { fetch: before } = globalThis;
  globalThis.fetch = () =>
    Promise.resolve(
      new Response('<h1>Sign in to the network</h1>', { status: 200, headers: { 'content-type': 'text/html' } }),
    );
  await expect(request('PUT', '/api/annotations/a', {})).rejects.toMatchObject({ problem: { code: 'offline' } });
  globalThis.fetch = before;
});

test('an answer that comes after a later event does not set a job back', () => {
  const failed = withJob([job('a', 'running', 0.3)], job('a', 'failed', 1));
  expect(withJob(failed, job('a', 'running', 0.01))).toEqual([job('a', 'failed', 1)]);
  expect(withJob([job('a', 'running', 0.3)], job('a', 'running', 0.05))[0]!.progress).toBe(0.3);
  expect(withJob([job('a', 'done', 1)], job('b', 'queued', 0)).map((j) => j.id)).toEqual(['b', 'a']);
});

test('what an event tells outlives an answer that was on its way when it came', async () => {
  const client = new QueryClient();
  const batch = (state: Job['state']) => [
    { id: 'l', label: 'l', paused: false, createdAt: '', jobs: [{ ...job('a', state, 0), batchId: 'l' }] },
  ];
  const answers: ((value: unknown) => void)[] = [];
  const observer = new QueryObserver(client, {
    queryKey: keys.lists,
    queryFn: () => new Promise((done) => answers.push(done)),
    initialData: batch('running') as unknown,
  });
  const leave = observer.subscribe(() => undefined);
  receive(client, { type: 'job', job: { ...job('a', 'failed', 0), batchId: 'l' } });
  answers[0]!(batch('running'));
  answers[1]!(batch('failed'));
  await new Promise((later) => setTimeout(later));
  expect(client.getQueryData(keys.lists)).toEqual(batch('failed'));
  leave();
  client.clear();
});

test('a list keeps what events told of its jobs while the answer was under way', () => {
  const batch = (...jobs: Job[]) => ({ id: 'l', label: 'l', paused: false, createdAt: '', jobs });
  const known = batch(job('a', 'failed', 1), begunAgain(job('b', 'failed', 1)));
  expect(mergedBatch(known, batch(job('a', 'queued', 0), job('b', 'running', 0.2))).jobs.map((j) => j.state)).toEqual([
    'failed',
    'running',
  ]);
  expect(begunAgain(job('c', 'done', 1)).state).toBe('done');
});

const annotation = (id: string, version: number, rootId: string | null = null) =>
  ({ id, version, rootId }) as Annotation;

test('an older version never takes the place of a newer one', () => {
  const list = [annotation('a', 3)];
  expect(upsert(list, annotation('a', 2))).toBe(list);
  expect(upsert(list, annotation('a', 4))).toEqual([annotation('a', 4)]);
  expect(upsert(list, annotation('b', 1))).toHaveLength(2);
});

test('what is gone takes its answers along', () => {
  expect(without([annotation('a', 1), annotation('r', 1, 'a'), annotation('b', 1)], 'a')).toEqual([annotation('b', 1)]);
});

test('an own change that is on its way stays shown, whatever older state is told of; what it takes away stays away', () => {
  const client = new QueryClient();
  const list = () => client.getQueryData<readonly Annotation[]>(keys.annotations('s'));
  client.setQueryData(keys.annotations('s'), [annotation('a', 1), annotation('b', 1)]);
  const first = underWay('a', (a) => ({ ...a, note: 'first' }));
  const second = underWay('a', (a) => ({ ...a, note: 'second' }));
  const gone = underWay('b', () => undefined);
  first.end();
  // The answer to the first comes while the second is on its way.
  showAnnotation(client, { ...annotation('a', 2), sourceId: 's' as SourceId, note: 'first' });
  expect(list()![0]).toMatchObject({ version: 2, note: 'second' });
  expect([annotation('a', 2), annotation('b', 1)].flatMap((a) => withOwn(a)?.note ?? [])).toEqual(['second']);
  second.end();
  gone.end();
  expect(withOwn(annotation('b', 1))).toEqual(annotation('b', 1));
});
