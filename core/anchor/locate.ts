import type { Anchor, Located } from './anchor';

/** A text made ready for locating many anchors. */
export interface LocateIndex {
  readonly text: string;
}

export const indexText = (text: string): LocateIndex => ({ text });

const LOST: Located = { state: 'lost', confidence: 0, candidates: [] };
/** Occurrences looked at for one quotation; a text that repeats it more often is told apart by context alone. */
const MOST_OCCURRENCES = 200;

/** Locates every anchor, in order: at its own position, else where the same words stand in the most similar surroundings. */
export function locateAll(index: LocateIndex, anchors: readonly Anchor[]): readonly Located[] {
  return anchors.map((anchor) => locate(index.text, anchor));
}

function locate(text: string, anchor: Anchor): Located {
  const { exact } = anchor.quote, { start, end } = anchor.position;
  if (!exact) return LOST;
  if (text.slice(start, end) === exact && contextScore(text, anchor, start) === 1) return { state: 'exact', start, end, confidence: 1 };
  const found = occurrences(text, exact);
  if (found.length === 0) return LOST;
  const ranked = found.map((at) => ({ at, score: contextScore(text, anchor, at) })).sort((a, b) => b.score - a.score || Math.abs(a.at - start) - Math.abs(b.at - start));
  return judge(ranked, exact.length, start);
}

function judge(ranked: readonly { at: number; score: number }[], length: number, was: number): Located {
  const [best, second] = ranked;
  const clear = !second || best!.score - second.score >= 0.25;
  if (!clear && best!.score < 0.5) return { state: 'lost', confidence: 0, candidates: ranked.slice(0, 5).map(({ at }) => ({ start: at, end: at + length })) };
  const confidence = clear ? 0.5 + best!.score / 2 : 0.3 + best!.score / 2;
  return { state: best!.at === was ? 'exact' : 'shifted', start: best!.at, end: best!.at + length, confidence: Math.min(1, confidence) };
}

function occurrences(text: string, exact: string): number[] {
  const found: number[] = [];
  for (let at = text.indexOf(exact); at >= 0 && found.length < MOST_OCCURRENCES; at = text.indexOf(exact, at + 1)) found.push(at);
  return found;
}

/** Share of the kept context that still stands around `at`, 0 to 1, counted outwards from the quotation. */
function contextScore(text: string, { quote }: Anchor, at: number): number {
  const total = quote.prefix.length + quote.suffix.length;
  if (total === 0) return 1;
  let same = 0;
  while (same < quote.prefix.length && text[at - 1 - same] === quote.prefix[quote.prefix.length - 1 - same]) same++;
  const after = at + quote.exact.length;
  let behind = 0;
  while (behind < quote.suffix.length && text[after + behind] === quote.suffix[behind]) behind++;
  return (same + behind) / total;
}
