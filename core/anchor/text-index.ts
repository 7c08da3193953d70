import type { Outline } from '../text/stream';
import { foldText, type Folded } from './fold';
import { gramLength, indexGrams, type GramIndex } from './gram-index';

/** A text made ready for describing and locating many anchors. Build it once per version. */
export interface TextIndex {
  readonly text: string;
  readonly outline: Outline;
  readonly folded: Folded;
  readonly grams: GramIndex;
  /** For words shorter than `grams.k`; made when first needed. */
  readonly shortGrams: () => GramIndex;
  /** Offsets of the second units of characters that have two; made when first needed. */
  readonly pairs: () => Int32Array;
}

const SHORT = 2;

/** Time and memory grow with the text alone: some 15 bytes per unit. */
export function indexText(text: string, outline: Outline = []): TextIndex {
  const folded = foldText(text);
  let short: GramIndex | undefined;
  let pairs: Int32Array | undefined;
  return {
    text,
    outline,
    folded,
    grams: indexGrams(folded.units, gramLength(folded.units)),
    shortGrams: () => (short ??= indexGrams(folded.units, SHORT)),
    pairs: () =>
      (pairs ??= Int32Array.from(text.matchAll(/[\ud800-\udbff][\udc00-\udfff]/g), (found) => found.index + 1)),
  };
}
