import type { Run, Segment } from './reading-order';

/** Lines that belong together. */
export interface Paragraph {
  readonly lines: readonly Segment[];
  readonly size: number;
  readonly text: string;
  /** 1 to 3 for a heading. */
  level?: 1 | 2 | 3;
  /** Running heads and folios, which stand outside the text. */
  aside?: boolean;
}

/** Lines in reading order as paragraphs. A blank line, an indent, a short last line, another size and each row of a table begin a new one. */
export function paragraphsOf(segments: readonly Segment[]): Paragraph[] {
  const groups: Segment[][] = [];
  const right = (group: readonly Segment[]): number => Math.max(...group.map((s) => s.right));
  for (const [n, segment] of segments.entries()) {
    const group = groups.at(-1);
    const last = group?.at(-1);
    if (group && last && goesOn(last, segment, { group, after: segments[n + 1], right: right(group) }))
      group.push(segment);
    else groups.push([segment]);
  }
  return groups.map((lines) => ({
    lines,
    size: lines[0]!.size,
    text: joined(lines, () => false)
      .map((part) => part.text)
      .join(''),
  }));
}

const sameRow = (a: Segment, b: Segment): boolean => Math.abs(a.baseline - b.baseline) < 0.3 * a.size;

/** Where a segment may go on with a paragraph: its lines so far, what comes after, and where its column ends. */
interface Surroundings {
  readonly group: readonly Segment[];
  readonly after: Segment | undefined;
  readonly right: number;
}

