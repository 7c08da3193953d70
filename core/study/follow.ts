import type { Blockquote, Root } from 'mdast';
import { maxBy } from 'es-toolkit';
import { visit } from 'unist-util-visit';
import { parseMarkdown } from '../markdown/parse';
import { chunksOf, remembering } from './chunks';
import { excerptIn } from './excerpt';

/** An annotation as it would be written into a note now. */
export interface Current {
  readonly annotationId: string;
  /** The excerpt, as `writeExcerpt` gives it. */
  readonly text: string;
}

/** What is known of the excerpts of a note: of each that was ever in it, the fingerprint of what was written. */
export type Known = ReadonlyMap<string, string>;

/**
 * How an excerpt stands to its annotation: as it is now; touched, so that it was left as it is, while the annotation
 * changed; of an annotation that is no longer there.
 */
export const EXCERPT_STATES = ['follows', 'changed', 'deleted'] as const;
export type ExcerptState = (typeof EXCERPT_STATES)[number];

export interface Following {
  /** The annotations that belong here, in order of place, and others that stand here. */
  readonly current: readonly Current[];
  /** Of those, which come in by themselves when they are new. */
  readonly joins: ReadonlySet<string>;
  readonly known: Known;
  /** New ones stand at the end, not beside their neighbours. */
  readonly atEnd?: boolean;
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
export function follow(note: string, { current, joins, known, atEnd = false, fingerprint }: Following): Followed {
  const now = new Map(current.map((one) => [one.annotationId, one.text]));
  const after = new Map(known);
  const states = new Map<string, ExcerptState>();
  let markdown = note;
  // From the end: what stands before keeps its place.
  for (const excerpt of [...excerptsOf(note)].reverse()) {
    const { annotationId, text } = excerpt;
    const newer = now.get(annotationId);
    const { state, written } = standing(text, newer, known.get(annotationId), fingerprint);
    states.set(annotationId, state);
    after.set(annotationId, written);
    if (newer !== undefined && written === fingerprint(newer) && known.get(annotationId) === fingerprint(text))
      markdown = replaced(markdown, excerpt, newer);
  }
  const coming = current.filter((one) => joins.has(one.annotationId) && !after.has(one.annotationId));
  for (const { annotationId, text } of coming) {
    after.set(annotationId, fingerprint(text));
    states.set(annotationId, 'follows');
  }
  return {
    markdown: coming.length > 0 ? joined(markdown, coming, { current, atEnd }) : markdown,
    known: after,
    states,
  };
}

/** How an excerpt stands to its annotation, and what is known from now on to have been written of it. */
function standing(
  text: string,
  newer: string | undefined,
  written: string | undefined,
  fingerprint: Following['fingerprint'],
): { readonly state: ExcerptState; readonly written: string } {
  if (newer === undefined) return { state: 'deleted', written: written ?? '' };
  const untouched = newer === text || written === fingerprint(text);
  if (untouched || written === undefined || written === fingerprint(newer))
    return { state: 'follows', written: fingerprint(newer) };
  // Known stays what it was touched as, so that the change is told until it is settled.
  return { state: 'changed', written };
}

/** Every excerpt of a note, in order, also those in lists and quotations. */
export const excerptsOf = (note: string): readonly Found[] =>
  chunksOf(note)
    .filter(({ text }) => text.includes('avrelle:annotation/'))
    .flatMap(({ text, start: from }) =>
      excerptsIn(text).map((found) => ({ ...found, start: found.start + from, end: found.end + from })),
    );

const excerptsIn = remembering(2_000, (note: string): readonly Found[] => {
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
});

const replaced = (note: string, { start, end, before }: Found, text: string): string =>
  note.slice(0, start) + text.replaceAll('\n', `\n${before}`) + note.slice(end);

/** Each behind the nearest one before it in order of place that stands here; else before the first; else at the end. */
function joined(
  note: string,
  coming: readonly Current[],
  { current, atEnd }: { readonly current: readonly Current[]; readonly atEnd: boolean },
): string {
  const order = new Map(current.map(({ annotationId }, n) => [annotationId, n]));
  const standing = atEnd
    ? []
    : excerptsOf(note).filter(({ annotationId, before }) => before === '' && order.has(annotationId));
  const end = note.trimEnd().length;
  /** By where in the note they go. */
  const behind = new Map<number, string[]>();
  const before: string[] = [];
  for (const { annotationId, text } of coming) {
    const place = order.get(annotationId)!;
    const nearest = maxBy(
      standing.filter((one) => order.get(one.annotationId)! < place),
      (one) => order.get(one.annotationId)!,
    );
    if (!nearest && standing[0]) before.push(text);
    else behind.set(nearest?.end ?? end, [...(behind.get(nearest?.end ?? end) ?? []), text]);
  }
  const places: [at: number, text: string][] = [...behind].map(([at, texts]) => [
    at,
    `${at === 0 ? '' : BREAK}${texts.join(BREAK)}${at >= note.length ? '\n' : ''}`,
  ]);
  if (before.length > 0) places.push([standing[0]!.start, `${before.join(BREAK)}${BREAK}`]);
  places.sort(([a], [b]) => b - a);
  return places.reduce((words, [at, text]) => words.slice(0, at) + text + words.slice(at), note);
}

const BREAK = '\n\n';
