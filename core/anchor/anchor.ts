import type { Spot } from './spot';

/**
 * An annotation's place as plain data. `quote` and `position` are those of the W3C Web Annotation Data Model (4.2.4
 * Text Quote Selector, 4.2.5 Text Position Selector); offsets are UTF-16 units in the version's text stream, half-open.
 * What else is known of the place helps to find it again and may be missing, as from a file of another program.
 */
export interface Anchor {
  readonly quote: { readonly exact: string; readonly prefix: string; readonly suffix: string };
  readonly position: { readonly start: number; readonly end: number };
  /** Address of the enclosing block in the snapshot (child indices), where there is one. */
  readonly block?: string;
  /** The headings it stands under, outermost first. */
  readonly headings?: readonly string[];
  /** How many passages had these words, itself among them; many are not counted to the end. */
  readonly repeats?: number;
  /**
   * How like it the most similar other passage was: units of the folded quotation and its nearest context that agree.
   * A place that agrees no better may be that other passage.
   */
  readonly rival?: number;
  /** What is meant beside these words, where it is no words: an area, a pin, a moment. */
  readonly spot?: Spot;
}

export interface Candidate {
  readonly start: number;
  readonly end: number;
  /** Share of the quotation that stands there, 0 to 1. */
  readonly likeness: number;
}

/**
 * What became of an anchor in a text: `exact` the same words in the same place, `shifted` the same words elsewhere,
 * `edited` its words have changed. Wrong is worse than lost: in doubt there is no range. `confidence`, 0 to 1, is the
 * share of anchors judged alike that are right. Candidates, best first, where it is lost or in doubt.
 */
export type Located = Placed | Lost;

export interface Placed {
  readonly state: 'exact' | 'shifted' | 'edited';
  readonly start: number;
  readonly end: number;
  readonly confidence: number;
  readonly candidates: readonly Candidate[];
}

export interface Lost {
  readonly state: 'lost';
  readonly confidence: number;
  readonly candidates: readonly Candidate[];
}

/** Below this an annotation is shown as not sure. */
export const SURE = 0.9;
