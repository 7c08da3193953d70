import type { Kind } from '../key/key';
import type { SourceRow } from './source';

/** A piece of text with the words that were looked for marked. */
export type Snippet = readonly { readonly text: string; readonly hit: boolean }[];

export interface PassageHit {
  readonly sourceId: string;
  readonly title: string;
  readonly site: string;
  readonly snippet: Snippet;
  /** Where the first word found stands in the source's stream. */
  readonly start: number;
  readonly end: number;
}

export interface AnnotationHit {
  readonly sourceId: string;
  readonly title: string;
  readonly site: string;
  readonly annotationId: string;
  readonly kind: Kind;
  readonly author: string;
  readonly quote: Snippet;
  readonly note: Snippet;
  readonly tags: readonly string[];
}

/** The best of what was found, notes before bare highlights; `more…` says whether there are others. */
export interface FindResult {
  readonly query: string;
  readonly annotations: readonly AnnotationHit[];
  readonly passages: readonly PassageHit[];
  readonly moreAnnotations: boolean;
  readonly morePassages: boolean;
}

export interface DeskNotice {
  readonly id: string;
  readonly actor: string;
  readonly sourceId: string;
  readonly sourceTitle: string;
  readonly annotationId: string;
  readonly rootId: string;
  readonly quote: string;
  /** Whether it answers me, or means me by name. */
  readonly why: 'answer' | 'mention';
  readonly reply: string;
  readonly at: string;
  readonly seen: boolean;
}

export interface Desk {
  readonly notices: readonly DeskNotice[];
  readonly unseen: number;
  readonly reading: readonly SourceRow[];
  readonly fresh: readonly SourceRow[];
}
