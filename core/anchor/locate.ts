import { alignTexts, type Alignment } from './alignment';
import { SURE, type Anchor, type Located } from './anchor';
import { candidatesFor } from './candidates';
import { confidenceOf, confidenceOfMoved, type Remembered } from './confidence';
import { evidenceFor, type Evidence } from './evidence';
import { layOut, type Quoted } from './former';
import { graphemeEnd, graphemeStart } from './grapheme';
import { occurrences } from './occurrences';
import type { TextIndex } from './text-index';

/** Below this an anchor is lost: a wrong place is worse than none. */
const LEAST_CONFIDENCE = 0.8;
/** A passage of which less than this share is left is gone, however well its surroundings stand. */
const LEAST_KEPT = 0.3;

type Remembering = Pick<Anchor, 'quote' | 'position' | 'repeats' | 'rival'>;

/**
 * Locates every anchor in the text, in order. The anchors are taken together: what they know of their former text is
 * aligned with this one at once, so that they must all come from one text. Linear in their words and contexts.
 */
export function locateAll(index: TextIndex, anchors: readonly Anchor[]): readonly Located[] {
  const stays = anchors.map((anchor) => inPlace(index.text, anchor));
  if (stays.every(Boolean)) return anchors.map((anchor) => unmoved(anchor));
  const alignment = alignTexts(layOut(anchors), index.grams);
  return anchors.map((anchor, n) => {
    if (stays[n] && anchor.repeats === 1) return unmoved(anchor);
    const found = judge(index, alignment, n, anchor);
    return found.state === 'lost' && stays[n] ? unmoved(anchor) : found;
  });
}

/** True where words and context stand at the anchor's own position, unit by unit. */
function inPlace(text: string, { quote: { exact, prefix, suffix }, position: { start } }: Anchor): boolean {
  return (
    exact !== '' &&
    text.startsWith(exact, start) &&
    text.startsWith(prefix, start - prefix.length) &&
    text.startsWith(suffix, start + exact.length)
  );
}

const unmoved = ({ quote, position: { start } }: Anchor): Located => ({
  state: 'exact',
  start,
  end: start + quote.exact.length,
  confidence: 1,
  candidates: [],
});

/** What became of quotation `n` of an alignment. */
export function judge(
  index: TextIndex,
  alignment: Alignment,
  n: number,
  { quote: { exact }, position: { start }, repeats, rival }: Remembering,
): Located {
  const quoted = alignment.former.quotes[n];
  if (!quoted) return { state: 'lost', confidence: 0, candidates: [] };
  const best = bestPlace(index, alignment, quoted, { of: repeats, rival });
  if (!best || best.confidence < LEAST_CONFIDENCE)
    return { state: 'lost', confidence: 0, candidates: candidatesFor(index, alignment, quoted, undefined) };
  const range = inText(index, best, exact);
  const same = range.end - range.start === exact.length && index.text.startsWith(exact, range.start);
  const unmoved = range.start === start ? 'exact' : 'shifted';
  const state = same ? unmoved : 'edited';
  const confidence = Math.round(best.confidence * 1000) / 1000;
  return {
    state,
    ...range,
    confidence,
    candidates: confidence < SURE ? candidatesFor(index, alignment, quoted, best) : [],
  };
}

interface Place {
  readonly begin: number;
  readonly end: number;
  readonly confidence: number;
}

/** Where the alignment puts it; or, if its words were and are the only ones of their kind, where they stand now. */
function bestPlace(index: TextIndex, alignment: Alignment, quoted: Quoted, remembered: Remembered): Place | undefined {
  const words = alignment.former.units.subarray(quoted.begin, quoted.end);
  const known = remembered.of === undefined ? guess(index, words) : remembered;
  const all = evidenceFor(alignment, quoted);
  const evidence = all && all.kept >= LEAST_KEPT ? all : undefined;
  const aligned = evidence && { begin: evidence.begin, end: evidence.end, confidence: confidenceOf(evidence, known) };
  if (known.of !== 1 || (evidence?.whole && aligned!.confidence >= SURE)) return aligned;
  return surer(onlyPlace(index, words), aligned, evidence?.whole === true);
}

/** The only place, the surer where both say the same; else what the alignment says. */
function surer(only: Place | undefined, aligned: Place | undefined, whole: boolean): Place | undefined {
  if (!only || !aligned) return only ?? aligned;
  return whole && aligned.begin === only.begin
    ? { ...only, confidence: Math.max(only.confidence, aligned.confidence) }
    : only;
}

/** Where words stand that are long enough to be looked for anywhere, if they stand once. */
function onlyPlace(index: TextIndex, words: Uint16Array): Place | undefined {
  const confidence = confidenceOfMoved(words.length);
  const found = confidence > 0 ? occurrences(index, words, 2) : [];
  return found.length === 1 ? { begin: found[0]!, end: found[0]! + words.length, confidence } : undefined;
}

/** For an anchor that remembers nothing: words that stand here several times may have been any of them. */
function guess(index: TextIndex, words: Uint16Array): Remembered {
  const several = occurrences(index, words, 2).length > 1;
  return { of: several ? 2 : 1, rival: several ? words.length : 0 };
}

/** Characters that folding drops before a quotation's first: it begins with them all the same. */
const MOST_DROPPED = 4;

/** The place in the text itself, in whole grapheme clusters. */
export function inText(
  { text, folded }: TextIndex,
  { begin, end }: Pick<Evidence, 'begin' | 'end'>,
  exact: string,
): { start: number; end: number } {
  const from = folded.from[begin]!;
  for (let back = 0; exact && back <= MOST_DROPPED; back++)
    if (text.startsWith(exact, from - back)) return { start: from - back, end: from - back + exact.length };
  const last = folded.from[end - 1]!;
  return {
    start: graphemeStart(text, from),
    end: graphemeEnd(text, last + (text.codePointAt(last)! > 0xffff ? 2 : 1)),
  };
}
