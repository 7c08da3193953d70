import { number, object, string, ValidationError } from 'yup';
import type { Anchor } from './anchor';
import { describe } from './describe';
import { locateAll } from './locate';
import { lowerBound } from './lower-bound';
import { directiveFor, findDirective, formatTextDirective, parseTextDirective } from './text-fragment';
import type { TextIndex } from './text-index';

/** Selectors of the W3C Web Annotation Data Model (Recommendation of 23 February 2017, section 4.2). */
export type Selector =
  | {
      readonly type: 'TextQuoteSelector';
      readonly exact: string;
      readonly prefix?: string;
      readonly suffix?: string;
      readonly refinedBy?: Selector;
    }
  | { readonly type: 'TextPositionSelector'; readonly start: number; readonly end: number }
  | {
      readonly type: 'FragmentSelector';
      readonly value: string;
      readonly conformsTo?: string;
      readonly refinedBy?: Selector;
    }
  | { readonly type: 'SvgSelector'; readonly value: string }
  | { readonly type: 'RangeSelector'; readonly startSelector: Selector; readonly endSelector: Selector };

/** What a fragment conforms to: text directives, and RFC 5147 for plain text. */
const TEXT_DIRECTIVES = 'https://wicg.github.io/scroll-to-text-fragment/';
const RFC_5147 = 'http://tools.ietf.org/rfc/rfc5147';

/** An anchor as selectors. Positions of the Recommendation count characters (code points), ours UTF-16 units. */
export function toSelectors(index: TextIndex, anchor: Anchor): readonly Selector[] {
  const { quote, position } = anchor;
  const start = characters(index, position.start);
  const end = characters(index, position.end);
  const point = (at: number): Selector => ({ type: 'TextPositionSelector', start: at, end: at });
  return [
    { type: 'TextQuoteSelector', exact: quote.exact, prefix: quote.prefix, suffix: quote.suffix },
    { type: 'TextPositionSelector', start, end },
    { type: 'RangeSelector', startSelector: point(start), endSelector: point(end) },
    {
      type: 'FragmentSelector',
      conformsTo: TEXT_DIRECTIVES,
      value: `:~:text=${formatTextDirective(directiveFor(index, anchor))}`,
    },
    { type: 'FragmentSelector', conformsTo: RFC_5147, value: `char=${start},${end}` },
  ];
}

/** Characters before an offset: characters of two units count once. */
const characters = (index: TextIndex, offset: number): number =>
  offset - lowerBound(index.pairs(), 0, index.pairs().length, offset);

/** The UTF-16 offset of character `count`; undefined beyond the text. */
function offsetOf(index: TextIndex, count: number): number | undefined {
  let at = count;
  for (const second of index.pairs()) {
    if (second > at) break;
    at++;
  }
  return at <= index.text.length ? at : undefined;
}

const MOST = 100_000;
const quoteSchema = object({
  exact: string().required().max(MOST),
  prefix: string().max(MOST),
  suffix: string().max(MOST),
});
const positionSchema = object({
  start: number().required().integer().min(0),
  end: number().required().integer().min(0),
});
const fragmentSchema = object({ value: string().required().max(MOST), conformsTo: string() });

/** Why a file's selectors lead to no passage, in words for the person who brought them. */
export class SelectorError extends Error {}

/**
 * Reads one selector or several for one passage, as they come from another program, and finds the passage in the text:
 * by its quotation first, else by range, fragment or position. Throws a SelectorError on what is malformed, of an
 * unknown type only, or not in the text.
 */
export function fromSelectors(index: TextIndex, given: unknown): Anchor {
  const selectors = (Array.isArray(given) ? given : [given]) as readonly unknown[];
  if (selectors.length === 0 || selectors.length > 20)
    throw new SelectorError(`Expected 1 to 20 selectors; there are ${selectors.length}.`);
  const hint = selectors.map((s) => (typeOf(s) === 'TextPositionSelector' ? find(index, s) : undefined)).find((r) => r);
  for (const type of ['TextQuoteSelector', 'RangeSelector', 'FragmentSelector', 'TextPositionSelector']) {
    for (const selector of selectors) {
      const found = typeOf(selector) === type ? find(index, selector, hint) : undefined;
      if (found && found.end > found.start) return describe(index, found);
    }
  }
  const known = selectors.map(typeOf).filter((type) => TYPES.has(type));
  throw new SelectorError(
    known.length
      ? 'None of the selectors leads to a passage of this text.'
      : `Selectors of type ${[...new Set(selectors.map(typeOf))].join(', ') || 'none'} are not understood; expected ${[...TYPES].join(', ')}.`,
  );
}

const TYPES = new Set(['TextQuoteSelector', 'TextPositionSelector', 'RangeSelector', 'FragmentSelector']);
const typeOf = (selector: unknown): string =>
  typeof selector === 'object' && selector !== null && 'type' in selector ? String(selector.type) : 'unknown';

interface Range {
  readonly start: number;
  readonly end: number;
}

function find(index: TextIndex, selector: unknown, hint?: Range): Range | undefined {
  try {
    switch (typeOf(selector)) {
      case 'TextQuoteSelector':
        return findQuote(index, quoteSchema.validateSync(selector, { strict: true }), hint);
      case 'TextPositionSelector':
        return findPosition(index, positionSchema.validateSync(selector, { strict: true }));
      case 'FragmentSelector':
        return findFragment(index, fragmentSchema.validateSync(selector, { strict: true }));
      case 'RangeSelector':
        return findRange(index, selector as { startSelector: unknown; endSelector: unknown });
      default:
        return undefined;
    }
  } catch (error) {
    if (error instanceof ValidationError)
      throw new SelectorError(`The ${typeOf(selector)} is malformed: ${error.message}.`);
    throw error;
  }
}

function findQuote(
  index: TextIndex,
  { exact, prefix = '', suffix = '' }: { exact: string; prefix?: string | undefined; suffix?: string | undefined },
  hint?: Range,
): Range | undefined {
  const start = hint?.start ?? 0;
  const [found] = locateAll(index, [
    { quote: { exact, prefix, suffix }, position: { start, end: start + exact.length } },
  ]);
  if (found && found.state !== 'lost') return found;
  const at = index.text.indexOf(exact);
  return at >= 0 && (hint || index.text.indexOf(exact, at + 1) < 0) ? { start: at, end: at + exact.length } : undefined;
}

function findPosition(index: TextIndex, { start, end }: Range): Range | undefined {
  const from = offsetOf(index, start);
  const until = offsetOf(index, end);
  return from !== undefined && until !== undefined && until >= from ? { start: from, end: until } : undefined;
}

function findFragment(index: TextIndex, { value }: { value: string }): Range | undefined {
  const position = /^char=(\d+),(\d+)/.exec(value);
  if (position) return findPosition(index, { start: Number(position[1]), end: Number(position[2]) });
  const directive = parseTextDirective(value.replace(/^#?:~:/, '').replace(/^text=/, ''));
  return value.includes('text=') && directive ? findDirective(index, directive) : undefined;
}

/** From the beginning of the one to the beginning of the other (4.2.9: the end selector's own words are not part of it). */
function findRange(
  index: TextIndex,
  { startSelector, endSelector }: { startSelector: unknown; endSelector: unknown },
): Range | undefined {
  const start = find(index, startSelector)?.start;
  const end = find(index, endSelector)?.start;
  return start !== undefined && end !== undefined ? { start, end } : undefined;
}
