/** What somebody can be to a thing, the least first. Each includes those before it. */
export const STANDINGS = {
  source: ['reader', 'owner'],
  'deleted source': ['owner'],
  version: ['reader'],
  collection: ['reader', 'contributor', 'owner'],
  'saved search': ['reader', 'owner'],
  class: ['student', 'assistant', 'teacher'],
  'deleted class': ['teacher'],
  /** The kinds of marks of a person or a class. */
  kinds: ['reader', 'owner'],
  job: ['owner'],
  draft: ['owner'],
  feed: ['owner'],
  list: ['owner'],
  'study note': ['owner'],
  'deleted study note': ['owner'],
  /** Who has it to practise, and whose it is. */
  card: ['learner', 'owner'],
  'deleted card': ['owner'],
} as const;

export type Thing = keyof typeof STANDINGS;
export type Standing<T extends Thing = Thing> = (typeof STANDINGS)[T][number];

/** What the asker of an endpoint has to be to the thing that its `:id` names. */
export type Permission = {
  readonly [T in Thing]: {
    readonly thing: T;
    readonly as: Standing<T>;
    /** What it is for, as in “ask a teacher to change it”; told to members of a class who may not. */
    readonly to?: string;
  };
}[Thing];

/** Of a class: who is in it, who helps to teach it, who teaches it. */
export const asMember = { thing: 'class', as: 'student' } as const;
export const asAssistant = (to: string) => ({ thing: 'class', as: 'assistant', to }) as const;
export const asTeacher = (to: string) => ({ thing: 'class', as: 'teacher', to }) as const;
