/**
 * An annotation's place as plain data. Its parts are those of the W3C Web Annotation Data Model (4.2.4 Text Quote
 * Selector, 4.2.5 Text Position Selector); offsets are UTF-16 units in the version's text stream, half-open.
 */
export interface Anchor {
  readonly quote: { readonly exact: string; readonly prefix: string; readonly suffix: string };
  readonly position: { readonly start: number; readonly end: number };
  /** Address of the enclosing block in the snapshot (child indices), where there is one. */
  readonly block?: string;
}

/** What became of an anchor in a text. Wrong is worse than lost: in doubt there is no range, only candidates. */
export type Located =
  | { readonly state: 'exact' | 'shifted' | 'edited'; readonly start: number; readonly end: number; readonly confidence: number }
  | { readonly state: 'lost'; readonly confidence: 0; readonly candidates: readonly { readonly start: number; readonly end: number }[] };
