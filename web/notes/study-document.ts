import type { JSONContent } from '@tiptap/core';
import type { Node } from '@tiptap/pm/model';
import { chunksOf, remembering } from '@avrelle/core/study';
import { fromMarkdown, toMarkdown } from '../note/note-document';

/** What is remembered of the stretches of notes: more than a long one has. */
const MOST = 4_000;
const blocksIn = remembering(MOST, (text: string) => fromMarkdown(text, { excerpts: true }).content ?? []);

/** A study note as a document of the editor. Of a long one only what is new is read. */
export function fromStudyMarkdown(markdown: string): JSONContent {
  const content = chunksOf(markdown).flatMap(({ text }) => (text.trim() === '' ? [] : blocksIn(text)));
  return { type: 'doc', content: content.length > 0 ? content : [{ type: 'paragraph' }] };
}

/** Blocks of the editor do not change: another one comes in their place. */
const written = new WeakMap<Node, string>();
/** What is written the same whatever stands beside it. */
const ALONE: ReadonlySet<string> = new Set(['paragraph', 'heading', 'excerpt', 'codeBlock', 'formulaBlock']);

/** A document of the editor as Markdown. Of a long one only what is new is written. */
export function toStudyMarkdown(doc: Node): string {
  const parts: string[] = [];
  let together: Node[] = [];
  const flush = (): void => {
    if (together.length > 0) parts.push(write(together));
    together = [];
  };
  doc.forEach((block) => {
    if (!ALONE.has(block.type.name)) return void together.push(block);
    const text = written.get(block) ?? write([block]);
    written.set(block, text);
    // What is empty parts nothing.
    if (text === '') return;
    flush();
    parts.push(text);
  });
  flush();
  return parts.filter(Boolean).join('\n\n');
}

const write = (blocks: readonly Node[]): string =>
  toMarkdown({ type: 'doc', content: blocks.map((block) => block.toJSON() as JSONContent) });
