import { diff3Merge } from 'node-diff3';
import { alignBlocks } from './align';
import { blocksOf, joinBlocks, type NoteBlock } from './blocks';

export interface Merged {
  readonly markdown: string;
  /** How many blocks stand twice, as both were changed and could not be joined. */
  readonly twice: number;
}

/** Before each of two versions of a block that could not be joined. */
export const TWICE_MINE = '*Changed in two places. In the first:*';
export const TWICE_THEIRS = '*And in the second:*';

/**
 * What came of a note in two places, as one note: by blocks, then by the words of a block that both changed. What is
 * added, moved or rewritten in one of them stands; a block that one deletes and the other rewrites is kept. Two ways of
 * rewriting the same words stand one after the other, marked. No word of `mine` or `theirs` that `base` does not have
 * is lost.
 */
export function merge(base: string, mine: string, theirs: string): Merged {
  if (mine === theirs || theirs === base) return counted(mine);
  if (mine === base) return counted(theirs);
  const sides: Sides = { base: blocksOf(base), mine: blocksOf(mine), theirs: blocksOf(theirs) };
  const inMine = alignBlocks(sides.base, sides.mine);
  const inTheirs = alignBlocks(sides.base, sides.theirs);
  const kept = keptBlocks(sides, inMine, inTheirs);
  const order = orderOf(sides, inMine, inTheirs, kept);
  const blocks = order.flatMap((place) => kept.get(place) ?? []);
  return counted(joinBlocks(parted(blocks, sides)));
}

const counted = (markdown: string): Merged => ({
  markdown,
  twice: markdown.split('\n').filter((line) => line === TWICE_MINE).length,
});

interface Sides {
  readonly base: readonly NoteBlock[];
  readonly mine: readonly NoteBlock[];
  readonly theirs: readonly NoteBlock[];
}

/** A block of `base` with what it is on both sides, or one that was added: `m3` is block 3 of `mine`. */
type Place = `b${number}` | `m${number}` | `t${number}`;

/** What stands at each place: nothing where it was deleted, three blocks where it stands twice. */
function keptBlocks(
  { base, mine, theirs }: Sides,
  inMine: ReadonlyMap<number, number>,
  inTheirs: ReadonlyMap<number, number>,
): ReadonlyMap<Place, readonly NoteBlock[]> {
  const kept = new Map<Place, readonly NoteBlock[]>();
  base.forEach((block, n) => kept.set(`b${n}`, fate(block, at(mine, inMine.get(n)), at(theirs, inTheirs.get(n)))));
  const added = (side: readonly NoteBlock[], known: ReadonlyMap<number, number>): number[] => {
    const old = new Set(known.values());
    return side.flatMap((_, n) => (old.has(n) ? [] : [n]));
  };
  const mineAdded = added(mine, inMine);
  for (const n of mineAdded) kept.set(`m${n}`, [mine[n]!]);
  const there = new Set(mineAdded.map((n) => mine[n]!.text));
  // What both added in the same words stands once.
  for (const n of added(theirs, inTheirs)) if (!there.has(theirs[n]!.text)) kept.set(`t${n}`, [theirs[n]!]);
  return kept;
}

const at = (blocks: readonly NoteBlock[], n: number | undefined): NoteBlock | undefined =>
  n === undefined ? undefined : blocks[n];

function fate(base: NoteBlock, mine: NoteBlock | undefined, theirs: NoteBlock | undefined): readonly NoteBlock[] {
  if (!mine || !theirs) {
    const left = mine ?? theirs;
    // Deleted in one of them: gone, but not what the other wrote into it.
    return left && left.text !== base.text ? [left] : [];
  }
  if (mine.text === theirs.text || theirs.text === base.text) return [mine];
  if (mine.text === base.text) return [theirs];
  const joined = joinWords(base.text, mine.text, theirs.text);
  if (joined !== undefined) return [{ ...mine, text: joined }];
  return [{ text: TWICE_MINE, after: BREAK }, mine, { text: TWICE_THEIRS, after: BREAK }, theirs];
}

const BREAK = '\n\n';

/** Words and what parts them; a line end stands for itself, so that tables and lists keep their lines. */
const wordsOf = (text: string): string[] => text.match(/\n|[^\S\n]+|[\p{L}\p{M}\p{N}]+|[^\s\p{L}\p{M}\p{N}]/gu) ?? [];

