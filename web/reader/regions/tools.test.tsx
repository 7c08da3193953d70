/**
 * @jest-environment ./web/testing/environment.mjs
 */
import { afterEach, expect, test } from '@jest/globals';
import { act, cleanup, screen, within } from '@testing-library/react';
import userEvent from '@testing-library/user-event';
import type { Outline } from '@avrelle/core/text';
import type { SourceText } from '@avrelle/core/wire';
import { keys } from '../../data/keys';
import { USUAL } from '../document/type';
import { Dialogs } from './dialogs/Dialogs';
import { DrawingStrip } from './legend/DrawingStrip';
import { Minimap } from './minimap/Minimap';
import { stage } from './stage';
import { SourceNavigation } from './toolbar/SourceNavigation';
import { ViewSwitch, Zoom } from './toolbar/ViewSwitch';

afterEach(() => {
  cleanup();
  localStorage.clear();
});
const user = userEvent.setup();

const WORDS = 'Mud\nIt comes with the tide.\nTwice a day';
const OUTLINE = [
  { role: 'heading', level: 1, start: 0, end: 3 },
  { role: 'paragraph', start: 4, end: 27 },
  { role: 'heading', level: 2, start: 28, end: 39 },
] as unknown as Outline;
const TEXT = { text: WORDS, outline: OUTLINE } as unknown as SourceText;

test('the headings of a source lead to their places, inner ones further in', async () => {
  const { calls } = stage(<SourceNavigation />, { text: TEXT, document: { type: USUAL } });
  await user.click(screen.getByRole('button', { name: /^Contents/ }));
  const items = await screen.findAllByRole('menuitem');
  expect(items.map((i) => i.textContent)).toEqual(['Mud', 'Twice a day']);
  expect(items.map((i) => i.style.paddingLeft)).toEqual(['14px', '30px']);
  await user.click(items[1]!);
  expect(calls).toEqual([['document.goToRange', OUTLINE[2]]]);
});

test('a source without headings has no contents; a picture is not searched or read aloud', () => {
  stage(<SourceNavigation />, { source: { kind: 'image', owned: true }, document: { type: USUAL } });
  for (const name of [/^Contents/, /^Find/, /^Listen/]) expect(screen.queryByRole('button', { name })).toBeNull();
  expect(screen.getByRole('link', { name: 'Crop, black out' }).getAttribute('href')).toBe('/source/s/picture');
});

test('finding, listening and focus are asked for, and shown as being on', async () => {
  const { store, calls } = stage(<SourceNavigation />, { text: TEXT, document: { type: USUAL } });
  await user.click(screen.getByRole('button', { name: 'Find in text' }));
  expect(store.getState().finding).toBe(true);
  expect(screen.getByRole('button', { name: 'Find in text' }).getAttribute('aria-pressed')).toBe('true');
  await user.click(screen.getByRole('button', { name: 'Listen' }));
  expect(calls).toEqual([['aloud.listen', true]]);
  await user.click(screen.getByRole('button', { name: 'Focus' }));
  expect(store.getState().focusMode).toBe(true);
});

test('type is set step by step, by name, and put back', async () => {
  const { calls } = stage(<SourceNavigation />, { text: TEXT, document: { type: { ...USUAL, size: 22 } } });
  await user.click(screen.getByRole('button', { name: /^Display/ }));
  await user.click(await screen.findByRole('button', { name: 'More: size' }));
  await user.click(screen.getByRole('button', { name: 'Atkinson' }));
  await user.click(screen.getByRole('button', { name: 'Reset' }));
  const set = calls.map(([, type]) => type as typeof USUAL);
  expect(set[0]!.size).toBeGreaterThan(22);
  expect(set[1]).toEqual({ ...USUAL, size: 22, face: 'atkinson' });
  expect(set[2]).toEqual(USUAL);
});

