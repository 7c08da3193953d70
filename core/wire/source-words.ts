// Apart from the schemas: pages that only show sources load no checking of them.

export const READING_STATES = ['to_read', 'reading', 'finished', 'set_aside'] as const;
export type ReadingState = (typeof READING_STATES)[number];
export const STATE_WORDS: Readonly<Record<ReadingState, string>> = {
  to_read: 'To read',
  reading: 'Reading',
  finished: 'Finished',
  set_aside: 'Set aside',
};

/** As the search language calls them after `is:`. */
export const STATE_NAMES: Readonly<Record<ReadingState, string>> = {
  to_read: 'to-read',
  reading: 'reading',
  finished: 'finished',
  set_aside: 'set-aside',
};

export const SOURCE_KINDS = [
  'page',
  'markdown',
  'text',
  'pdf',
  'book',
  'document',
  'table',
  'image',
  'audio',
  'video',
  'letter',
  'thread',
] as const;
export type SourceKind = (typeof SOURCE_KINDS)[number];
export const KIND_WORDS: Readonly<Record<SourceKind, string>> = {
  page: 'page',
  markdown: 'Markdown',
  text: 'plain text',
  pdf: 'PDF',
  book: 'book',
  document: 'document',
  table: 'table',
  image: 'picture',
  audio: 'recording',
  video: 'film',
  letter: 'letter',
  thread: 'thread',
};

/** How much of a page is kept. */
export const AMOUNTS = ['whole', 'main', 'passage', 'link', 'picture'] as const;
export type Amount = (typeof AMOUNTS)[number];
export const AMOUNT_WORDS: Readonly<Record<Amount, string>> = {
  whole: 'Whole page',
  main: 'Main text',
  passage: 'Passage',
  link: 'Link only',
  picture: 'Picture',
};

/** Widths a page can be kept for, in CSS pixels of its viewport (common practice). */
export const WIDTHS = { phone: 390, tablet: 820, desk: 1280 } as const;

/** A tag is one word of letters, digits, `-`, `_` and `/`, kept in lower case without its `#`. */
export const TAG = /^[\p{L}\p{M}\p{N}_/-]{1,60}$/u;
export const NO_TAG = 'A tag is one word of letters, digits, - _ and /, at most 60 characters: "${value}" is not.';