/** Both changes of a block in one; undefined where they meet. */
function joinWords(base: string, mine: string, theirs: string): string | undefined {
  const made: string[] = [];
  for (const part of diff3Merge(wordsOf(mine), wordsOf(base), wordsOf(theirs), { excludeFalseConflicts: true })) {
    if (!part.ok) return undefined;
    made.push(...part.ok);
  }
  return made.join('');
}

/** The order of mine, with what theirs moved or added put behind what it follows there. */
function orderOf(
  { mine, theirs }: Omit<Sides, 'base'>,
  inMine: ReadonlyMap<number, number>,
  inTheirs: ReadonlyMap<number, number>,
  kept: ReadonlyMap<Place, readonly NoteBlock[]>,
): readonly Place[] {
  const ofMine = placesOf(mine, inMine, 'm');
  const ofTheirs = placesOf(theirs, inTheirs, 't');
  const movedInMine = movedIn(ofMine);
  const moved = new Set([...movedIn(ofTheirs)].filter((place) => !movedInMine.has(place)));
  const order = ofMine.filter((place) => !moved.has(place));
  const stands = new Set<Place>(order);
  ofTheirs.forEach((place, n) => {
    if (stands.has(place) || !kept.has(place)) return;
    put(order, place, lastStanding(ofTheirs, n, stands));
    stands.add(place);
  });
  return order;
}

const placesOf = (
  blocks: readonly NoteBlock[],
  known: ReadonlyMap<number, number>,
  side: 'm' | 't',
): readonly Place[] => {
  const old = new Map([...known].map(([n, to]) => [to, n]));
  return blocks.map((_, n): Place => (old.has(n) ? `b${old.get(n)!}` : `${side}${n}`));
};

/** Blocks of the base that stand elsewhere among the others: all but those of the longest stretch in order. */
function movedIn(places: readonly Place[]): ReadonlySet<Place> {
  const old = places.filter((place) => place.startsWith('b'));
  const staying = new Set(longestInOrder(old.map((place) => Number(place.slice(1)))).map((n): Place => `b${n}`));
  return new Set(old.filter((place) => !staying.has(place)));
}

/** The longest subsequence of numbers that grow (patience sorting). */
export function longestInOrder(numbers: readonly number[]): readonly number[] {
  const ends: number[] = [];
  const before: number[] = [];
  numbers.forEach((number, n) => {
    let low = 0;
    let high = ends.length;
    while (low < high) {
      const middle = (low + high) >> 1;
      if (numbers[ends[middle]!]! < number) low = middle + 1;
      else high = middle;
    }
    before[n] = low > 0 ? ends[low - 1]! : -1;
    ends[low] = n;
  });
  const longest: number[] = [];
  for (let n = ends.at(-1) ?? -1; n >= 0; n = before[n]!) longest.unshift(numbers[n]!);
  return longest;
}

function lastStanding(places: readonly Place[], before: number, stands: ReadonlySet<Place>): Place | undefined {
  for (let n = before - 1; n >= 0; n--) if (stands.has(places[n]!)) return places[n];
  return undefined;
}

/** Behind another, or at the beginning; what was added there in mine keeps its place before it. */
function put(order: Place[], place: Place, behind: Place | undefined): void {
  let to = behind === undefined ? 0 : order.indexOf(behind) + 1;
  while (order[to]?.startsWith('m')) to++;
  order.splice(to, 0, place);
}

/** Each parted from the next as where the two stood so; an empty line where they never did. */
function parted(blocks: readonly NoteBlock[], { base, mine, theirs }: Sides): readonly NoteBlock[] {
  const known = new Map<string, string>();
  for (const side of [base, theirs, mine])
    side.forEach((block, n) => known.set(`${block.text}\0${side[n + 1]?.text ?? ''}`, block.after));
  const end = mine.at(-1)?.after ?? theirs.at(-1)?.after ?? '\n';
  return blocks.map((block, n) => {
    const next = blocks[n + 1]?.text;
    return { ...block, after: next === undefined ? end : (known.get(`${block.text}\0${next}`) ?? BREAK) };
  });
}