test('the other view is named by what it shows; pages are shown smaller and larger within bounds', async () => {
  const both = (
    <>
      <ViewSwitch />
      <Zoom />
    </>
  );
  const { store, calls } = stage(both, { source: { kind: 'pdf' }, document: { asPictures: true, zoom: 1 } });
  const other = store.getState().view === 'main' ? 'kept' : 'main';
  await user.click(screen.getByRole('button', { name: other === 'kept' ? 'Pages' : 'Text' }));
  expect(store.getState().view).toBe(other);
  await user.click(screen.getByRole('button', { name: 'Larger pages' }));
  expect(calls[0]![1]).toBeGreaterThan(1);
  cleanup();
  stage(both, { source: { kind: 'pdf' }, document: { asPictures: true, zoom: 4 } });
  expect((screen.getByRole('button', { name: 'Larger pages' }) as HTMLButtonElement).disabled).toBe(true);
});

test('the map has a bar for each heading, and a line for words that stand further down', () => {
  const blocks = OUTLINE.map((block, n) => ({ block, top: 300 * n, bottom: 300 * n + 280 }));
  stage(<Minimap />, { text: TEXT, document: { blocks: blocks as never, height: 900 } });
  const map = screen.getByRole('img', { name: /^Map of the document/ });
  expect(map.querySelectorAll('[data-line=heading]')).toHaveLength(2);
  expect(map.querySelectorAll('[data-line=text]').length).toBeGreaterThan(10);
  expect(map.querySelectorAll('[data-hard]')).toHaveLength(0);
});

test('the map shows where hard cards stand, the taller the more often they were forgotten', () => {
  const card = (annotationId: string, forgotten: number) => ({
    id: annotationId,
    annotationId,
    forgotten,
    words: 'Why?',
  });
  const cards = [card('a', 1), card('b', 4), card('gone', 2)];
  const places = new Map(['a', 'b'].map((id, n) => [id, { top: 200 * n, bottom: 200 * n + 20 }]));
  const answers = [[keys.cards({ source: 's', forgotten: 1, limit: 500 }), { cards, total: 3 }]] as const;
  stage(<Minimap />, { text: TEXT, document: { blocks: [], height: 900, places: places as never }, answers });
  const map = screen.getByRole('img', {
    name: 'Map of the document: headings, what is read, and the marks; 2 hard cards',
  });
  const shown = [...map.querySelectorAll('[data-hard]')];
  expect(shown.map((path) => path.textContent)).toEqual(['Forgotten once: Why?', 'Forgotten 4 times: Why?']);
  const height = (path: Element): number => Number(/v(\d+)z$/.exec(path.getAttribute('d')!)![1]);
  expect(height(shown[1]!)).toBeGreaterThan(height(shown[0]!));
});

test('a tool of the drawing strip is held by one press; what has no colour shows none', async () => {
  const drawing = { tool: 'pen', colour: 'ink', width: 3, chosen: undefined } as const;
  const { calls } = stage(<DrawingStrip />, { tools: { drawing } });
  const tools = within(screen.getByRole('radiogroup', { name: 'Drawing tools' }));
  expect(tools.getByRole('radio', { checked: true }).textContent).toContain('Pen');
  await user.click(tools.getByRole('radio', { name: 'Eraser' }));
  await user.click(screen.getByRole('radio', { name: 'woad' }));
  await user.click(screen.getByRole('button', { name: 'Done' }));
  expect(calls).toEqual([
    ['drawing.hold', 'eraser'],
    ['drawing.setColour', 'woad'],
    ['drawing.end', expect.anything()],
  ]);
  cleanup();
  stage(<DrawingStrip />, { tools: { drawing: { ...drawing, tool: 'eraser', width: 18 } } });
  expect(screen.queryByRole('radiogroup', { name: 'Colour' })).toBeNull();
  expect(screen.getByRole('slider', { name: 'Width' }).getAttribute('aria-valuenow')).toBe('18');
});

test('while only the page is shown, one press brings the rest back', async () => {
  const { store } = stage(<Dialogs />);
  expect(screen.queryByRole('button')).toBeNull();
  act(() => store.dispatch({ type: 'focus mode', on: true }));
  await user.click(screen.getByRole('button', { name: 'Show the rest (Esc)' }));
  expect(store.getState().focusMode).toBe(false);
});
