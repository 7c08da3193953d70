/**
 * @jest-environment ./web/testing/environment.mjs
 */
import { afterEach, expect, test } from '@jest/globals';
import { cleanup, screen } from '@testing-library/react';
import userEvent from '@testing-library/user-event';
import { startingKind } from '@avrelle/core/legend';
import type { Assignment } from '@avrelle/core/wire';
import { keys } from '../../data/queries';
import { SetHere } from './notices/SetHere';
import { noteBy, stage } from './stage';

afterEach(cleanup);
const user = userEvent.setup();

const expected = {
  marks: [
    { kind: 'claim', name: 'Claim', count: 2 },
    { kind: 'evidence', name: 'Evidence', count: 1 },
  ],
  answers: 1,
};
const NOTHING = { instructions: false, asked: false, text: false, notes: 0 };
const published = (changed: Partial<typeof NOTHING> = {}) => ({
  ...{ number: 1, at: '2026-11-24T09:00:00.000Z', lookedSince: null },
  changed: { ...NOTHING, ...changed },
});
const set = (more: Partial<Assignment> = {}): Assignment =>
  ({
    source: { id: 's' },
    published: published(),
    class: { id: 'b', name: 'Field Course B', tint: 'moss' },
    ...{ expected, missing: expected, instructions: '', comments: true, seesOthers: true, othersSeen: 'at_once' },
    ...{ together: [], inOrder: false, opensAt: null, dueAt: null, myDueAt: null, ...more },
  }) as unknown as Assignment;
const show = (of: readonly Assignment[], annotations: Parameters<typeof noteBy>[] = [], readShare = 0) =>
  stage(<SetHere />, {
    answers: [[keys.setHere('s'), of]],
    annotations: annotations.map((given) => noteBy(...given)),
    source: { readShare },
  });
const forB = { classIds: ['b'] };

test('what is missing is counted from what is on the page, for that class alone', () => {
  show(
    [set()],
    [
      ['Ines Kestle', '1', forB],
      ['Ines Kestle', '2', { classIds: [] }],
      ['Tomas Rell', '3', forB],
      ['Ines Kestle', '4', { ...forB, rootId: '3' }],
    ],
  );
  expect(screen.getByText('one claim, one piece of evidence')).toBeTruthy();
});

test('done is said; so is what is only to be read, until it is', () => {
  show(
    [set()],
    [
      ...['1', '2'].map((id): Parameters<typeof noteBy> => ['Ines Kestle', id, forB]),
      ['Ines Kestle', '3', { ...forB, kind: startingKind('evidence')! }],
      ['Tomas Rell', '5', forB],
      ['Ines Kestle', '6', { ...forB, rootId: '5' }],
    ],
  );
  expect(screen.getByText('Done:', { exact: false }).textContent).toBe(
    'Done: two claims, one piece of evidence, one answer',
  );
  cleanup();
  const toRead = set({ expected: { marks: [], answers: 0, questions: 0 } });
  show([toRead], [], 0.5);
  expect(screen.getByText('reading it')).toBeTruthy();
  cleanup();
  show([toRead], [], 1);
  expect(screen.getByText('read')).toBeTruthy();
});

test('past its time it says so; until others are seen it says when; teachers are asked nothing', () => {
  show([
    set({ myDueAt: '2026-11-02T15:00:00.000Z', seesOthers: false, othersSeen: 'after_own' }),
    { ...set(), missing: null },
  ]);
  expect(screen.getByText(/was due/)).toBeTruthy();
  expect(screen.getByText('You see the others after your own marks')).toBeTruthy();
  expect(screen.getAllByText('Field Course B')).toHaveLength(1);
});

test('one click writes for the class; instructions open and close; where comments are closed nothing is offered', async () => {
  const { calls } = show([set({ instructions: 'Mark **one claim**.' })]);
  await user.click(screen.getByRole('button', { name: 'Write for Field Course B' }));
  expect(calls.at(-1)).toEqual(['chooseAudience', { classIds: ['b'] }]);
  await user.click(screen.getByRole('button', { name: 'Instructions' }));
  // Drawn by a module of its own.
  expect((await screen.findByText('one claim', {}, { timeout: 10_000 })).tagName).toBe('STRONG');
  await user.click(screen.getByRole('button', { name: 'Instructions' }));
  expect(screen.queryByText('one claim')).toBeNull();
  cleanup();
  show([set({ comments: false })]);
  expect(screen.queryByRole('button', { name: 'Write for Field Course B' })).toBeNull();
});

test('what has changed since it was published is said, with the way to the text; nothing where nothing has', () => {
  show([set()]);
  expect(screen.queryByText('Changed')).toBeNull();
  cleanup();
  show([set({ published: published({ instructions: true, text: true, notes: 1 }) })]);
  expect(screen.getByText('Changed').parentElement!.textContent).toMatch(
    /^Changed since .*: the instructions, the text, 1 note by teachers$/,
  );
  expect(screen.getByRole('link', { name: 'the text' }).getAttribute('href')).toBe('/source/s/changes');
});
