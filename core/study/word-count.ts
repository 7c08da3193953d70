import { parseMarkdown } from '../markdown/parse';
import { plainWords } from '../markdown/plain-words';
import { excerptIn } from './excerpt';

const WORD = /[\p{L}\p{N}][\p{L}\p{M}\p{N}'’-]*/gu;

/** How many words of a note are one's own: not those of its excerpts, where they stand by themselves. */
export function wordCount(note: string): number {
  const own = parseMarkdown(note).children.flatMap((block) => {
    const { start, end } = block.position ?? {};
    return excerptIn(block) ? [] : [note.slice(start?.offset, end?.offset)];
  });
  return plainWords(own.join('\n\n')).match(WORD)?.length ?? 0;
}
