import type { Anchor } from './anchor';
import { foldText } from './fold';
import { occurrences } from './occurrences';
import type { TextIndex } from './text-index';

/** A text directive of a URL fragment: `#:~:text=[prefix-,]start[,end][,-suffix]` (WICG, URL Fragment Text Directives). */
export interface TextDirective {
  readonly prefix?: string;
  readonly start: string;
  readonly end?: string;
  readonly suffix?: string;
}

const DELIMITER = ':~:';
/** A quotation longer than this is named by its first and last words. */
const LONGEST = 200;
const EDGE_WORDS = 5;

/** Parts an address from its text directives. Understands several; ones that do not hold to the grammar are left out. */
export function readAddress(address: string): {
  readonly address: string;
  readonly directives: readonly TextDirective[];
} {
  const [rest, fragment = ''] = split(address, '#');
  const [id, directive] = split(fragment, DELIMITER);
  if (directive === undefined) return { address, directives: [] };
  const directives = directive
    .split('&')
    .filter((part) => part.startsWith('text='))
    .map((part) => parseTextDirective(part.slice(5)))
    .filter((d) => d !== undefined);
  return { address: id ? `${rest}#${id}` : rest!, directives };
}

function split(text: string, at: string): [string, string | undefined] {
  const found = text.indexOf(at);
  return found < 0 ? [text, undefined] : [text.slice(0, found), text.slice(found + at.length)];
}

/** Reads the value of `text=`; undefined where it does not hold to the grammar. */
export function parseTextDirective(value: string): TextDirective | undefined {
  const parts = value.split(',');
  const prefix = parts.length > 1 && parts[0]!.endsWith('-') ? parts.shift()!.slice(0, -1) : undefined;
  const suffix = parts.length > 1 && parts.at(-1)!.startsWith('-') ? parts.pop()!.slice(1) : undefined;
  if (parts.length < 1 || parts.length > 2) return undefined;
  try {
    const [start, end] = parts.map(decodeURIComponent);
    const found = {
      start: start!,
      ...(end === undefined ? {} : { end }),
      ...(prefix === undefined ? {} : { prefix: decodeURIComponent(prefix) }),
      ...(suffix === undefined ? {} : { suffix: decodeURIComponent(suffix) }),
    };
    return Object.values(found).every((part) => part.trim()) ? found : undefined;
  } catch {
    return undefined;
  }
}

/** The value of `text=`: `-`, `,` and `&` are part of the grammar and written as percents. */
export function formatTextDirective({ prefix, start, end, suffix }: TextDirective): string {
  const code = (part: string): string => encodeURIComponent(part).replaceAll('-', '%2D');
  return [prefix && `${code(prefix)}-`, code(start), end && code(end), suffix && `-${code(suffix)}`]
    .filter(Boolean)
    .join(',');
}

/** The address of a passage on the page it was kept from. */
export function addressOf(address: string, directive: TextDirective): string {
  const plain = readAddress(address).address;
  return `${plain}${plain.includes('#') ? '' : '#'}${DELIMITER}text=${formatTextDirective(directive)}`;
}

/** A directive that leads to the anchor's words: by whole words, with context only where the words alone are not enough. */
export function directiveFor(index: TextIndex, { position }: Pick<Anchor, 'position'>): TextDirective {
  const { text } = index;
  const range = wholeWords(text, position.start, position.end);
  const words = text.slice(range.start, range.end);
  const named = words.length <= LONGEST && !words.includes('\n') ? { start: words } : edges(words);
  const found = findDirective(index, named);
  if (found && found.start === range.start && found.end === range.end) return named;
  const prefix = lastWords(text.slice(Math.max(0, range.start - LONGEST), range.start));
  const suffix = firstWords(text.slice(range.end, range.end + LONGEST));
  return { ...named, ...(prefix ? { prefix } : {}), ...(suffix ? { suffix } : {}) };
}

