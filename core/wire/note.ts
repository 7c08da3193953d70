import type { AnnotationId, SourceId } from './ids';
import type { Kind } from '../legend/legend';

/** An annotation whose note leads to something. */
export interface Linked {
  readonly id: string;
  readonly sourceId: SourceId;
  readonly title: string;
  readonly author: string;
  readonly kind: Kind;
  readonly note: string;
  readonly rootId: AnnotationId | null;
}

/** By the SHA-256 of its bytes, hex. */
export interface StoredPicture {
  readonly hash: string;
}
