/** A tag of one's own, and how it was used. */
export interface UsedTag {
  readonly tag: string;
  /** On how many sources and marks it stands. */
  readonly uses: number;
  /** On how many of the same site or author. */
  readonly near: number;
}

/** Habit counts as much as this many mentions at most, so that what is often used is not offered everywhere. */
const HABIT = 3;
const plain = (text: string): string => text.normalize('NFD').replace(/\p{M}/gu, '').toLowerCase();
const words = (text: string): string[] => plain(text).match(/[\p{L}\p{N}]+/gu) ?? [];
/** The word a tag is about: its last part, in the singular of English where it looks like a plural. */
const stem = (word: string): string =>
  word.length > 4 && word.endsWith('s') && !word.endsWith('ss') ? word.slice(0, -1) : word;

/**
 * Tags that may belong on a source, likeliest first: those its title and text speak of (by the logarithm of how often,
 * so that length does not decide), and those used on others of its site or author.
 */
export function suggestTags(
  { title, text }: { readonly title: string; readonly text: string },
  known: readonly UsedTag[],
  most = 6,
): readonly string[] {
  const counts = new Map<string, number>();
  for (const word of words(text)) counts.set(stem(word), (counts.get(stem(word)) ?? 0) + 1);
  const heading = new Set(words(title).map(stem));
  const score = ({ tag, uses, near }: UsedTag): number => {
    const parts = words(tag.split('/').at(-1)!).map(stem);
    const said = parts.length ? Math.min(...parts.map((p) => counts.get(p) ?? 0)) : 0;
    const spoken = Math.log2(1 + said) + (parts.length && parts.every((p) => heading.has(p)) ? 3 : 0);
    const habit = Math.min(HABIT, Math.log2(1 + near) * 1.5);
    return spoken + habit > 0 ? spoken + habit + Math.log10(1 + uses) / 4 : 0;
  };
  return known
    .map((k) => ({ tag: k.tag, score: score(k) }))
    .filter((k) => k.score >= 1)
    .sort((a, b) => b.score - a.score || a.tag.localeCompare(b.tag))
    .slice(0, most)
    .map((k) => k.tag);
}
