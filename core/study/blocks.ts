import { parseMarkdown } from '../markdown/parse';
import { excerptIn } from './excerpt';

/** A part of a note that stands by itself: a paragraph, a heading, a list, an excerpt, the front matter of a file. */
export interface NoteBlock {
  /** Its Markdown, without the empty lines around it. */
  readonly text: string;
  /** What parts it from the next: line ends, of the last one those at the end of the file. */
  readonly after: string;
  /** Of an excerpt, the annotation it is of. */
  readonly annotationId?: string;
}

const FRONT_MATTER = /^---\n(?:[^\n]*\n)*?---(?=\n|$)/;

/** A note as its blocks, in order: one after the other, each with what comes after it, they are the note again. */
export function blocksOf(markdown: string): readonly NoteBlock[] {
  const note = markdown.replace(/\r\n?/g, '\n');
  const front = FRONT_MATTER.exec(note)?.[0] ?? '';
  const body = note.slice(front.length);
  const bounds = parseMarkdown(body).children.map((node) => ({
    node,
    // Whole lines: what stands before a list on its line says how deep its items are.
    start: front.length + body.lastIndexOf('\n', (node.position?.start.offset ?? 0) - 1) + 1,
  }));
  const starts = [...(front ? [0] : []), ...bounds.map(({ start }) => start)];
  return starts.map((start, n): NoteBlock => {
    const whole = note.slice(n === 0 ? 0 : start, starts[n + 1] ?? note.length);
    const text = whole.replace(/\s*$/, '');
    const excerpt = excerptIn(bounds[front ? n - 1 : n]?.node);
    const after = whole.slice(text.length);
    return excerpt ? { text, after, annotationId: excerpt.annotationId } : { text, after };
  });
}

/** Blocks as one note. */
export const joinBlocks = (blocks: readonly NoteBlock[]): string =>
  blocks.map(({ text, after }) => text + after).join('');
