import { plainWords } from '../markdown/plain-words';
import { chunksOf } from './chunks';
import { excerptsOf } from './follow';

const WORD = /[\p{L}\p{N}][\p{L}\p{M}\p{N}'’-]*/gu;

/** How many words of a note are one's own: not those of its excerpts. */
export function wordCount(note: string): number {
  let own = '';
  let at = 0;
  for (const { start, end } of excerptsOf(note)) {
    own += `${note.slice(at, start)}\n\n`;
    at = end;
  }
  return chunksOf(own + note.slice(at)).reduce((sum, { text }) => sum + (plainWords(text).match(WORD)?.length ?? 0), 0);
}
