import { expect, test } from '@jest/globals';
import { STARTING_LEGEND } from '@avrelle/core/legend';
import type { Annotation, AnnotationPlace } from '@avrelle/core/wire';
import { outcomeOf, hasWords, matchesFilter, ordered, threads } from './thread';

const TEXT = Array.from({ length: 20 }, (_, n) => `w${n}`).join(' ');
const mark = (id: string, start: number, more: Partial<Annotation> = {}): Annotation => ({
  id,
  sourceId: 's',
  versionId: 'v',
  author: { id: 'me', name: 'Me' },
  kind: STARTING_LEGEND[0]!,
  note: '',
  tags: [],
  anchor: {
    quote: { exact: TEXT.slice(start, start + 4), prefix: TEXT.slice(Math.max(0, start - 9), start), suffix: '' },
    position: { start, end: start + 4 },
  },
  place: { versionId: 'v', state: 'exact', start, end: start + 4, confidence: 1, candidates: [], byHand: false },
  classIds: [],
  rootId: null,
  parentId: null,
  createdAt: `2026-11-0${id.length}T00:00:00Z`,
  updatedAt: '',
  version: 1,
  ...more,
});
const reply = (id: string, rootId: string): Annotation =>
  mark(id, 0, { rootId, parentId: rootId, anchor: null, place: null, note: 'yes' });

test('threads stand in document order with their replies by time', () => {
  const { placed: made } = threads([mark('bb', 40), reply('rrr', 'a'), mark('a', 10), reply('rr', 'a')]);
  expect(made.map((t) => [t.root.id, t.replies.map((r) => r.id)])).toEqual([
    ['a', ['rr', 'rrr']],
    ['bb', []],
  ]);
  expect(made.map(hasWords)).toEqual([true, false]);
});

test('all, mine, class and none show what they say', () => {
  const mine = mark('a', 0);
  const theirs = mark('b', 0, { author: { id: 'you', name: 'You' }, classIds: ['c'] });
  expect(
    (['all', 'mine', 'class', 'none'] as const).map((s) => [
      matchesFilter(mine, { whose: s }, 'me'),
      matchesFilter(theirs, { whose: s }, 'me'),
    ]),
  ).toEqual([
    [true, true],
    [true, false],
    [false, true],
    [false, false],
  ]);
});

test('one person, one class, one kind and one tag are told from the others', () => {
  const mine = mark('a', 0, { tags: ['peat'] });
  const theirs = mark('b', 0, { author: { id: 'you', name: 'You' }, classIds: ['c'], kind: STARTING_LEGEND[1]! });
  for (const shown of [
    { whose: { person: 'you' } },
    { whose: { classId: 'c' } },
    { whose: 'all', kind: 'evidence' },
  ] as const)
    expect([mine, theirs].map((a) => matchesFilter(a, shown, 'me'))).toEqual([false, true]);
  expect([mine, theirs].map((a) => matchesFilter(a, { whose: 'all', tag: 'peat' }, 'me'))).toEqual([true, false]);
});

test('what was deleted stands while it is answered', () => {
  const gone = mark('a', 10, { deleted: true });
  const answer = reply('rr', 'a');
  expect(threads([gone, answer]).placed).toHaveLength(1);
  expect(threads([gone]).placed).toHaveLength(0);
  const withdrawn = { ...answer, deleted: true as const };
  expect(
    threads([gone, withdrawn, { ...reply('rrr', 'a'), parentId: 'rr' }]).placed[0]!.replies.map((r) => r.id),
  ).toEqual(['rr', 'rrr']);
  expect(threads([mark('a', 10), withdrawn]).placed[0]!.replies).toEqual([]);
});

test('notes are listed by place, newest first, or by author', () => {
  const all = threads([mark('a', 40), mark('bb', 10, { author: { id: 'z', name: 'Zoe' } }), mark('ccc', 20)]).placed;
  expect((['place', 'time', 'author'] as const).map((o) => ordered(all, o).map((t) => t.root.id))).toEqual([
    ['bb', 'ccc', 'a'],
    ['ccc', 'bb', 'a'],
    ['ccc', 'a', 'bb'],
  ]);
});

const at = (id: string, place: Partial<AnnotationPlace>): Annotation =>
  mark(id, 10, { place: { ...mark(id, 10).place!, ...place } });

test('marks stand where they were found; what was not found is unplaced; what belongs to a later version is left out', () => {
  const { placed, unplaced } = threads([
    at('a', { state: 'shifted', start: 21, end: 25 }),
    at('bb', { state: 'lost', start: null, end: null }),
    mark('ccc', 30, { place: null }),
  ]);
  expect([placed.map((t) => t.range), unplaced.map((a) => a.id)]).toEqual([[{ start: 21, end: 25 }], ['bb']]);
});

test.each([
  ['in place', {}],
  ['moved', { state: 'shifted' }],
  ['edited', { state: 'edited' }],
  ['unsure', { state: 'edited', confidence: 0.85 }],
  ['unplaced', { state: 'lost', start: null, end: null }],
  ['in place', { state: 'lost', start: 3, end: 9, byHand: true }],
] as const)('%s: %j', (fate, place) => {
  expect(outcomeOf(at('a', place))).toBe(fate);
});
