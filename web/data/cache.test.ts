import { expect, test } from '@jest/globals';
import type { Annotation, Job } from '@avrelle/core/wire';
import { upsert, without } from './annotation-cache';
import { withJob } from './jobs';

const job = (id: string, state: Job['state'], progress: number): Job => ({ id, state, progress, step: state, sourceId: null, already: false, error: null, label: id });

test('an answer that comes after a later event does not set a job back', () => {
  const failed = withJob([job('a', 'running', 0.3)], job('a', 'failed', 1));
  expect(withJob(failed, job('a', 'running', 0.01))).toEqual([job('a', 'failed', 1)]);
  expect(withJob([job('a', 'running', 0.3)], job('a', 'running', 0.05))[0]!.progress).toBe(0.3);
  expect(withJob([job('a', 'done', 1)], job('b', 'queued', 0)).map((j) => j.id)).toEqual(['b', 'a']);
});

const annotation = (id: string, version: number, rootId: string | null = null) => ({ id, version, rootId }) as Annotation;

test('an older version never takes the place of a newer one', () => {
  const list = [annotation('a', 3)];
  expect(upsert(list, annotation('a', 2))).toBe(list);
  expect(upsert(list, annotation('a', 4))).toEqual([annotation('a', 4)]);
  expect(upsert(list, annotation('b', 1))).toHaveLength(2);
});

test('what is gone takes its answers along', () => {
  expect(without([annotation('a', 1), annotation('r', 1, 'a'), annotation('b', 1)], 'a')).toEqual([annotation('b', 1)]);
});
