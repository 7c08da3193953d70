import type { BlockRole } from './elements';
import type { Inline } from './inline';
import type { TextNodeLike } from './tree';

/** One block of a source, in document order; offsets are UTF-16 units in the stream, half-open. */
export interface Block {
  readonly start: number;
  readonly end: number;
  readonly role: BlockRole;
  /** 1 to 6 for a heading. */
  readonly level?: number;
  /** Child indices from the root to the block's element, elements only: its address within the snapshot. */
  readonly path: string;
  /** True where the block lies outside the main text (menus, advertisements, notices). */
  readonly aside?: boolean;
  readonly locator?: Locator;
}

export type Outline = readonly Block[];

/** Where in its own format a block stands: on a page, in a file of a book, at a time in seconds. */
export type Locator =
  | { readonly page: number; readonly label: string }
  | { readonly file: string }
  | { readonly from: number; readonly to: number };

/**
 * A stretch of a text node and the stretch of the stream it became. Where both have one length, units match one to
 * one; otherwise white space was folded (stream length 1) or an invisible character was dropped (stream length 0).
 */
export interface Run {
  readonly node: TextNodeLike;
  readonly nodeStart: number;
  readonly nodeEnd: number;
  readonly start: number;
  readonly end: number;
}

/** A source as one string, what its blocks are, and how to come back to the tree it was read from. */
export interface TextStream {
  readonly text: string;
  readonly outline: Outline;
  /** Links, emphasis, code and the like, in the order in which they begin. */
  readonly inlines: readonly Inline[];
  readonly runs: readonly Run[];
}
