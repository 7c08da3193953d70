import type { SourceId, VersionId } from '@avrelle/core/wire';
import type { Api, SentQueryOf } from '@avrelle/core/api';

export type SourcesAsked = SentQueryOf<Api['GET /api/sources']>;
export type AnnotationsAsked = SentQueryOf<Api['GET /api/annotations']>;

/** By which answers are known again. */
export const keys = {
  welcome: ['welcome'] as const,
  sessions: ['account', 'sessions'] as const,
  tokens: ['account', 'tokens'] as const,
  people: ['people'] as const,
  calendar: ['account', 'calendar'] as const,
  /** Everything that lists sources. */
  library: ['library'] as const,
  outline: ['library', 'outline'] as const,
  sources: (asked: SourcesAsked) => ['library', 'sources', asked] as const,
  deleted: ['library', 'deleted'] as const,
  collection: (id: string) => ['library', 'collection', id] as const,
  found: (asked: AnnotationsAsked) => ['found', asked] as const,
  /** Of a version by its number; the newest without. */
  source: (id: string, version?: number) =>
    version === undefined ? (['source', id] as const) : (['source', id, version] as const),
  versions: (id: string) => ['versions', id] as const,
  changes: (id: string, from: string, to: string) => ['changes', id, from, to] as const,
  text: (id: string, versionId: VersionId) => ['text', id, versionId] as const,
  annotations: (sourceId: SourceId, version?: number) =>
    version === undefined ? (['annotations', sourceId] as const) : (['annotations', sourceId, version] as const),
  legends: ['legends'] as const,
  classes: ['classes'] as const,
  class: (id: string) => ['classes', id] as const,
  /** What is set for me, as lists of it show. */
  assignments: ['assignments'] as const,
  myAssignments: ['assignments', 'mine'] as const,
  classAssignments: (id: string) => ['assignments', 'class', id] as const,
  assignment: (id: string, sourceId: SourceId) => ['assignments', 'class', id, sourceId] as const,
  /** What is set for me on a source that I read; what I have done of it is counted there. */
  setHere: (sourceId: SourceId) => ['set-here', sourceId] as const,
  /** Threads of a class, as they are asked for. */
  threads: (id: string, asked: object) => ['threads', id, asked] as const,
  reports: (id: string) => ['threads', id, 'reports'] as const,
  /** Questions that are asked: on a source, in a class, and who answered what. */
  questions: ['questions'] as const,
  questionsOn: (sourceId: SourceId) => ['questions', 'source', sourceId] as const,
  classQuestions: (id: string) => ['questions', 'class', id] as const,
  responses: (id: string, annotationId: string) => ['questions', 'class', id, annotationId] as const,
  walkthroughs: (id: string) => ['walkthroughs', id] as const,
  walkthrough: (id: string, walkthroughId: string) => ['walkthroughs', id, 'one', walkthroughId] as const,
  /** On a source, which annotations have my star. */
  stars: (sourceId: SourceId) => ['walkthroughs', 'stars', sourceId] as const,
  starred: (id: string) => ['walkthroughs', id, 'starred'] as const,
  /** Study notes: their list; one of them; that of a source; what could be put into one. */
  study: ['study'] as const,
  studyNotes: ['study', 'list'] as const,
  openNotes: ['study', 'note'] as const,
  studyNote: (id: string) => ['study', 'note', id] as const,
  sourceNote: (sourceId: SourceId) => ['study', 'source', sourceId] as const,
  candidatesOf: (id: string) => ['study', 'candidates', id] as const,
  candidates: (id: string, q: string) => ['study', 'candidates', id, q] as const,
  /** Cards: what is to be practised, lists of them, how it went. */
  review: ['review'] as const,
  due: (chosen: object) => ['review', 'due', chosen] as const,
  cards: (asked: object) => ['review', 'cards', asked] as const,
  card: (id: string) => ['review', 'card', id] as const,
  classCards: (classId: string) => ['review', 'class', classId] as const,
  namedAnswers: (classId: string, cardId: string) => ['review', 'class', classId, cardId] as const,
  reviewStatistics: ['review', 'statistics'] as const,
  reviewWish: ['review', 'wish'] as const,
  passage: (annotationId: string) => ['review', 'passage', annotationId] as const,
  /** What is shown to my classes now. */
  live: ['live'] as const,
  held: (id: string) => ['classes', id, 'held'] as const,
  joining: (id: string) => ['classes', id, 'joining'] as const,
  invitation: (link: string) => ['classes', 'invitation', link] as const,
  myRequests: ['classes', 'requests'] as const,
  deletedClasses: ['classes', 'deleted'] as const,
  tags: ['tags'] as const,
  tints: ['tags', 'tints'] as const,
  readers: (sourceId: SourceId) => ['readers', sourceId] as const,
  topic: (tag: string) => ['topics', tag] as const,
  leading: (to: string) => ['topics', 'leading', to] as const,
  links: (to: string) => ['links', to] as const,
  desk: ['desk'] as const,
  notifications: ['notifications'] as const,
  follows: ['follows'] as const,
  jobs: ['jobs'] as const,
  arrivals: ['arrivals'] as const,
  lists: ['lists'] as const,
  feeds: ['feeds'] as const,
  intake: ['intake'] as const,
  draft: (id: string) => ['draft', id] as const,
};
