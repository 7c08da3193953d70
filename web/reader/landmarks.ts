/** Ids of what skip links of the reading view lead to. */
export const READER_TEXT = 'reader-text';
export const READER_NOTES = 'reader-notes';
