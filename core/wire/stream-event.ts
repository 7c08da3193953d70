import type { AnnotationId, SourceId } from './ids';
import type { Annotation } from './annotation';
import type { Job } from './job';

/** Sent over the event stream; `gone` names what the viewer may see no longer. */
export type StreamEvent =
  | { readonly type: 'annotation'; readonly annotation: Annotation }
  | { readonly type: 'gone'; readonly annotationId: AnnotationId; readonly sourceId: SourceId }
  | { readonly type: 'source'; readonly sourceId: SourceId }
  | { readonly type: 'library' }
  | { readonly type: 'desk' }
  /** What of a discussion I have read or starred, or what is reported where I teach. */
  | { readonly type: 'threads' }
  /** What a class is asked, or what was answered. */
  | { readonly type: 'questions' }
  | { readonly type: 'walkthroughs' }
  /** Study notes of mine. */
  | { readonly type: 'study' }
  /** Cards of mine. */
  | { readonly type: 'review' }
  /** Something begins to be shown to a class, or ends. */
  | { readonly type: 'live' }
  | { readonly type: 'arrivals' }
  | { readonly type: 'classes' }
  | { readonly type: 'key' }
  | { readonly type: 'job'; readonly job: Job };
