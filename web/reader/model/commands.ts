import { matchKeyBindingPress, parseKeybinding, type KeyBindingPress } from 'tinykeys';
import type { Tool } from './reader-state';

/** What a command depends on. */
export interface Situation {
  readonly tool: Tool;
  /** Words of the page are selected. */
  readonly selecting: boolean;
  /** An annotation of one's own is at hand and open. */
  readonly openOwn: boolean;
  /** There is a recording to play. */
  readonly recording: boolean;
  /** The focus is on a button or link, which Enter and Space press. */
  readonly onControl: boolean;
  /** How many kinds the Legend has. */
  readonly kinds: number;
}

type Group = 'Mark' | 'Go' | 'Read' | 'Recording' | 'Always';

interface Entry {
  /** As it stands in the list of commands and in the guide. */
  readonly name: string;
  readonly group: Group;
  /** In the notation of the key binding library; none where a command is only in the list. */
  readonly keys: readonly string[];
  /** Keys that stand for several, as people call them. */
  readonly keyWords?: string;
  when?(situation: Situation): boolean;
}

const reading = ({ tool, selecting }: Situation): boolean => tool !== 'draw' && !selecting;
const playing = (s: Situation): boolean => s.recording && reading(s) && !s.onControl;

/** Everything the reading view can be told to do by a key or by name. Those that come first take a key first. */
export const COMMANDS = {
  'next sentence': { name: 'Select the next sentence', group: 'Mark', keys: [']'] },
  'sentence before': { name: 'Select the previous sentence', group: 'Mark', keys: ['['] },
  'mark as kind': {
    name: 'Mark the selected words as a kind of the Legend',
    group: 'Mark',
    keys: [],
    keyWords: '1 to 9',
    when: ({ tool, selecting }) => tool !== 'draw' && selecting,
  },
  'change kind': {
    name: 'Make the open mark another kind',
    group: 'Mark',
    keys: [],
    keyWords: '1 to 9',
    when: (s) => reading(s) && s.openOwn,
  },
  'mark again': {
    name: 'Mark the selected words as the last kind used',
    group: 'Mark',
    keys: ['Enter'],
    when: ({ selecting, onControl }) => selecting && !onControl,
  },
  write: {
    name: 'Write a note beside the selected words',
    group: 'Mark',
    keys: [],
    keyWords: 'any letter',
    when: ({ tool, selecting }) => tool !== 'draw' && selecting,
  },
  'write on all': { name: 'Write a note on the whole source', group: 'Mark', keys: ['n'], when: reading },
  'mark on select': { name: 'Mark as I select, on or off', group: 'Mark', keys: ['x'], when: reading },
  area: { name: 'Mark an area or a point', group: 'Mark', keys: ['a'], when: reading },
  draw: {
    name: 'Draw, or end drawing',
    group: 'Mark',
    keys: ['d'],
    when: ({ tool, selecting }) => tool === 'draw' || !selecting,
  },
  'hold tool': {
    name: 'Take another drawing tool',
    group: 'Mark',
    keys: [],
    keyWords: '1 to 9, 0',
    when: ({ tool }) => tool === 'draw',
  },
  card: {
    name: 'Make a card of the open mark, to be remembered',
    group: 'Mark',
    keys: ['c'],
    when: (s) => reading(s) && s.openOwn,
  },
  remove: { name: 'Delete the open mark, or the chosen drawing', group: 'Mark', keys: ['Delete'] },
  'next mark': { name: 'Open the next mark', group: 'Go', keys: ['.'] },
  'mark before': { name: 'Open the previous mark', group: 'Go', keys: [','] },
  'take end': { name: 'Move the end of the open mark', group: 'Go', keys: ['g'], when: reading },
  'take start': { name: 'Move the beginning of the open mark', group: 'Go', keys: ['Shift+G'], when: reading },
  find: { name: 'Find words in this source', group: 'Go', keys: ['f'], when: reading },
  listen: { name: 'Read aloud, or stop', group: 'Read', keys: ['l'], when: reading },
  'focus mode': { name: 'Show only the page, or everything again', group: 'Read', keys: ['z'], when: reading },
  play: { name: 'Play or pause', group: 'Recording', keys: ['Space'], when: playing },
  back: { name: 'Go back five seconds', group: 'Recording', keys: ['b'], when: playing },
  'note moment': { name: 'Write a note at this moment', group: 'Recording', keys: ['m'], when: playing },
  stretch: { name: 'Begin a stretch, or end it with a note', group: 'Recording', keys: ['s'], when: playing },
  undo: { name: 'Undo', group: 'Always', keys: ['$mod+z'] },
  redo: { name: 'Redo', group: 'Always', keys: ['$mod+Shift+z', '$mod+y'] },
  escape: { name: 'Close everything, and select nothing', group: 'Always', keys: ['Escape'] },
  legend: { name: 'Change the Legend', group: 'Always', keys: [] },
  commands: { name: 'Show all commands and their keys', group: 'Always', keys: ['?'] },
} as const satisfies Readonly<Record<string, Entry>>;

