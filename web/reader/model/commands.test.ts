import fs from 'node:fs';
import path from 'node:path';
import { expect, test } from '@jest/globals';
import { COMMAND_IDS, commandFor, commandOf, isAvailable, keyWords, type Situation } from './commands';

const READING: Situation = {
  tool: 'read',
  selecting: false,
  openOwn: false,
  recording: false,
  onControl: false,
  kinds: 6,
};
const SELECTING: Situation = { ...READING, selecting: true };
const DRAWING: Situation = { ...READING, tool: 'draw' };

/** A key as a browser tells of it (UI Events, KeyboardEvent): its `key`, its `code`, and what is held with it. */
function press(key: string, held: readonly string[] = [], code = ''): KeyboardEvent {
  return {
    key,
    code,
    ctrlKey: held.includes('Control'),
    metaKey: held.includes('Meta'),
    altKey: held.includes('Alt'),
    shiftKey: held.includes('Shift'),
    getModifierState: (modifier: string) => held.includes(modifier),
  } as unknown as KeyboardEvent;
}

test.each<[string, KeyboardEvent, Situation, string | undefined]>([
  ['the next sentence', press(']'), READING, 'next sentence'],
  ['a bracket by the key for third signs (Windows)', press(']', ['Control', 'Alt']), READING, 'next sentence'],
  ['a bracket by the option key (a Mac)', press('[', ['Alt']), READING, 'sentence before'],
  ['a digit marks what is selected', press('2'), SELECTING, 'mark as kind'],
  ['a digit changes the open mark', press('2'), { ...READING, openOwn: true }, 'change kind'],
  ['a digit means nothing else', press('2'), READING, undefined],
  ['a digit beyond the Legend', press('7'), SELECTING, undefined],
  ['naught is no kind', press('0'), SELECTING, undefined],
  ['a digit takes a tool', press('0'), DRAWING, 'hold tool'],
  ['a digit takes a tool though words are selected', press('3'), { ...DRAWING, selecting: true }, 'hold tool'],
  ['Enter marks again', press('Enter'), SELECTING, 'mark again'],
  ['Enter on a button presses it', press('Enter'), { ...SELECTING, onControl: true }, undefined],
  ['a letter begins a note', press('d'), SELECTING, 'write'],
  ['a large letter, too', press('D', ['Shift']), SELECTING, 'write'],
  ['a letter of another script', press('и'), SELECTING, 'write'],
  ['a quotation mark', press('“', ['Shift']), SELECTING, 'write'],
  ['a sign does not', press('-'), SELECTING, undefined],
  ['the browser keeps its own', press('f', ['Control']), SELECTING, undefined],
  ['without a selection letters are commands', press('d'), READING, 'draw'],
  ['d ends drawing', press('d'), DRAWING, 'draw'],
  ['other letters mean nothing while one draws', press('f'), DRAWING, undefined],
  ['g and G differ', press('G', ['Shift']), READING, 'take start'],
  ['g', press('g'), READING, 'take end'],
  ['Space plays', press(' ', [], 'Space'), { ...READING, recording: true }, 'play'],
  ['Space scrolls where nothing plays', press(' ', [], 'Space'), READING, undefined],
  [
    'Space on a button presses it',
    press(' ', [], 'Space'),
    { ...READING, recording: true, onControl: true },
    undefined,
  ],
  ['undo, with words selected', press('z', ['Control']), SELECTING, 'undo'],
  ['redo', press('Z', ['Control', 'Shift']), DRAWING, 'redo'],
  ['redo otherwise', press('y', ['Control']), READING, 'redo'],
  ['? with Shift', press('?', ['Shift']), READING, 'commands'],
  ['? without', press('?'), DRAWING, 'commands'],
  ['let go', press('Escape'), { ...DRAWING, selecting: true }, 'escape'],
])('%s', (_, event, situation, id) => expect(commandFor(event, situation)?.id).toBe(id));

test('in no situation do two commands wait for one key', () => {
  const kinds = [true, false];
  const situations = (['read', 'area', 'draw'] as const).flatMap((tool) =>
    kinds.flatMap((selecting) =>
      kinds.flatMap((recording) => kinds.map((openOwn) => ({ ...READING, tool, selecting, recording, openOwn }))),
    ),
  );
  for (const situation of situations) {
    const keys = COMMAND_IDS.filter((id) => isAvailable(id, situation)).flatMap((id) => commandOf(id).keys);
    expect(keys).toEqual([...new Set(keys)]);
  }
});

test('the guide names every command of the reading view with its keys, and no other', () => {
  const guide = fs.readFileSync(path.join(process.cwd(), 'docs/guide.md'), 'utf8');
  const part = /<!-- commands -->\n([\s\S]*?)<!-- end of commands -->/.exec(guide)?.[1] ?? '';
  const rows = [...part.matchAll(/^\| (.*?) \| (.*?) \|$/gm)].slice(1).map(([, name, keys]) => [name, keys]);
  expect(rows).toEqual(COMMAND_IDS.map((id) => [commandOf(id).name, keyWords(id)]));
});
