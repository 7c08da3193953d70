/** A stretch of a note that can be read by itself, and where it begins. */
export interface Chunk {
  readonly text: string;
  readonly start: number;
}

/** Items of a list may be parted by empty lines. */
const ITEM = /^ {0,3}(?:[-*+]|\d{1,9}[.)])(?:\s|$)/;
const FENCE = /^ {0,3}(`{3,}|~{3,}|\$\$)/;

/**
 * A note in stretches that are parted by empty lines and begin at the margin, outside of code and formulas: what stands
 * in one of them means the same alone. Reading a long note again after a change then reads only what is new in it.
 */
export function chunksOf(note: string): readonly Chunk[] {
  const chunks: Chunk[] = [];
  let start = 0;
  let at = 0;
  let fence: string | undefined;
  let afterBlank = false;
  let holdsItem = false;
  for (const line of note.split('\n')) {
    const isItem = ITEM.test(line);
    if (afterBlank && !fence && /^\S/.test(line) && !(isItem && holdsItem) && at > start) {
      chunks.push({ text: note.slice(start, at), start });
      start = at;
      holdsItem = false;
    }
    holdsItem ||= isItem;
    fence = fenceAfter(line, fence);
    afterBlank = line.trim() === '';
    at += line.length + 1;
  }
  if (start < note.length) chunks.push({ text: note.slice(start), start });
  return chunks;
}

/** The sign by which what has begun ends; undefined outside. */
function fenceAfter(line: string, fence: string | undefined): string | undefined {
  const sign = FENCE.exec(line)?.[1];
  if (fence === undefined) return sign;
  return sign?.startsWith(fence) && line.trim() === sign ? undefined : fence;
}

/** Remembers what was made of the last texts. */
export function remembering<T>(most: number, make: (text: string) => T): (text: string) => T {
  const known = new Map<string, T>();
  return (text) => {
    const found = known.get(text);
    if (found !== undefined) return found;
    const made = make(text);
    known.set(text, made);
    if (known.size > most) known.delete(known.keys().next().value!);
    return made;
  };
}
