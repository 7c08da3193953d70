import { string } from 'yup';

/** RFC 9562, version 7, lower case: made by the client, so that a repeated write changes nothing. */
export const UUID_V7 = /^[0-9a-f]{8}-[0-9a-f]{4}-7[0-9a-f]{3}-[89ab][0-9a-f]{3}-[0-9a-f]{12}$/;

export const idSchema = () => string().matches(UUID_V7, '${path} must be a version 7 UUID in lower case (RFC 9562)');

/**
 * A UUID of a thing of one kind. Any string may become one, as ids come from outside; one of another kind may not, so
 * that a class never stands where a source is meant.
 */
type Id<Kind extends string> = string & { readonly idOf?: Kind };

export type PersonId = Id<'person'>;
export type SourceId = Id<'source'>;
export type VersionId = Id<'version'>;
export type AnnotationId = Id<'annotation'>;
export type ClassId = Id<'class'>;
export type GroupId = Id<'group'>;
/** Whose Legend some kinds are. */
export type LegendOwnerId = Id<'person' | 'class'>;
export type CollectionId = Id<'collection'>;
export type JobId = Id<'job'>;
export type WalkthroughId = Id<'walkthrough'>;
export type StudyNoteId = Id<'study note'>;
export type CardId = Id<'card'>;
export type BatchId = Id<'batch'>;
export type FeedId = Id<'feed'>;
export type DraftId = Id<'draft'>;
