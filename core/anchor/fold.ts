import { lowerBound } from './lower-bound';

/**
 * A text as it is compared: letters without case, compatibility forms and ligatures opened (Unicode NFKD), quotation
 * marks and dashes of one sort, white space folded to one space, invisible characters dropped, a word broken by a
 * hyphen at a line's end made whole. `from[i]` is where unit `i` began in the text; `from[units.length]` is its length.
 */
export interface Folded {
  readonly units: Uint16Array;
  readonly from: Int32Array;
}

/** 0 is a unit not met yet. */
const DROPPED = 1;
const SPACE = 2;
const SEVERAL = 3;
/** What a code unit becomes: a unit, or one of the marks above. Filled as units are met. */
const table = new Uint16Array(0x10000);
const several = new Map<number, string>();
/** The same for characters of two units, by code point. */
const pairs = new Map<number, string>();

const INVISIBLE = /^(?:\u00AD|[\u200B-\u200F]|\u2060|\uFEFF|[\uFE00-\uFE0F])$/;
const SINGLE_QUOTES = /^[\u2018-\u201B\u2032\u02BC\u2039\u203A\u0060\u00B4]$/;
const DOUBLE_QUOTES = /^[\u201C-\u201F\u2033\u00AB\u00BB\u300C-\u300F]$/;
const DASHES = /^[\u2010-\u2015\u2212\u2E3A\u2E3B]$/;

function foldOne(character: string): string {
  const plain = plainOf(character);
  if (plain !== character) return plain;
  return [...character.normalize('NFKD').toLowerCase().normalize('NFKD')].map(plainOf).join('');
}

function plainOf(character: string): string {
  if (INVISIBLE.test(character)) return '';
  if (/^[\s\u0085]$/u.test(character)) return ' ';
  if (SINGLE_QUOTES.test(character)) return "'";
  if (DOUBLE_QUOTES.test(character)) return '"';
  if (DASHES.test(character)) return '-';
  return character === '\u2044' ? '/' : character;
}

function codeOf(folded: string): number {
  if (folded === '') return DROPPED;
  if (folded === ' ') return SPACE;
  const unit = folded.charCodeAt(0);
  return folded.length === 1 && unit > SEVERAL ? unit : SEVERAL;
}

function learn(unit: number): number {
  const folded = foldOne(String.fromCharCode(unit));
  const code = codeOf(folded);
  if (code === SEVERAL) several.set(unit, folded);
  table[unit] = code;
  return code;
}

const isHigh = (unit: number): boolean => unit >= 0xd800 && unit < 0xdc00;
const isLow = (unit: number): boolean => unit >= 0xdc00 && unit < 0xe000;

/** Folds code units `[begin, end)` of a source of units. Linear in their number. */
export function fold(units: ArrayLike<number>, begin = 0, end = units.length): Folded {
  const writer = new Writer(units, begin, end);
  for (let at = begin; at < end; at++) at += writer.add(at);
  return writer.finish();
}

export function foldText(text: string): Folded {
  return fold(unitsOf(text));
}

export function unitsOf(text: string): Uint16Array {
  const units = new Uint16Array(text.length);
  for (let i = 0; i < units.length; i++) units[i] = text.charCodeAt(i);
  return units;
}

class Writer {
  private out: Uint16Array;
  private from: Int32Array;
  private length = 0;
  /** Where white space began that is written once something follows it; -1 for none. */
  private space = -1;

  constructor(
    private readonly units: ArrayLike<number>,
    begin: number,
    private readonly end: number,
  ) {
    const room = end - begin + 16;
    this.out = new Uint16Array(room);
    this.from = new Int32Array(room);
  }

  /** Adds the character at `at`; the result is how many units beyond the first it took. */
  add(at: number): number {
    const unit = this.units[at]!;
    if (isHigh(unit) && at + 1 < this.end && isLow(this.units[at + 1]!)) return this.addPair(at, unit);
    const code = table[unit] || learn(unit);
    if (code > SEVERAL) this.write(code, at);
    else if (code === SPACE) {
      if (this.space < 0) this.space = at;
    } else if (code === SEVERAL) this.writeAll(several.get(unit) ?? '', at);
    if (this.space === at && this.breaksWord(at)) this.space = -1;
    return 0;
  }

  finish(): Folded {
    const from = this.from.slice(0, this.length + 1);
    from[this.length] = this.end;
    return { units: this.out.slice(0, this.length), from };
  }

  private addPair(at: number, high: number): number {
    const codePoint = 0x10000 + ((high - 0xd800) << 10) + this.units[at + 1]! - 0xdc00;
    let folded = pairs.get(codePoint);
    if (folded === undefined) pairs.set(codePoint, (folded = foldOne(String.fromCodePoint(codePoint))));
    this.writeAll(folded, at);
    return 1;
  }

  private writeAll(folded: string, at: number): void {
    for (let i = 0; i < folded.length; i++) this.write(folded.charCodeAt(i), at);
  }

  private write(unit: number, at: number): void {
    if (this.length + 2 >= this.out.length) this.grow();
    if (this.space >= 0 && this.length > 0) this.put(32, this.space);
    this.space = -1;
    this.put(unit, at);
  }

  private put(unit: number, at: number): void {
    this.out[this.length] = unit;
    this.from[this.length++] = at;
  }

  private grow(): void {
    const out = new Uint16Array(this.out.length * 2);
    const from = new Int32Array(this.out.length * 2);
    out.set(this.out);
    from.set(this.from);
    this.out = out;
    this.from = from;
  }

  /** True at a line's end after a hyphen within a word, which goes on in the next line in lower case. */
  private breaksWord(at: number): boolean {
    if (this.units[at] !== 10 || at === 0) return false;
    const hyphen = this.units[at - 1]!;
    if (hyphen !== 0x2d && hyphen !== 0x2010 && hyphen !== 0xad) return false;
    const before = this.units[at - 2] ?? 0;
    const after = this.units[at + 1] ?? 0;
    if (!isLowerCase(before) || !isLowerCase(after)) return false;
    if (hyphen !== 0xad) this.length--;
    return true;
  }
}

function isLowerCase(unit: number): boolean {
  if (unit < 128) return unit >= 97 && unit <= 122;
  const letter = String.fromCharCode(unit);
  return letter !== letter.toUpperCase();
}

/** First folded unit that began at or after offset `at` of the text. */
export const foldedAt = ({ from, units }: Folded, at: number): number => lowerBound(from, 0, units.length, at);
