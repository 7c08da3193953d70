import { sentences } from '@avrelle/core/text';

/** A text after seeded edits, with the offset that each of its units had before; -1 for a new one. */
export interface Edited {
  readonly text: string;
  readonly origin: Int32Array;
}

export const EDITS = ['insert', 'delete', 'replace', 'move', 'repeat', 'typography', 'mixed'] as const;
export type EditKind = (typeof EDITS)[number];

type Random = () => number;
interface Piece {
  readonly text: string;
  readonly from: number;
  readonly copy?: boolean;
}

const whole = (random: Random, below: number): number => Math.floor(random() * below);

/** Edits about `share` of the text's units in one way. Words come from the text itself, so that they are of its script. */
export function edit(text: string, share: number, kind: EditKind, random: Random): Edited {
  if (kind === 'typography') return typography(text, share, random);
  let pieces: Piece[] = units(text, kind, random).map(({ start, end }) => ({
    text: text.slice(start, end),
    from: start,
  }));
  const kinds = EDITS.slice(0, 5) as readonly Exclude<EditKind, 'typography' | 'mixed'>[];
  for (let left = share * text.length; left > 0;) {
    const how = kind === 'mixed' ? kinds[whole(random, 5)]! : kind;
    const at = whole(random, pieces.length);
    const length = how === 'replace' || random() < 0.6 ? 1 + whole(random, 3) : 1 + whole(random, 12);
    const run = pieces.slice(at, at + length);
    const size = run.reduce((sum, p) => sum + p.text.length, 0);
    const other = whole(random, pieces.length);
    if (how === 'insert') pieces.splice(at, 0, ...fresh(text, size, random));
    else if (how === 'delete') pieces.splice(at, length);
    else if (how === 'replace')
      pieces.splice(at, length, ...fresh(text, Math.max(2, Math.round(size * (0.5 + random()))), random));
    else if (how === 'move') {
      pieces.splice(at, length);
      pieces.splice(Math.min(other, pieces.length), 0, ...run);
    } else pieces.splice(other, 0, ...run.map((p) => ({ ...p, copy: true })));
    left -= Math.max(1, size);
    if (pieces.length === 0) pieces = [{ text: ' ', from: -1 }];
  }
  return join(pieces);
}

/** A word with the space before it; where words have none, a few characters. */
const WORDS = /\s*[^\s\u2e80-\uffff]+|\s*[\u2e80-\uffff]{1,3}/gu;

/** Words for small edits; sentences for a third of the texts, and for what is moved or repeated. */
function units(text: string, kind: EditKind, random: Random): readonly { start: number; end: number }[] {
  const coarse = kind === 'move' || kind === 'repeat' || random() < 0.35;
  const found: { start: number; end: number }[] = [];
  const starts = coarse
    ? sentences(text).map((s) => s.start as number)
    : [...text.matchAll(WORDS)].map((found) => found.index);
  const bounds = [...new Set([0, ...starts, text.length])].sort((a, b) => a - b);
  for (let i = 0; i + 1 < bounds.length; i++) found.push({ start: bounds[i]!, end: bounds[i + 1]! });
  return found;
}

/** New words: shuffled ones of the same text. */
function fresh(text: string, size: number, random: Random): Piece[] {
  const made: Piece[] = [];
  for (let length = 0; length < size;) {
    const at = whole(random, text.length);
    const words =
      text
        .slice(at, at + 4 + whole(random, 8))
        .replace(/^\S*?\s|\s\S*$/g, '')
        .replace(/\n/g, ' ') || 'x';
    made.push({ text: `${words} `, from: -1 });
    length += words.length + 1;
  }
  return made;
}

function join(pieces: readonly Piece[]): Edited {
  const text = pieces.map((p) => p.text).join('');
  const origin = new Int32Array(text.length).fill(-1);
  let at = 0;
  for (const piece of pieces) {
    if (piece.from >= 0 && !piece.copy) for (let i = 0; i < piece.text.length; i++) origin[at + i] = piece.from + i;
    at += piece.text.length;
  }
  return { text, origin };
}

/** Quotation marks, ligatures, hyphens at line ends, spaces, decomposed letters: the words stay. */
function typography(text: string, share: number, random: Random): Edited {
  const pieces: Piece[] = [];
  for (let i = 0; i < text.length; i++) {
    const two = text.slice(i, i + 2);
    const one = text[i]!;
    const changed = random() > share * 8 ? undefined : setOtherwise(two, one);
    const hyphen =
      changed === undefined && random() < share / 4 && /^\p{Ll}{2}/u.test(two) && /\p{Ll}/u.test(text[i - 1] ?? '');
    if (changed !== undefined) {
      pieces.push({ text: changed[0]!, from: i }, { text: changed.slice(1), from: -1 });
      if (two in CHANGES) i++;
    } else if (hyphen) pieces.push({ text: one, from: i }, { text: '-\n', from: -1 });
    else pieces.push({ text: one, from: i });
  }
  return join(pieces);
}

const setOtherwise = (two: string, one: string): string | undefined =>
  CHANGES[two] ?? CHANGES[one] ?? (one.normalize('NFD') !== one ? one.normalize('NFD') : undefined);

const CHANGES: Readonly<Record<string, string>> = {
  '"': '\u201c',
  "'": '\u2019',
  '\u201c': '"',
  '\u201d': '"',
  '\u2019': "'",
  fi: '\ufb01',
  fl: '\ufb02',
  ' ': '\u00a0',
  '\n': '\n\n',
  '-': '\u2013',
  '\u2014': ' - ',
};
