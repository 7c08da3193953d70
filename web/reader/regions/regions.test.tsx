/**
 * @jest-environment ./web/testing/environment.mjs
 */
import { afterEach, expect, test } from '@jest/globals';
import { act, cleanup, screen, within } from '@testing-library/react';
import userEvent from '@testing-library/user-event';
import { startingKind } from '@avrelle/core/legend';
import type { ClassId } from '@avrelle/core/wire';
import { useSession } from '../session/reader-context';
import { Legend } from './legend/Legend';
import { FirstSteps, useFirstStep } from './margin/FirstSteps';
import { MarginHead } from './margin/MarginHead';
import { ThreadCard } from './margin/ThreadCard';
import { ME, noteBy, stage } from './stage';

afterEach(() => {
  cleanup();
  localStorage.clear();
});
const user = userEvent.setup();
const IN_CLASS = { classIds: ['b' as ClassId] };
const FOUR = [
  noteBy('Ines Kestle', 'a', { tags: ['mud'] }),
  noteBy('Tomas Rill', 'b', IN_CLASS),
  noteBy('Ines Kestle', 'c', { kind: startingKind('doubt')! }),
  noteBy('Luz Varga', 'd', { ...IN_CLASS, kind: startingKind('doubt')! }),
];
/** The first thread, as the margin shows it. */
function FirstNote() {
  const [thread] = useSession().threads;
  return thread && <ThreadCard thread={thread} />;
}

test('a kind of the Legend marks with itself; its digit and its name stand on it', async () => {
  const { calls } = stage(<Legend />);
  const legend = screen.getByRole('group', { name: /^The Legend/ });
  const names = within(legend)
    .getAllByRole('button')
    .map((b) => b.textContent);
  expect(names.slice(0, 6)).toEqual(['§Claim1', '∴Evidence2', '?Question3', '¶Term4', '≠Doubt5', '◆Keep6']);
  await user.click(within(legend).getByRole('button', { name: /Doubt/ }));
  expect(calls).toEqual([['marking.mark', startingKind('doubt')]]);
});

test('the tools beside the Legend run commands, and show which is in hand', async () => {
  const { calls, store } = stage(<Legend />);
  await user.click(screen.getByRole('button', { name: 'Area' }));
  await user.click(screen.getByRole('button', { name: 'Draw' }));
  expect(calls.map(([, id]) => id)).toEqual(['area', 'draw']);
  expect(screen.getByRole('button', { name: 'Area' }).getAttribute('aria-pressed')).toBe('false');
  act(() => store.dispatch({ type: 'tool', tool: 'area' }));
  expect(screen.getByRole('button', { name: 'Area' }).getAttribute('aria-pressed')).toBe('true');
  expect(screen.getByText('Drag over an area; click for a point')).toBeTruthy();
});

test('whose marks are shown is chosen by one press, and their number stands with it', async () => {
  const { store } = stage(<Legend />, { annotations: FOUR });
  expect(screen.getByRole('button', { name: 'all 4' })).toBeTruthy();
  await user.click(screen.getByRole('button', { name: 'mine' }));
  expect(screen.getByRole('button', { name: 'mine 2' })).toBeTruthy();
  expect(store.getState().filter).toEqual({ whose: 'mine' });
});

test('marks are narrowed to a person and a kind at once, and widened again', async () => {
  const { store } = stage(<Legend />, { annotations: FOUR });
  const menu = () => user.click(screen.getByRole('button', { name: 'Show only some' }));
  await menu();
  await user.click(await screen.findByRole('menuitemcheckbox', { name: 'Luz Varga' }));
  await menu();
  await user.click(await screen.findByRole('menuitemcheckbox', { name: /Doubt/ }));
  expect(store.getState().filter).toEqual({ whose: { person: 'luz' }, kind: 'doubt' });
  expect(screen.getByRole('button', { name: 'Show only some' }).textContent).toContain('Luz Varga, doubt 1');
  await menu();
  await user.click(await screen.findByRole('menuitem', { name: 'Show all of them' }));
  expect(store.getState().filter).toEqual({ whose: 'all' });
});

test('what counts as read is said in words, and set right by hand', async () => {
  const { calls } = stage(<Legend />);
  await user.click(screen.getByRole('button', { name: '25 % read · 3 min left' }));
  await user.click(await screen.findByRole('menuitem', { name: 'I have read all of it' }));
  expect(calls).toEqual([['progress.setRight', 'all read']]);
});

