import { expect, test } from '@jest/globals';
import type { Annotation } from '@avrelle/core/wire';
import { hasWords, isShown, threads } from './shown';

const mark = (id: string, start: number, more: Partial<Annotation> = {}): Annotation => ({
  id, sourceId: 's', versionId: 'v', author: { id: 'me', name: 'Me' }, kind: 'claim', note: '', tags: [], anchor: { quote: { exact: 'x', prefix: '', suffix: '' }, position: { start, end: start + 1 } },
  classIds: [], rootId: null, parentId: null, createdAt: `2026-11-0${id.length}T00:00:00Z`, updatedAt: '', version: 1, ...more,
});
const reply = (id: string, rootId: string): Annotation => mark(id, 0, { rootId, parentId: rootId, anchor: null, note: 'yes' });

test('threads stand in document order with their replies by time', () => {
  const made = threads([mark('bb', 50), reply('rrr', 'a'), mark('a', 10), reply('rr', 'a')]);
  expect(made.map((t) => [t.root.id, t.replies.map((r) => r.id)])).toEqual([['a', ['rr', 'rrr']], ['bb', []]]);
  expect(made.map(hasWords)).toEqual([true, false]);
});

test('all, mine, class and none show what they say', () => {
  const mine = mark('a', 0), theirs = mark('b', 0, { author: { id: 'you', name: 'You' }, classIds: ['c'] });
  expect((['all', 'mine', 'class', 'none'] as const).map((s) => [isShown(mine, s, 'me'), isShown(theirs, s, 'me')])).toEqual([[true, true], [true, false], [false, true], [false, false]]);
});
