import { expect, test } from '@jest/globals';
import type { Annotation } from '@avrelle/core/wire';
import { STARTING_LEGEND, PLAIN_NOTE, startingKind } from '@avrelle/core/legend';
import { EMPTY, forget, partOf, remember, stepBack, stepForward, shownAs, withdraw, type Change } from './history';

const change = (id: string): Change => ({
  words: id,
  parts: [{ id, undo: { deleted: true }, redo: { deleted: false } }],
});

test('steps are taken back newest first and done again in order', () => {
  const history = remember(remember(EMPTY, change('a')), change('b'));
  const back = stepBack(history)!;
  expect(back.change.words).toBe('b');
  const further = stepBack(back.history)!;
  expect(further.change.words).toBe('a');
  expect(stepBack(further.history)).toBeUndefined();
  expect(stepForward(further.history)!.change.words).toBe('a');
});

test('a new step ends what could be done again', () => {
  const back = stepBack(remember(EMPTY, change('a')))!;
  expect(stepForward(remember(back.history, change('c')))).toBeUndefined();
});

test('a step that did not hold is forgotten, and only that one', () => {
  const history = remember(remember(remember(EMPTY, change('a')), change('b')), change('c'));
  expect(withdraw(history, change('b')).done.map((c) => c.words)).toEqual(['a', 'c']);
  expect(withdraw(history, change('x'))).toBe(history);
});

test('a step that could not be undone is not in the way of those before it, and is not done again', () => {
  const back = stepBack(remember(remember(EMPTY, change('a')), change('b')))!;
  const after = forget(back.history, back.change);
  expect(stepForward(after)).toBeUndefined();
  expect(stepBack(after)!.change.words).toBe('a');
});

const anchor = (start: number, end: number) => ({
  quote: { exact: 'x', prefix: '', suffix: '' },
  position: { start, end },
});
const noted = {
  id: 'a',
  kind: STARTING_LEGEND[0]!,
  note: 'before',
  tags: ['old'],
  classIds: [],
  versionId: 'v1',
  anchor: anchor(4, 9),
  place: { versionId: 'v2', state: 'shifted', start: 6, end: 11, confidence: 0.9, candidates: [], byHand: false },
} as unknown as Annotation;

test('what a change takes back is what was there', () => {
  expect(partOf(noted, { kind: 'doubt', tags: ['new'], deleted: true, place: { start: 1, end: 2 } }).undo).toEqual({
    kind: 'claim',
    tags: ['old'],
    deleted: false,
    place: null,
  });
  expect(partOf(noted, { passage: { versionId: 'v2', anchor: anchor(6, 20) } }).undo).toEqual({
    passage: { versionId: 'v1', anchor: anchor(4, 9) },
  });
});

test('a change shows before the server has answered', () => {
  expect(shownAs(noted, { kind: 'doubt', note: 'after' }, startingKind)).toMatchObject({
    kind: { name: 'Doubt' },
    note: 'after',
    tags: ['old'],
  });
  expect(shownAs(noted, { passage: { versionId: 'v2', anchor: anchor(6, 20) } }, startingKind)).toMatchObject({
    versionId: 'v2',
    place: { start: 6, end: 20, confidence: 1 },
  });
  expect(shownAs(noted, { place: { start: 1, end: 2 } }, startingKind).place).toMatchObject({
    start: 1,
    end: 2,
    byHand: true,
  });
  expect(shownAs(noted, { deleted: true }, startingKind)).toMatchObject({
    deleted: true,
    note: '',
    tags: [],
    kind: PLAIN_NOTE,
  });
});

test('for whom it was comes back whole: what was held is held again, not shown to all', () => {
  const held = { ...noted, classIds: ['c'], held: [{ classId: 'c', releaseAt: null }] } as unknown as Annotation;
  const part = partOf(held, { classIds: [], teachersOnly: false, held: false });
  expect(part.undo).toEqual({ classIds: ['c'], held: true });
  const mine = shownAs(held, part.redo, startingKind);
  expect([mine.classIds, mine.held]).toEqual([[], undefined]);
  expect(shownAs(mine, part.undo, startingKind)).toMatchObject({ classIds: ['c'], held: [{ classId: 'c' }] });
  expect(shownAs(mine, { classIds: ['c'], teachersOnly: true }, startingKind)).toMatchObject({ teachersOnly: true });
});

test('what was for a group is for it again once that is undone, never for the whole class', () => {
  const mud = { classId: 'c', groupId: 'm', name: 'Mud' };
  const forGroup = { ...noted, classIds: ['c'], groups: [mud] };
  const part = partOf(forGroup, { classIds: [], teachersOnly: false, held: false, groupIds: [] });
  expect([part.redo, part.undo]).toEqual([
    { classIds: [], groupIds: [] },
    { classIds: ['c'], groupIds: ['m'] },
  ]);
  const mine = shownAs(forGroup, part.redo, startingKind);
  expect([mine.classIds, mine.groups]).toEqual([[], []]);
  expect(shownAs(mine, part.undo, startingKind, (id) => (id === 'm' ? mud : undefined))).toMatchObject({
    classIds: ['c'],
    groups: [mud],
  });
});
