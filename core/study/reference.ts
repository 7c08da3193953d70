import { lowerBound } from '../anchor/lower-bound';
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
 * Where in its source passages begin: the page as it is printed, the time of a recording, or the paragraph, counted in
 * the main text; in a book in its chapter. What is asked for is an offset in the stream.
 */
export function placesIn(outline: Outline): (start: number) => string {
  const starts = Int32Array.from(outline, (block) => block.start);
  const names = namesOf(outline);
  return (start) => names[lowerBound(starts, 0, starts.length, start + 1) - 1] ?? '';
}

function namesOf(outline: Outline): readonly string[] {
  let chapter: string | undefined;
  let paragraphs = 0;
  return outline.map(({ role, aside, locator }) => {
    const file = locator && 'file' in locator ? locator.file : undefined;
    if (file !== chapter) paragraphs = 0;
    chapter = file;
    if (!aside && role !== 'heading') paragraphs++;
    const named = placeName(locator);
    if (named || aside) return named;
    return `¶ ${Math.max(1, paragraphs)}`;
  });
}
