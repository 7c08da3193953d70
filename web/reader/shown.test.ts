import { expect, test } from '@jest/globals';
import type { Annotation } from '@avrelle/core/wire';
import { hasWords, isShown, threads } from './shown';

const TEXT = Array.from({ length: 20 }, (_, n) => `w${n}`).join(' ');
const mark = (id: string, start: number, more: Partial<Annotation> = {}): Annotation => ({
  id, sourceId: 's', versionId: 'v', author: { id: 'me', name: 'Me' }, kind: 'claim', note: '', tags: [], anchor: { quote: { exact: TEXT.slice(start, start + 4), prefix: TEXT.slice(Math.max(0, start - 9), start), suffix: '' }, position: { start, end: start + 4 } },
  classIds: [], rootId: null, parentId: null, createdAt: `2026-11-0${id.length}T00:00:00Z`, updatedAt: '', version: 1, ...more,
});
const reply = (id: string, rootId: string): Annotation => mark(id, 0, { rootId, parentId: rootId, anchor: null, note: 'yes' });

test('threads stand in document order with their replies by time', () => {
  const { placed: made } = threads([mark('bb', 40), reply('rrr', 'a'), mark('a', 10), reply('rr', 'a')], TEXT);
  expect(made.map((t) => [t.root.id, t.replies.map((r) => r.id)])).toEqual([['a', ['rr', 'rrr']], ['bb', []]]);
  expect(made.map(hasWords)).toEqual([true, false]);
});

test('all, mine, class and none show what they say', () => {
  const mine = mark('a', 0), theirs = mark('b', 0, { author: { id: 'you', name: 'You' }, classIds: ['c'] });
  expect((['all', 'mine', 'class', 'none'] as const).map((s) => [isShown(mine, s, 'me'), isShown(theirs, s, 'me')])).toEqual([[true, true], [true, false], [false, true], [false, false]]);
});

test('a passage that moved is found at its new place, one that is gone is unplaced', () => {
  const { placed, unplaced } = threads([mark('a', 10), mark('bb', 0, { anchor: { quote: { exact: 'never there', prefix: '', suffix: '' }, position: { start: 0, end: 11 } } })], `New words. ${TEXT}`);
  expect(placed.map((t) => t.range)).toEqual([{ start: 21, end: 25 }]);
  expect(unplaced.map((a) => a.id)).toEqual(['bb']);
});
