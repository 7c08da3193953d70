import { expect, test } from '@jest/globals';
import { sentences } from '@avrelle/core/text';
import { tidy } from '../../page/page-frame';
import { nextHit, threadsAt } from '../../page/hit';
import { stepSentence } from './sentence-step';
import type { Thread } from './thread';

const TEXT = 'One is here. Two follows!\nThree is last.';
const all = sentences(TEXT);
const words = (r: { start: number; end: number } | undefined) => r && TEXT.slice(r.start, r.end);

test('sentences are stepped through from the place on screen', () => {
  expect(words(stepSentence(all, undefined, 1, 14))).toBe('Two follows!');
  expect(words(stepSentence(all, all[0], 1, 0))).toBe('Two follows!');
  expect(words(stepSentence(all, all[2], -1, 0))).toBe('Two follows!');
  expect(words(stepSentence(all, all[0], -1, 0))).toBe('One is here.');
});

test('a selection is tidied of white space at its ends', () => {
  expect(words(tidy(TEXT, 3, 13))).toBe('is here.');
  expect(tidy(TEXT, 12, 13)).toBeUndefined();
  expect(words(tidy(TEXT, 12, 8))).toBe('ere.'.slice(0, 4));
});

test('nested highlights are reached one after the other', () => {
  const thread = (id: string, start: number, end: number) =>
    ({ root: { id }, range: { start, end }, replies: [] }) as unknown as Thread;
  const hits = threadsAt([thread('wide', 0, 30), thread('narrow', 5, 9), thread('far', 20, 30)], 6);
  expect(hits.map((t) => t.root.id)).toEqual(['narrow', 'wide']);
  expect(nextHit(hits, undefined)!.root.id).toBe('narrow');
  expect(nextHit(hits, 'narrow')!.root.id).toBe('wide');
  expect(nextHit(hits, 'wide')!.root.id).toBe('narrow');
  expect(nextHit([], 'wide')).toBeUndefined();
});
