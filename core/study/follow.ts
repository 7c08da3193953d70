import type { Blockquote, Root } from 'mdast';
import { visit } from 'unist-util-visit';
import { parseMarkdown } from '../markdown/parse';
import { excerptIn } from './excerpt';

/** An annotation as it would be written into a note now. */
export interface Current {
  readonly annotationId: string;
  /** The excerpt, as `writeExcerpt` gives it. */
  readonly text: string;
}

/** What is known of the excerpts of a note: of each that was ever written into it, the fingerprint of what was written. */
export type Known = ReadonlyMap<string, string>;

/**
 * How an excerpt stands to its annotation: as it is now; touched, so that it was left as it is, while the annotation
 * changed; of an annotation that is no longer there.
 */
export type ExcerptState = 'follows' | 'changed' | 'deleted';

export interface Following {
  /** The annotations that belong here, in order of place, and others that stand here. */
  readonly current: readonly Current[];
  /** Of those, which come in by themselves when they are new. */
  readonly joins: ReadonlySet<string>;
  readonly known: Known;
  fingerprint(text: string): string;
}

export interface Followed {
  readonly markdown: string;
  readonly known: Known;
  /** Of each annotation that stands in the note. */
  readonly states: ReadonlyMap<string, ExcerptState>;
}

interface Found {
  readonly annotationId: string;
  /** In the note, from the sign of the quotation to its end. */
  readonly start: number;
  readonly end: number;
  readonly text: string;
  /** What stands before each of its lines but the first, where it is in a list or a quotation. */
  readonly before: string;
}

/**
 * A note brought up to what its annotations are: an excerpt that nobody touched is written anew where its annotation
 * changed; a new one joins behind the one before it in order of place; what was taken out of the note stays out. Words
 * of the person, and what they shortened, are never written over.
 */
export function follow(note: string, { current, joins, known, fingerprint }: Following): Followed {
  const now = new Map(current.map((one) => [one.annotationId, one.text]));
  const after = new Map(known);
  const states = new Map<string, ExcerptState>();
  const found = excerptsOf(note);
  let markdown = note;
  for (const excerpt of [...found].reverse()) {
    const { annotationId, text } = excerpt;
    const newer = now.get(annotationId);
    const written = known.get(annotationId);
    const untouched = written === fingerprint(text) || (written === undefined && newer === text);
    if (newer === undefined) states.set(annotationId, 'deleted');
    else if (untouched) {
      states.set(annotationId, 'follows');
      after.set(annotationId, fingerprint(newer));
      if (newer !== text) markdown = replaced(markdown, excerpt, newer);
    } else {
      // Known is what it was touched as, so that the change is told until it is settled.
      after.set(annotationId, written ?? fingerprint(newer));
      states.set(annotationId, after.get(annotationId) === fingerprint(newer) ? 'follows' : 'changed');
    }
  }
  for (const { annotationId } of found) after.set(annotationId, after.get(annotationId) ?? '');
  const coming = current.filter((one) => joins.has(one.annotationId) && !after.has(one.annotationId));
  for (const one of coming) {
    markdown = joined(markdown, one, current);
    after.set(one.annotationId, fingerprint(one.text));
    states.set(one.annotationId, 'follows');
  }
  return { markdown, known: after, states };
}

/** Every excerpt of a note, in order, also those in lists and quotations. */
export function excerptsOf(note: string): readonly Found[] {
  const root: Root = parseMarkdown(note);
  const found: Found[] = [];
  visit(root, 'blockquote', (node: Blockquote) => {
    const parts = excerptIn(node);
    const [from, to] = [node.position?.start.offset, node.position?.end.offset];
    if (!parts || from === undefined || to === undefined) return;
    const lineStart = note.lastIndexOf('\n', from - 1) + 1;
    const before = note.slice(lineStart, from).replace(/[^>\s]/g, ' ');
    const [first = '', ...lines] = note.slice(from, to).split('\n');
    const text = [first, ...lines.map((line) => line.slice(before.length))].map((line) => line.trimEnd()).join('\n');
    found.push({ annotationId: parts.annotationId, start: from, end: to, text, before });
  });
  return found;
}

const replaced = (note: string, { start, end, before }: Found, text: string): string =>
  note.slice(0, start) + text.replaceAll('\n', `\n${before}`) + note.slice(end);

/** Behind the nearest one before it in order of place that stands here; else before the first; else at the end. */
function joined(note: string, one: Current, current: readonly Current[]): string {
  const found = excerptsOf(note).filter(({ before }) => before === '');
  const order = new Map(current.map(({ annotationId }, n) => [annotationId, n]));
  const mine = order.get(one.annotationId)!;
  let behind: Found | undefined;
  let nearest = -1;
  for (const excerpt of found) {
    const place = order.get(excerpt.annotationId) ?? -1;
    if (place < mine && place > nearest) [behind, nearest] = [excerpt, place];
  }
  if (behind) return `${note.slice(0, behind.end)}\n\n${one.text}${note.slice(behind.end)}`;
  const first = found.find((excerpt) => order.has(excerpt.annotationId));
  if (first) return `${note.slice(0, first.start)}${one.text}\n\n${note.slice(first.start)}`;
  const words = note.trimEnd();
  return words === '' ? `${one.text}\n` : `${words}\n\n${one.text}\n`;
}