function edges(words: string): TextDirective {
  const lines = words.split(/[\n\t]/);
  const start = firstWords(lines[0]!);
  const end = lastWords(lines.at(-1)!);
  return start && end ? { start, end } : { start: words };
}

const firstWords = (text: string): string =>
  words(text.split(/[\n\t]/).find((line) => line.trim()) ?? '')
    .slice(0, EDGE_WORDS)
    .join('')
    .trim();
const lastWords = (text: string): string =>
  words(text.split(/[\n\t]/).findLast((line) => line.trim()) ?? '')
    .slice(-EDGE_WORDS)
    .join('')
    .trim();

/** Words with the marks and spaces around them; joined they are the text. */
const words = (text: string): string[] =>
  [...wordSegments(text)].reduce<string[]>((found, { segment, isWordLike }) => {
    if (isWordLike || found.length === 0) found.push(segment);
    else found[found.length - 1] += segment;
    return found;
  }, []);

function wholeWords(text: string, start: number, end: number): { start: number; end: number } {
  const near = Array.from({ length: LONGEST_WORD }, (_, n) => n);
  return {
    start: start - (near.find((n) => isWordBoundary(text, start - n)) ?? 0),
    end: end + (near.find((n) => isWordBoundary(text, end + n)) ?? 0),
  };
}

let segmenter: Intl.Segmenter | undefined;
const wordSegments = (text: string): Intl.Segments =>
  (segmenter ??= new Intl.Segmenter('und', { granularity: 'word' })).segment(text);

const AROUND = 40;
const LONGEST_WORD = 60;
/** Marks that may stand within a word (UAX #29, MidLetter, MidNum, ExtendNumLet). */
const WITHIN_WORDS = new Set("'\u2019.,_:");

/** Word boundaries by Unicode UAX #29, looked at nearby only. */
export function isWordBoundary(text: string, at: number): boolean {
  if (at <= 0 || at >= text.length) return true;
  if (/[\s\p{P}]/u.test(text[at]!) && !WITHIN_WORDS.has(text[at]!)) return true;
  const from = Math.max(0, at - AROUND);
  return wordSegments(text.slice(from, at + AROUND)).containing(at - from)?.index === at - from;
}

const MOST_TRIED = 1_000;

/** The first passage of the text that a directive names, as a browser would find it: any case, whole words; undefined for none. */
export function findDirective(
  index: TextIndex,
  { prefix, start, end, suffix }: TextDirective,
): { readonly start: number; readonly end: number } | undefined {
  const { folded, text } = index;
  const places = (part: string): readonly { from: number; until: number }[] => {
    const units = foldText(part).units;
    return occurrences(index, units, MOST_TRIED)
      .map((at) => ({ from: folded.from[at]!, until: endOf(index, at + units.length) }))
      .filter(({ from, until }) => isWordBoundary(text, from) && isWordBoundary(text, until));
  };
  const ends = end === undefined ? undefined : places(end);
  const prefixes =
    prefix === undefined ? undefined : new Set(places(prefix).map(({ until }) => skipSpace(text, until)));
  const suffixes = suffix === undefined ? undefined : new Set(places(suffix).map(({ from }) => from));
  const followed = (until: number): boolean => suffixes === undefined || suffixes.has(skipSpace(text, until));
  for (const { from, until } of places(start)) {
    if (prefixes && !prefixes.has(from)) continue;
    const stop = ends === undefined ? until : ends.find((e) => e.from >= until && followed(e.until))?.until;
    if (stop !== undefined && followed(stop)) return { start: from, end: stop };
  }
  return undefined;
}

/** Where the unit before folded place `at` ends in the text. */
function endOf({ folded, text }: TextIndex, at: number): number {
  const last = folded.from[at - 1]!;
  let end = last + (text.codePointAt(last)! > 0xffff ? 2 : 1);
  while (end < text.length && /\p{M}/u.test(text[end]!)) end++;
  return end;
}

function skipSpace(text: string, at: number): number {
  let to = at;
  while (to < text.length && /\s/.test(text[to]!)) to++;
  return to;
}
