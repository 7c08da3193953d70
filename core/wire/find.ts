import type { AnnotationId, ClassId, GroupId, SourceId, PersonId } from './ids';
import type { Kind } from '../legend/legend';
import type { Marked } from '../query/mark-words';
import type { QuestionsLeft } from './question';
import type { ClassLabel, SourceRow } from './source';
import type { Noticed } from './notification';
import type { SourceKind } from './source-words';

/** Orders of a list of sources; `best` is by how well words fit, `touched` by what was last done with them. */
export const SOURCE_SORTS = [
  'best',
  'touched',
  'saved',
  'title',
  'author',
  'minutes',
  'longest',
  'progress',
  'marks',
] as const;
export type SourceSort = (typeof SOURCE_SORTS)[number];
export const ANNOTATION_SORTS = ['best', 'newest', 'oldest', 'place', 'author'] as const;
/** By what annotations in a list can be put together. */
export const ANNOTATION_GROUPINGS = ['source', 'tag', 'kind', 'day', 'person'] as const;
export type AnnotationGrouping = (typeof ANNOTATION_GROUPINGS)[number];
export type AnnotationSort = (typeof ANNOTATION_SORTS)[number];

/** The passage of a text in which words were found: around it, and where the first of them stands in the stream. */
export interface Passage {
  readonly snippet: Marked;
  readonly start: number;
  readonly end: number;
}

export interface FoundSource extends SourceRow {
  readonly passage?: Passage;
}

/** Some of the sources a query is met by; `total` counts all of them. */
export interface SourcePage {
  readonly sources: readonly FoundSource[];
  readonly total: number;
  /** Where nothing was found: the query with a word as it was probably meant. */
  readonly meant?: string;
}

/** An annotation in a list across sources. */
export interface AnnotationHit {
  readonly id: AnnotationId;
  readonly sourceId: SourceId;
  readonly title: string;
  readonly site: string;
  readonly sourceKind: SourceKind;
  readonly language: string;
  /** What is opened to see it: itself, or what it answers. */
  readonly openAt: string;
  readonly rootId: AnnotationId | null;
  readonly kind: Kind;
  readonly author: { readonly id: PersonId; readonly name: string };
  /** The words it is about, those looked for marked. */
  readonly quote: Marked;
  readonly note: Marked;
  readonly tags: readonly string[];
  readonly classIds: readonly ClassId[];
  /** Of these, it is for who teaches them alone; and whether it is held in one of them, told as in `Annotation`. */
  readonly teachersOnly?: true;
  /** The groups of its classes it is for alone. */
  readonly groupIds?: readonly GroupId[];
  readonly held?: true;
  readonly createdAt: string;
  readonly version: number;
  /** Key of the group it is listed in, where they are grouped. */
  readonly group?: string;
}

export interface AnnotationGroup {
  /** An id, a tag, a name of a kind, or a day as `YYYY-MM-DD`; empty for what bears no tag. */
  readonly key: string;
  /** Empty for days. */
  readonly name: string;
  /** How many it has in all. */
  readonly total: number;
}

export interface AnnotationPage {
  readonly annotations: readonly AnnotationHit[];
  /** How many annotations the query is met by. */
  readonly total: number;
  /** How many places the list has: one with several tags has one under each. */
  readonly listed: number;
  /** By what they are grouped; null for one list. */
  readonly by: AnnotationGrouping | null;
  /** The groups of these annotations, where they are grouped. */
  readonly groups: readonly AnnotationGroup[];
  readonly meant?: string;
}

export interface DeskNotice {
  readonly id: string;
  /** Whoever did it; the class where its time had come. */
  readonly actor: string;
  /** None where it is about a class alone. */
  readonly sourceId: SourceId | null;
  readonly sourceTitle: string;
  /** None where it is about no note. */
  readonly annotationId: AnnotationId | null;
  readonly rootId: AnnotationId | null;
  readonly quote: string;
  readonly why: Noticed;
  /** How many it is about. */
  readonly notes: number;
  /** Where it happened; of what is reported, in whose discussion it is settled. */
  readonly class?: ClassLabel;
  /** Its short form; of what was hidden or reported, why. */
  readonly reply: string;
  readonly at: string;
  readonly seen: boolean;
}

export interface Desk {
  /** Whether anything was ever kept. */
  readonly begun: boolean;
  readonly notices: readonly DeskNotice[];
  readonly unseen: number;
  /** How many cards are to be practised today. */
  readonly cards: number;
  /** Who waits to be let in to the classes I teach. */
  readonly asking: readonly { readonly class: ClassLabel; readonly people: number }[];
  /** Questions of my classes that I have not answered. */
  readonly questions: readonly QuestionsLeft[];
  readonly reading: readonly SourceRow[];
  readonly fresh: readonly SourceRow[];
  /** How many wait to be read. */
  readonly waiting: number;
  /** One that can be read in a spare moment; null where none is short enough. */
  readonly spare: SourceRow | null;
  /** What I marked on this day a while ago. */
  readonly past: { readonly ago: string; readonly annotations: readonly AnnotationHit[] } | null;
}
