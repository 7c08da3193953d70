import { expect, test } from '@jest/globals';
import { PLAIN_NOTE } from '@avrelle/core/legend';
import { initialState, openIn, reduce, type Draft, type ReaderAction, type ReaderState } from './reader-state';

const START = initialState('page', true);
const after = (...actions: readonly ReaderAction[]): ReaderState => actions.reduce(reduce, START);
const DRAFT: Draft = { range: { start: 4, end: 9 }, exact: 'marsh', note: '', kind: PLAIN_NOTE };

test.each([
  ['pdf', true, 'kept'],
  ['pdf', false, 'main'],
  ['page', true, 'main'],
  ['book', true, 'main'],
] as const)('a %s where there is room: %s is first shown as %s', (kind, wide, view) =>
  expect(initialState(kind, wide).view).toBe(view),
);

test('the tool that is taken up again is laid down, and only one is at hand', () => {
  expect(after({ type: 'tool', tool: 'area' }).tool).toBe('area');
  expect(after({ type: 'tool', tool: 'area' }, { type: 'tool', tool: 'draw' }).tool).toBe('draw');
  expect(after({ type: 'tool', tool: 'area' }, { type: 'tool', tool: 'area' }).tool).toBe('read');
});

test('what is opened is at hand, and closing it leaves it at hand', () => {
  const open = after({ type: 'expand', id: 'a' }, { type: 'expand', id: 'b' });
  expect([...open.expanded]).toEqual(['a', 'b']);
  expect(openIn(open)).toBe('b');
  const closed = reduce(open, { type: 'toggle', id: 'b' });
  expect([closed.current, openIn(closed), [...closed.expanded]]).toEqual(['b', undefined, ['a']]);
});

test('a press opens what it hits; beside everything it lets go and closes nothing', () => {
  const hit = after({ type: 'press', hit: 'a' });
  expect(openIn(hit)).toBe('a');
  const beside = reduce(hit, { type: 'press', hit: undefined });
  expect([beside.current, [...beside.expanded]]).toEqual([undefined, ['a']]);
  expect(reduce(beside, { type: 'press', hit: undefined })).toBe(beside);
});

test('writing brings the margin back; leaving a note does not take it away again', () => {
  const focused = after({ type: 'focus mode', on: true });
  const writing = reduce(focused, { type: 'draft', draft: DRAFT });
  expect([writing.focusMode, writing.draft]).toEqual([false, DRAFT]);
  expect(reduce(writing, { type: 'draft', draft: undefined })).toMatchObject({ focusMode: false, draft: undefined });
  expect(reduce(focused, { type: 'draft', draft: undefined }).focusMode).toBe(true);
});

test('letting go ends everything but the note that is being written, and leaves view, filter and order', () => {
  const busy = after(
    { type: 'tool', tool: 'draw' },
    { type: 'expand', id: 'a' },
    { type: 'choose', chosen: new Set(['a']) },
    { type: 'place', id: 'b' },
    { type: 'view', view: 'kept' },
    { type: 'order', order: 'time' },
    { type: 'filter', filter: { whose: 'mine' } },
    { type: 'draft', draft: DRAFT },
    { type: 'focus mode', on: true },
  );
  expect(reduce(busy, { type: 'escape' })).toMatchObject({
    tool: 'read',
    focusMode: false,
    placing: undefined,
    chosen: undefined,
    current: undefined,
    draft: DRAFT,
    view: 'kept',
    order: 'time',
    filter: { whose: 'mine' },
  });
});

test('several are chosen one by one, also where choosing was not begun', () => {
  const two = after({ type: 'toggle chosen', id: 'a' }, { type: 'toggle chosen', id: 'b' });
  expect([...two.chosen!]).toEqual(['a', 'b']);
  expect([...reduce(two, { type: 'toggle chosen', id: 'a' }).chosen!]).toEqual(['b']);
});

test('a move that cannot be seen on the minimap tells nobody', () => {
  const to = (top: number, height: number, pageHeight: number): ReaderState =>
    after({ type: 'scroll', scroll: { top, height }, pageHeight });
  expect(to(10, 600, 100_000)).toBe(START);
  expect(to(100, 600, 100_000).scroll).toEqual({ top: 100, height: 600 });
  expect(to(2, 600, 2_000).scroll.top).toBe(2);
  expect(to(0, 500, 100_000).scroll.height).toBe(500);
});

test('an action leaves the state before it as it was', () => {
  const before = after({ type: 'expand', id: 'a' }, { type: 'toggle chosen', id: 'a' });
  const copy = structuredClone(before);
  for (const type of ['toggle', 'expand', 'toggle chosen'] as const) reduce(before, { type, id: 'z' });
  reduce(before, { type: 'escape' });
  expect(before).toEqual(copy);
});
