import type { Annotation, AnnotationPut, AnnotationId, PersonId, SourceId, VersionId } from '@avrelle/core/wire';
import type { Fields } from '../fields';

/** A change of one annotation: the version it was begun on, and what its fields were there. */
export interface AnnotationChange {
  readonly id: string;
  readonly version: number;
  readonly fields: Fields;
  readonly before: Fields;
}

/** What somebody wrote, as it waits to be sent. Sent twice it changes nothing more. */
export type Write =
  | { readonly type: 'create'; readonly id: string; readonly put: AnnotationPut }
  | {
      readonly type: 'reply';
      readonly id: string;
      readonly parentId: string;
      readonly rootId: AnnotationId;
      readonly note: string;
    }
  | { readonly type: 'change'; readonly changes: readonly AnnotationChange[] }
  | {
      readonly type: 'place';
      readonly id: string;
      readonly versionId: VersionId;
      readonly place: { readonly start: number; readonly end: number } | null;
    };

export interface Entry {
  /** Its place in the queue; given by the store. */
  readonly seq: number;
  readonly key: string;
  readonly personId: PersonId;
  readonly sourceId: SourceId;
  /** The window it was written in. */
  readonly tab: string;
  readonly write: Write;
}

export const idsOf = (write: Write): readonly string[] =>
  write.type === 'change' ? write.changes.map((c) => c.id) : [write.id];

/** Asks the server; gives the annotations as they stand after it. */
export type Send = (write: Write) => Promise<readonly Annotation[]>;