test('above the notes stand their number and their order; several of mine are chosen and changed together', async () => {
  const { calls, store } = stage(<MarginHead shown={4} unfinished={[]} />, { annotations: FOUR });
  expect(screen.getByText('4 notes')).toBeTruthy();
  await user.click(screen.getByRole('button', { name: /^by place/ }));
  await user.click(await screen.findByRole('menuitemradio', { name: 'By author' }));
  expect(store.getState().order).toBe('author');
  await user.click(screen.getByRole('button', { name: 'Choose several' }));
  expect(screen.getByText('0 chosen')).toBeTruthy();
  await user.click(screen.getByRole('button', { name: 'All of mine' }));
  expect(screen.getByText('2 chosen')).toBeTruthy();
  await user.click(screen.getByRole('button', { name: 'Delete' }));
  expect(calls[0]![0]).toBe('writer.remove');
  expect((calls[0]![1] as { id: string }[]).map((a) => a.id)).toEqual(['a', 'c']);
});

test('what was begun and not saved stands before their number', () => {
  stage(<MarginHead shown={2} unfinished={[{ top: 300 } as never]} />);
  expect(screen.getByRole('button', { name: '1 unfinished' })).toBeTruthy();
  expect(screen.queryByText('2 notes')).toBeNull();
});

test('a note is folded until it is opened; only its author can edit and delete it', async () => {
  const { calls, store } = stage(<FirstNote />, { annotations: [noteBy('Ines Kestle', 'a')] });
  expect(screen.queryByRole('button', { name: 'Delete' })).toBeNull();
  await user.click(screen.getByRole('button', { expanded: false, name: /Ines K\. claim/ }));
  expect(calls).toEqual([['note.toggle', 'a']]);
  act(() => store.dispatch({ type: 'expand', id: 'a' }));
  await user.click(screen.getByRole('button', { name: 'Delete' }));
  expect(calls[1]![0]).toBe('note.remove');
  expect(screen.getByRole('button', { name: 'Edit' })).toBeTruthy();
});

test('somebody else’s note can be answered, not changed; a sent answer is said aloud', async () => {
  const { calls, store } = stage(<FirstNote />, { annotations: [noteBy('Tomas Rill', 'a', IN_CLASS)] });
  act(() => store.dispatch({ type: 'expand', id: 'a' }));
  for (const name of ['Delete', 'Edit']) expect(screen.queryByRole('button', { name })).toBeNull();
  await user.type(screen.getByRole('textbox', { name: 'Reply' }), 'By how much?');
  await user.click(screen.getByRole('button', { name: 'Reply' }));
  expect(calls.find(([name]) => name === 'note.reply')!.slice(2)).toEqual(['By how much?']);
  expect((await screen.findByText('Answer sent')).getAttribute('role')).toBe('status');
});

test('Escape in the field for an answer folds the note, and the keys go on from its head', async () => {
  const { calls, store } = stage(<FirstNote />, { annotations: [noteBy('Tomas Rill', 'a', IN_CLASS)] });
  act(() => store.dispatch({ type: 'expand', id: 'a' }));
  await user.type(screen.getByRole('textbox', { name: 'Reply' }), 'By how{Escape}');
  expect(calls.filter(([name]) => name === 'note.toggle')).toEqual([['note.toggle', 'a']]);
  expect(document.activeElement).toBe(screen.getByRole('button', { expanded: true, name: /Tomas R\./ }));
});

test('while several are chosen, one’s own can be ticked', async () => {
  const { calls, store } = stage(<FirstNote />, { annotations: [noteBy('Ines Kestle', 'a')] });
  act(() => store.dispatch({ type: 'choose', chosen: new Set() }));
  await user.click(screen.getByRole('checkbox', { name: 'Choose: a note a' }));
  expect(calls).toEqual([['note.choose', 'a']]);
});

function Steps() {
  const { step, done } = useFirstStep();
  return step ? <FirstSteps step={step} onDone={done} /> : <p>no step</p>;
}

test('first steps: how to mark, then what next, then none; who knows says so, and is not told again', async () => {
  stage(<Steps />);
  expect(screen.getByRole('heading').textContent).toBe('Nothing is marked here yet');
  cleanup();
  stage(<Steps />, { annotations: [noteBy('Ines Kestle', 'a')] });
  expect(screen.getByRole('heading').textContent).toBe('Your first mark');
  cleanup();
  stage(<Steps />, { annotations: [noteBy('Tomas Rill', 'a')] });
  expect(screen.getByText('no step')).toBeTruthy();
  cleanup();
  stage(<Steps />);
  await user.click(screen.getByRole('button', { name: 'Don’t show this again' }));
  expect(screen.getByText('no step')).toBeTruthy();
  cleanup();
  stage(<Steps />);
  expect(screen.getByText('no step')).toBeTruthy();
});

test('on an older version nobody is told how to mark: it cannot be marked', () => {
  stage(<Steps />, { source: { versionNumber: 1, newest: 2 } });
  expect([screen.getByText('no step').textContent, ME.name]).toEqual(['no step', 'Ines Kestle']);
});
