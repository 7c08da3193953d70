import { placeName } from '../text/locator';
import type { Outline } from '../text/stream';

/** What a short reference is made of; names parted by `; `, a date as RFC 3339 or only its year. */
export interface Referred {
  readonly title: string;
  readonly author: string;
  readonly publishedAt: string | null;
}

const SHORT_TITLE = 40;

/** Who and when, as in “Farrant 2026”, “Farrant and Oake 2026”; by its title where nobody is named. */
export function shortReference({ title, author, publishedAt }: Referred): string {
  const names = author
    .split(/\s*;\s*/)
    .filter(Boolean)
    .map(surname);
  const who = names.length > 2 ? `${names[0]} and others` : names.join(' and ');
  return [who || shortened(title), publishedAt?.slice(0, 4)].filter(Boolean).join(' ');
}

/** “Farrant, Oona” and “Oona Farrant” are both Farrant; a name of one word is that word. */
const surname = (name: string): string => (name.includes(',') ? name.split(',')[0]! : name.split(/\s+/).at(-1)!).trim();

function shortened(title: string): string {
  if (title.length <= SHORT_TITLE) return title;
  const cut = title.slice(0, SHORT_TITLE);
  return `${cut.slice(0, Math.max(cut.lastIndexOf(' '), 1)).replace(/[\s,;:.–-]+$/, '')}…`;
}

/**
 * Where in its source a passage begins: the page as it is printed, the time of a recording, or the paragraph, counted
 * in the main text; in a book in its chapter. `start` is an offset in the stream.
 */
export function placeIn(outline: Outline, start: number): string {
  const at = outline.findLastIndex((block) => block.start <= start);
  const block = outline[at];
  if (!block) return '';
  const named = placeName(block.locator);
  if (named) return named;
  if (block.aside) return '';
  const file = block.locator && 'file' in block.locator ? block.locator.file : undefined;
  const before = outline.slice(0, at + 1).filter((b) => !b.aside && (file === undefined || isIn(b.locator, file)));
  const number = Math.max(1, before.filter((b) => b.role !== 'heading').length);
  return `¶ ${number}`;
}

const isIn = (locator: Outline[number]['locator'], file: string): boolean =>
  locator !== undefined && 'file' in locator && locator.file === file;
