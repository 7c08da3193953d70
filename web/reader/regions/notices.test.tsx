/**
 * @jest-environment ./web/testing/environment.mjs
 */
import { afterEach, expect, test } from '@jest/globals';
import { cleanup, fireEvent, screen } from '@testing-library/react';
import userEvent from '@testing-library/user-event';
import { createRef } from 'react';
import type { Outline } from '@avrelle/core/text';
import type { SourceText } from '@avrelle/core/wire';
import { keys } from '../../data/queries';
import type { PlayerHandle } from '../session/player-handle';
import { FindWithin } from './notices/FindWithin';
import { ListenBar } from './notices/ListenBar';
import { Notices } from './notices/Notices';
import { Recording } from './recording/Recording';
import { noteBy, stage } from './stage';

afterEach(cleanup);
const user = userEvent.setup();

const WORDS = 'Mud comes with the tide. More mud comes with the storm.';
const OUTLINE = [{ role: 'paragraph', start: 0, end: WORDS.length }] as unknown as Outline;
const TEXT = { text: WORDS, outline: OUTLINE } as unknown as SourceText;

test('words are found one after the other, round and round, and shown; what is not there is said', async () => {
  const { calls, store } = stage(<FindWithin />, { text: TEXT });
  const field = screen.getByRole('searchbox', { name: 'Words in this source' });
  await user.type(field, 'mud');
  expect(screen.getByText('1 of 2')).toBeTruthy();
  await user.type(field, '{Enter}');
  expect(screen.getByText('2 of 2')).toBeTruthy();
  await user.click(screen.getByRole('button', { name: 'Next' }));
  expect(screen.getByText('1 of 2')).toBeTruthy();
  expect(calls.filter(([name]) => name === 'document.reveal').at(-1)![1]).toMatchObject({ start: 0, end: 3 });
  await user.type(field, 'dy');
  expect(screen.getByText('not in this source')).toBeTruthy();
  store.dispatch({ type: 'find', on: true });
  await user.keyboard('{Escape}');
  expect(store.getState().finding).toBe(false);
});

test('reading aloud goes on, back and faster; its voice is chosen where there are several', async () => {
  const voices = [{ name: 'Saltmere' }, { name: 'Marsh' }] as never;
  const aloud = { voices, voice: { name: 'Saltmere' } as never, failed: undefined, paused: false, rate: 1 };
  const { calls } = stage(<ListenBar />, { tools: { aloud } });
  for (const name of ['Pause', 'Previous sentence', 'Next sentence', '1 ×', 'Stop'])
    await user.click(screen.getByRole('button', { name }));
  await user.selectOptions(screen.getByRole('combobox', { name: 'Voice' }), 'Marsh');
  expect(calls.map(([name, given]) => [name, typeof given === 'object' ? undefined : given])).toEqual([
    ['aloud.pause', undefined],
    ['aloud.go', -1],
    ['aloud.go', 1],
    ['aloud.setRate', 1.2],
    ['aloud.listen', false],
    ['aloud.setVoice', 'Marsh'],
  ]);
});

test('why nothing is to be heard is said', () => {
  stage(<ListenBar />, { source: { language: 'yi' }, tools: { aloud: { failed: 'language' } } });
  expect(screen.getByText(/has a voice for Yiddish/)).toBeTruthy();
  cleanup();
  stage(<ListenBar />, { tools: { aloud: { failed: 'loading' } } });
  expect(screen.getByText(/could not be loaded/)).toBeTruthy();
});

test('an older version says so and leads to the newest', () => {
  stage(<Notices />, {
    source: { versionNumber: 1, newest: 3, versionKeptAt: '2026-11-18T09:00:00.000Z', facts: {} as never },
  });
  expect(screen.getByText(/You are reading version 1/)).toBeTruthy();
  expect(screen.getByRole('link', { name: 'Go to the newest' }).getAttribute('href')).toBe('/source/s?version=3');
  expect(screen.getByRole('link', { name: 'What changed' }).getAttribute('href')).toBe('/source/s/changes?from=1&to=3');
});

