import type { QueryClient, QueryKey } from '@tanstack/react-query';
import { keys } from './keys';

/** What a change of something makes stale: every answer whose key begins so. `id` is the source or collection it is about. */
const STALE = {
  /** Sources of mine, how they are ordered, and what is said of them. */
  library: () => [keys.library, ['source'], keys.desk, keys.tints],
  /** The same, and which class reads them. */
  sources: () => [keys.library, ['source'], keys.classes],
  collection: (id: string) => [keys.collection(id)],
  outline: () => [keys.outline],
  /** One source and its versions. */
  source: (id: string) => [keys.source(id), keys.annotations(id), keys.versions(id), keys.library],
  annotations: (id: string) => [keys.annotations(id)],
  /** Many annotations, of many sources. */
  marks: () => [['found'], ['annotations'], keys.library],
  kinds: () => [keys.legends, ['annotations'], keys.library, ['found']],
  /** Which classes there are and who is in them: by them goes what one sees. */
  classes: () => [
    keys.classes,
    keys.assignments,
    ['threads'],
    keys.questions,
    ['set-here'],
    keys.legends,
    keys.library,
    ['source'],
    ['annotations'],
    keys.desk,
  ],
  /** What is asked, what was answered, and what of it is left to do. */
  questions: () => [keys.questions, keys.assignments, ['set-here'], keys.desk],
  walkthroughs: () => [['walkthroughs']],
  study: () => [keys.study],
  review: () => [keys.review, keys.desk],
  live: () => [keys.live],
  requests: () => [keys.myRequests],
  /** How far people are with what is set, and what they say. */
  assignments: () => [keys.assignments, ['threads']],
  /** What of a discussion is read, starred or reported. */
  threads: () => [['threads'], ['walkthroughs']],
  tags: () => [keys.library, keys.tags, keys.tints, ['topics'], ['source'], ['annotations'], ['found']],
  tints: () => [keys.tints],
  links: () => [['links']],
  /** What is new, what I follow, and of what I want to hear. */
  desk: () => [keys.desk, keys.follows, keys.notifications],
  notifications: () => [keys.notifications, keys.desk],
  arrivals: () => [keys.arrivals, keys.feeds, keys.lists],
  jobs: () => [keys.jobs],
  welcome: () => [keys.welcome],
  sessions: () => [keys.sessions],
  tokens: () => [keys.tokens],
  people: () => [keys.people],
  calendar: () => [keys.calendar],
} satisfies Readonly<Record<string, (id: string) => readonly QueryKey[]>>;

export type Change = keyof typeof STALE;

/** Asks anew for what a change made stale, where it is shown; resolves when that has come. */
export const renew = async (client: QueryClient, change: Change, id = ''): Promise<void> => {
  await Promise.all(STALE[change](id).map((queryKey) => client.invalidateQueries({ queryKey })));
};
