import type { Kind } from '../legend/legend';
import type { AnnotationId, PersonId, SourceId } from './ids';

/** A note of a class as it stands in a list across its readings. */
export interface ClassNote {
  readonly id: AnnotationId;
  readonly source: { readonly id: SourceId; readonly title: string; readonly language: string };
  readonly author: { readonly id: PersonId; readonly name: string };
  readonly kind: Kind;
  readonly quote: string;
  /** The note without its Markdown; empty where its author took it back. */
  readonly words: string;
}
