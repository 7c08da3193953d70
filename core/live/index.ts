/** A page that is shown to a class live: what stands after each message, the same on the server and on every screen. */
export { begun, changed, heard, MOST_STROKES, NOTHING_SHOWN, samePlace, toSayAgain, withStroke } from './live';
export type { Numbered, Shown } from './live';
export { readLiveMessage } from './read-message';
