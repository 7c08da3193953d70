import type { InlineStyle } from '../text/inline';
import type { Range } from '../text/offset';
import type { Term } from './query';

type Words = Extract<Term, { type: 'words' }>;

const WORD = /[\p{L}\p{N}\p{M}\p{Co}]+/gu;
const SPACELESS =
  /[\p{Script=Han}\p{Script=Hiragana}\p{Script=Katakana}\p{Script=Thai}\p{Script=Lao}\p{Script=Khmer}\p{Script=Myanmar}]/u;
const plain = (text: string): string => text.normalize('NFD').replace(/\p{M}/gu, '').toLowerCase().replaceAll('ς', 'σ');

/** One expression for all words, on a text without case and accents; undefined for words that are signs only. */
function expression(words: readonly Pick<Words, 'words' | 'phrase'>[]): RegExp | undefined {
  const each = words.flatMap(({ words: typed, phrase }) => {
    const parts = plain(typed)
      .match(WORD)
      ?.map((part) => part.replace(/[.*+?^${}()|[\]\\]/g, '\\$&'));
    if (!parts) return [];
    const free = SPACELESS.test(typed);
    const joined = parts.join('[^\\p{L}\\p{N}]+');
    const end = phrase ? '(?![\\p{L}\\p{N}])' : '[\\p{L}\\p{N}]*';
    return [free ? joined : `(?<![\\p{L}\\p{N}])${joined}${end}`];
  });
  return each.length ? new RegExp(each.join('|'), 'gu') : undefined;
}

/** A text as words are compared, with where each of its units began; `from[length]` is the text's length. */
function compared(text: string): { readonly plain: string; readonly from: readonly number[] } {
  const from: number[] = [];
  let out = '';
  let at = 0;
  for (const character of text) {
    const folded = plain(character);
    for (let i = 0; i < folded.length; i++) from.push(at);
    out += folded;
    at += character.length;
  }
  return { plain: out, from: [...from, text.length] };
}

/** Where the words that were looked for stand in a text, in order, at most `most` of them. UTF-16 units, half-open. */
export function placesOf(
  text: string,
  words: readonly Pick<Words, 'words' | 'phrase'>[],
  most = 1_000,
): readonly Range[] {
  const wanted = expression(words);
  if (!wanted) return [];
  const lower = text.toLowerCase();
  // Most texts hold what is looked for as it was typed, or not at all; where each letter of a folded one stood takes a hundred times as long to say.
  const simple = lower.length === text.length ? take(lower, wanted, most) : [];
  if (simple.length > 0 || take(plain(text), wanted, 1).length === 0) return simple;
  const { plain: folded, from } = compared(text);
  return take(folded, wanted, most).map(({ start, end }) => {
    let to = from[end]!;
    while (to < text.length && /^\p{M}/u.test(text.slice(to, to + 2))) to++;
    return { start: from[start]!, end: to } as Range;
  });
}

function take(text: string, wanted: RegExp, most: number): Range[] {
  const found: Range[] = [];
  for (const match of text.matchAll(wanted)) {
    if (found.push({ start: match.index, end: match.index + match[0].length } as Range) === most) break;
  }
  return found;
}

/** A piece of text with the words that were looked for marked, and with what its words were in their source. */
export type Marked = readonly { readonly text: string; readonly hit: boolean; readonly as?: readonly InlineStyle[] }[];

/** A text with those places marked; white space is one space. */
export function markPlaces(text: string, places: readonly Range[]): Marked {
  const pieces: { text: string; hit: boolean }[] = [];
  let at = 0;
  for (const { start, end } of places) {
    if (start < at) continue;
    pieces.push({ text: text.slice(at, start), hit: false }, { text: text.slice(start, end), hit: true });
    at = end;
  }
  pieces.push({ text: text.slice(at), hit: false });
  return pieces
    .map((piece) => ({ ...piece, text: piece.text.replace(/\s+/g, ' ') }))
    .filter((piece) => piece.text !== '');
}

const BEFORE = 70;
const AFTER = 150;

/** What stands around the first place words are found at: whole words, cut ends shown by an ellipsis. Undefined where none is. */
export function snippetOf(
  text: string,
  words: readonly Pick<Words, 'words' | 'phrase'>[],
): { readonly marked: Marked; readonly place: Range } | undefined {
  const [place] = placesOf(text, words, 1);
  if (!place) return undefined;
  const from = place.start <= BEFORE ? 0 : wordStart(text, place.start - BEFORE, place.start);
  const to = place.end + AFTER >= text.length ? text.length : wordEnd(text, place.end + AFTER, place.end);
  const piece = text.slice(from, to);
  const marked = markPlaces(piece, placesOf(piece, words));
  return {
    place,
    marked: [
      ...(from > 0 ? [{ text: '…', hit: false }] : []),
      ...marked,
      ...(to < text.length ? [{ text: '…', hit: false }] : []),
    ],
  };
}

function wordStart(text: string, from: number, to: number): number {
  const space = /\s/.exec(text.slice(from, to));
  return space ? from + space.index + 1 : from;
}

function wordEnd(text: string, from: number, least: number): number {
  const space = text.lastIndexOf(' ', from);
  return space > least ? space : from;
}