test('how a source was kept is told where it matters, and put away', async () => {
  stage(<Notices />, { source: { facts: { scanned: 2, pages: 5 } as never } });
  expect(screen.getByText(/2 pages of 5 are pictures without text/)).toBeTruthy();
  await user.click(screen.getByRole('button', { name: 'Hide this' }));
  expect(screen.queryByText(/without text/)).toBeNull();
});

test('an unplaced annotation offers the nearest places; its author puts it there, others only look', async () => {
  const candidates = [{ start: 25, end: 33, likeness: 0.7 }];
  const place = { start: null, end: null, outcome: 'unplaced', confidence: 0, candidates };
  const lost = (name: string, id: string) => noteBy(name, id, { place: place as never });
  const { calls } = stage(<Notices />, {
    text: TEXT,
    source: { facts: {} as never },
    annotations: [lost('Ines Kestle', 'a'), lost('Tomas Rill', 'b')],
  });
  expect(screen.getByText(/2 annotations are unplaced/)).toBeTruthy();
  expect(screen.getAllByText('70 % alike')).toHaveLength(2);
  await user.click(screen.getByRole('button', { name: 'Put it here' }));
  expect(calls[0]![0]).toBe('placing.accept');
  expect(calls[0]![2]).toMatchObject({ start: 25, end: 33 });
  expect(screen.getByText('Only Tomas R. can place it.')).toBeTruthy();
});

test('a recording is noted at a moment and over a stretch; a file that does not play says so', async () => {
  const player = createRef<PlayerHandle>();
  stage(<Recording />, {
    source: { kind: 'audio', facts: { seconds: 90, transcript: false } as never },
    tools: { player: player as never },
  });
  expect(screen.getByText('0:00 of 1:30')).toBeTruthy();
  expect(screen.getByText(/It has no transcript/)).toBeTruthy();
  await user.click(screen.getByRole('button', { name: 'Begin a stretch' }));
  expect(screen.getByRole('button', { name: 'End the stretch from 0:00' })).toBeTruthy();
  const moment = screen.getByRole('slider', { name: 'Moment' });
  moment.focus();
  await user.keyboard('{PageUp}{ArrowRight}');
  expect(moment.getAttribute('aria-valuetext')).toBe('0:11 of 1:30');
  await user.click(screen.getByRole('button', { name: '1 ×' }));
  expect(screen.getByRole('button', { name: '1.25 ×' })).toBeTruthy();
  fireEvent.error(screen.getByLabelText('The Marsh'));
  expect(screen.getByRole('alert').textContent).toContain('cannot play the file');
});

test('heard in order, one goes ahead to where it was heard, and back at will; who teaches goes anywhere', async () => {
  const show = (missing: object | null) =>
    stage(<Recording />, {
      source: { kind: 'audio', facts: { seconds: 90 } as never, heard: [[0, 12]] },
      answers: [[keys.setHere('s'), [{ missing, isOpen: true, inOrder: true }]]],
    });
  show({});
  expect(screen.getByText(/ahead to 0:12, as far as you have heard/)).toBeTruthy();
  const at = () => screen.getByRole('slider', { name: 'Moment' }).getAttribute('aria-valuetext');
  screen.getByRole('slider', { name: 'Moment' }).focus();
  await user.keyboard('{PageUp}');
  expect(at()).toBe('0:10 of 1:30');
  await user.keyboard('{PageUp}');
  expect(at()).toBe('0:12 of 1:30');
  await user.keyboard('{PageDown}');
  expect(at()).toBe('0:02 of 1:30');
  cleanup();
  show(null);
  screen.getByRole('slider', { name: 'Moment' }).focus();
  await user.keyboard('{PageUp}{PageUp}');
  expect(at()).toBe('0:20 of 1:30');
});
