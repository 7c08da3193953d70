import { diffComm } from 'node-diff3';
import type { NoteBlock } from './blocks';

/** Of the words of two blocks, the share that both have from which on one is taken for the other, rewritten. */
const ALIKE = 0.5;

/**
 * Which block of a note became which of another: the same words in the same order first, then the same annotation, the
 * same words elsewhere, and between two that stand, what is like it. Numbers of blocks; what is not among them was
 * deleted, or added.
 */
export function alignBlocks(base: readonly NoteBlock[], other: readonly NoteBlock[]): ReadonlyMap<number, number> {
  const found = inOrder(base, other);
  byName(base, other, found, (block) => block.annotationId);
  byName(base, other, found, (block) => block.text);
  byLikeness(base, other, found);
  return found;
}

function inOrder(base: readonly NoteBlock[], other: readonly NoteBlock[]): Map<number, number> {
  const found = new Map<number, number>();
  let [a, b] = [0, 0];
  for (const part of diffComm(base.map(textOf), other.map(textOf))) {
    if (part.common) for (let n = 0; n < part.common.length; n++) found.set(a++, b++);
    else [a, b] = [a + part.buffer1.length, b + part.buffer2.length];
  }
  return found;
}

const textOf = (block: NoteBlock): string => block.text;

/** Those left over whose name is the same. */
function byName(
  base: readonly NoteBlock[],
  other: readonly NoteBlock[],
  found: Map<number, number>,
  name: (block: NoteBlock) => string | undefined,
): void {
  const taken = new Set(found.values());
  const free = new Map<string, number[]>();
  other.forEach((block, n) => {
    const key = name(block);
    if (key !== undefined && !taken.has(n)) free.set(key, [...(free.get(key) ?? []), n]);
  });
  base.forEach((block, n) => {
    const to = found.has(n) ? undefined : free.get(name(block) ?? '')?.shift();
    if (to !== undefined) found.set(n, to);
  });
}

/** Rewritten ones, each looked for between what stands before and after it. */
function byLikeness(base: readonly NoteBlock[], other: readonly NoteBlock[], found: Map<number, number>): void {
  const taken = new Set(found.values());
  let from = 0;
  base.forEach((block, n) => {
    const there = found.get(n);
    if (there !== undefined) {
      if (there >= from) from = there + 1;
      return;
    }
    if (block.annotationId !== undefined) return;
    const to = mostAlike(block, other, { from, taken });
    if (to === undefined) return;
    found.set(n, to);
    taken.add(to);
    from = to + 1;
  });
}

/** Among those up to the next that is known. */
function mostAlike(
  block: NoteBlock,
  other: readonly NoteBlock[],
  { from, taken }: { readonly from: number; readonly taken: ReadonlySet<number> },
): number | undefined {
  let best: number | undefined;
  let most = ALIKE;
  for (let n = from; n < other.length && !taken.has(n); n++) {
    const share = other[n]!.annotationId === undefined ? likeness(block.text, other[n]!.text) : 0;
    if (share >= most && (best === undefined || share > most)) [best, most] = [n, share];
  }
  return best;
}

/** The share of words that two texts have in common (Dice's coefficient on their words, counted). */
export function likeness(a: string, b: string): number {
  const one = wordsOf(a);
  const two = wordsOf(b);
  const left = new Map<string, number>();
  for (const word of one) left.set(word, (left.get(word) ?? 0) + 1);
  let common = 0;
  for (const word of two) {
    const n = left.get(word) ?? 0;
    if (n > 0) common++;
    left.set(word, n - 1);
  }
  return one.length + two.length === 0 ? 0 : (2 * common) / (one.length + two.length);
}

const wordsOf = (text: string): readonly string[] => text.toLowerCase().match(/[\p{L}\p{M}\p{N}]+/gu) ?? [];