function goesOn(last: Segment, next: Segment, { group, after, right }: Surroundings): boolean {
  if (sameRow(last, next)) return next.left > last.left;
  const rows = group.length > 1 && sameRow(group.at(-2)!, last);
  const startsRow = after !== undefined && sameRow(next, after);
  if (rows || startsRow || !isNextLine(last, next)) return false;
  if (next.left > last.left + 0.7 * last.size && group.length > 0 && !startsIndented(group)) return false;
  const endsShort = last.right < right - 0.14 * (right - last.left) && group.length > 1;
  return !(endsShort && /[.!?:”"’)]\s*$/.test(last.text));
}

/** Close below, of the same size, and at least partly under it. */
function isNextLine(last: Segment, next: Segment): boolean {
  const down = next.baseline - last.baseline;
  if (down <= 0 || down > 1.75 * last.size || Math.abs(next.size - last.size) > 0.12 * last.size) return false;
  return next.left <= last.right && next.right >= last.left;
}

/** A paragraph whose second line stands further in than its first, as in lists and references. */
const startsIndented = (group: readonly Segment[]): boolean =>
  group.length === 1
    ? /^\s*([•–—*·]|\(?\d{1,3}[.)]|\[\d+\])\s/.test(group[0]!.text)
    : group[1]!.left > group[0]!.left + 0.7 * group[0]!.size;

export interface Piece {
  readonly run: Run;
  /** With the space before it, where there is one; without the hyphen that only parted a word at a line's end. */
  readonly text: string;
}

/** ISO 32000 has no mark for hyphens that a line's end made: one after a letter, before a small letter. */
const HYPHEN = /(\p{L})[-\u00AD\u2010]$/u;

/** A paragraph's runs with the words that line ends part joined again, and a space between other lines. */
export function joined(lines: readonly Segment[], isCompound: (word: string) => boolean): Piece[] {
  const pieces: Piece[] = [];
  for (const [n, line] of lines.entries()) {
    for (const [m, run] of line.runs.entries()) {
      const text = m === 0 ? run.text.trimStart() : run.text;
      const begins = m === 0 && n > 0 && pieces.length > 0;
      pieces.push({ run, text: begins && !joinedToLast(pieces, text, isCompound) ? ` ${text}` : text });
    }
  }
  return pieces;
}

/** Whether a line goes on with the word that the last one ends in; its hyphen goes where it only parted the word. */
function joinedToLast(pieces: Piece[], text: string, isCompound: (word: string) => boolean): boolean {
  const last = pieces.at(-1)!;
  const end = last.text.trimEnd();
  // The hyphen may be a run of its own.
  const line = `${pieces.at(-2)?.text ?? ''}${end}`;
  if (!HYPHEN.test(line) || !/^\p{Ll}/u.test(text)) return false;
  const before = /[\p{L}]+[-\u2010]$/u.exec(line)?.[0] ?? '';
  const after = /^\p{L}+/u.exec(text)?.[0] ?? '';
  pieces[pieces.length - 1] = { ...last, text: isCompound(before + after) ? end : end.slice(0, -1) };
  return true;
}

/** The size most of the text is set in. */
function bodySize(pages: readonly (readonly Paragraph[])[]): number {
  const characters = new Map<number, number>();
  for (const { size, text } of pages.flat())
    characters.set(Math.round(size * 2) / 2, (characters.get(Math.round(size * 2) / 2) ?? 0) + text.length);
  return [...characters].sort((a, b) => b[1] - a[1])[0]?.[0] ?? 10;
}

export interface Bookmark {
  readonly title: string;
  /** 0 for the first page. */
  readonly page: number;
  /** 1 for the outermost. */
  readonly depth: number;
}

const simple = (text: string): string =>
  text
    .toLowerCase()
    .replace(/[^\p{L}\p{N}]+/gu, ' ')
    .trim();
const LONGEST_HEADING = 160;

/** Headings: what the file's own outline names on that page; else short text set clearly larger than the rest. */
export function markHeadings(pages: readonly (readonly Paragraph[])[], bookmarks: readonly Bookmark[]): void {
  const body = bodySize(pages);
  const sizes = [
    ...new Set(
      pages
        .flat()
        .filter((p) => p.size > 1.15 * body && p.text.length <= LONGEST_HEADING)
        .map((p) => Math.round(p.size)),
    ),
  ].sort((a, b) => b - a);
  for (const paragraph of pages.flat()) {
    if (paragraph.size <= 1.15 * body || paragraph.text.length > LONGEST_HEADING || !/\p{L}{2}/u.test(paragraph.text))
      continue;
    paragraph.level = Math.min(3, 1 + sizes.indexOf(Math.round(paragraph.size))) as 1 | 2 | 3;
  }
  for (const { title, page, depth } of bookmarks) {
    const wanted = simple(title);
    const found = pages[page]?.find(
      (p) =>
        p.level === undefined &&
        !p.aside &&
        p.text.length <= LONGEST_HEADING &&
        (simple(p.text) === wanted ||
          (wanted.length > 3 && simple(p.text).endsWith(wanted) && p.text.length < title.length + 8)),
    );
    if (found) found.level = Math.min(3, depth + 1) as 2 | 3;
  }
}

/** Running heads and folios: what stands first or last on a page and comes again on others, numbers apart. */
export function markAsideLines(pages: readonly (readonly Paragraph[])[], heights: readonly number[]): void {
  const shape = (p: Paragraph): string => p.text.trim().replace(/\d+|\b[ivxlc]+\b/gi, '#');
  const edges = pages.map((page, n) =>
    page.filter((p) => {
      const y = p.lines[0]!.baseline / heights[n]!;
      return p.lines.length === 1 && (y < 0.1 || y > 0.9);
    }),
  );
  const seen = new Map<string, number>();
  for (const page of edges) for (const key of new Set(page.map(shape))) seen.set(key, (seen.get(key) ?? 0) + 1);
  for (const paragraph of edges.flat()) {
    const key = shape(paragraph);
    const least = Math.max(key.includes('#') ? 2 : 3, Math.min(10, pages.length / 3));
    if (key === '#' || (seen.get(key) ?? 0) >= least) {
      paragraph.aside = true;
      delete paragraph.level;
    }
  }
}