export type CommandId = keyof typeof COMMANDS;
export const COMMAND_IDS = Object.keys(COMMANDS) as readonly CommandId[];
export const commandOf = (id: CommandId): Entry => COMMANDS[id];

export const isAvailable = (id: CommandId, situation: Situation): boolean => commandOf(id).when?.(situation) ?? true;

/** What a key means: a command, and the letter or digit that it goes by. */
export interface Told {
  readonly id: CommandId;
  readonly letter: string;
}

/** Signs that some keyboards only give with Shift or with the key for third signs. */
const SIGN = /^[^\p{L}\p{N}]$/u;
const spellings = (key: string): readonly string[] =>
  SIGN.test(key) ? [key, `Shift+${key}`, `Control+Alt+${key}`, `Alt+${key}`] : [key];

const presses = new Map<CommandId, readonly KeyBindingPress[]>(
  COMMAND_IDS.map((id) => [
    id,
    commandOf(id)
      .keys.flatMap(spellings)
      .flatMap((key) => parseKeybinding(key)),
  ]),
);

const DIGITS: readonly CommandId[] = ['hold tool', 'mark as kind', 'change kind'];
const BEGINS_A_NOTE = /^[\p{L}"“‘'(]$/u;

/** The command of a key in a situation; undefined where it means nothing here. */
export function commandFor(event: KeyboardEvent, situation: Situation): Told | undefined {
  const letter = event.key;
  const plain = !event.ctrlKey && !event.metaKey && !event.altKey;
  if (plain && /^\d$/.test(letter)) return digitCommand(letter, situation);
  const id = COMMAND_IDS.find(
    (each) => isAvailable(each, situation) && presses.get(each)!.some((press) => matchKeyBindingPress(event, press)),
  );
  if (id) return { id, letter };
  return plain && BEGINS_A_NOTE.test(letter) && isAvailable('write', situation) ? { id: 'write', letter } : undefined;
}

function digitCommand(digit: string, situation: Situation): Told | undefined {
  const id = DIGITS.find((each) => isAvailable(each, situation));
  const means = id === 'hold tool' || (digit !== '0' && Number(digit) <= situation.kinds);
  return id !== undefined && means ? { id, letter: digit } : undefined;
}

const KEY_WORDS: Readonly<Record<string, string>> = { $mod: 'Ctrl', Escape: 'Esc' };

/** The keys of a command as they are written on a keyboard. */
export function keyWords(id: CommandId): string {
  const { keys, keyWords: words } = commandOf(id);
  const spoken = keys.map((key) =>
    key
      .split('+')
      .map((part) => KEY_WORDS[part] ?? (part.length === 1 && key.includes('+') ? part.toUpperCase() : part))
      .join(' '),
  );
  return words ?? spoken.join(', ');
}
