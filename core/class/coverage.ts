import type { KindCode } from '../legend/legend';
import { seeded } from '../random/seeded';
import { alphaInterval, cohensKappa, krippendorffsAlpha, type Value } from './agreement';

/** Half-open `[start, end)` in the stream that is read, in UTF-16 units. */
export interface Span {
  readonly start: number;
  readonly end: number;
}

/** What one reader marked. */
export interface ReadersMark extends Span {
  readonly reader: string;
  readonly kind: KindCode;
}

/** A sentence of the text, and what the class made of it. */
export interface Passage extends Span {
  /** Which of the sentences. */
  readonly index: number;
  /** How many readers marked it. */
  readonly readers: number;
  /** As what, the most frequent first; a reader who marked it as two counts for both. */
  readonly kinds: readonly { readonly kind: KindCode; readonly readers: number }[];
  /** As what the teachers marked it. */
  readonly taught: readonly KindCode[];
}

/** A mark that only touches a sentence does not mark it: it has to hold so much of it, or to lie in it. */
const HELD = 0.5;

/** The sentences that a mark means: those it holds half of at least; else the one it lies in most. They are in order. */
export function sentencesOf(sentences: readonly Span[], mark: Span): readonly number[] {
  const shared: { readonly index: number; readonly common: number; readonly isHeld: boolean }[] = [];
  for (let index = firstAfter(sentences, mark.start); index < sentences.length; index++) {
    const { start, end } = sentences[index]!;
    if (start >= mark.end) break;
    const common = Math.min(end, mark.end) - Math.max(start, mark.start);
    shared.push({ index, common, isHeld: common >= HELD * (end - start) });
  }
  const held = shared.filter(({ isHeld }) => isHeld);
  if (held.length > 0) return held.map(({ index }) => index);
  return shared
    .toSorted((a, b) => b.common - a.common)
    .slice(0, 1)
    .map(({ index }) => index);
}

/** The first sentence that ends after an offset. */
function firstAfter(sentences: readonly Span[], offset: number): number {
  let [low, high] = [0, sentences.length];
  while (low < high) {
    const middle = (low + high) >>> 1;
    if (sentences[middle]!.end <= offset) low = middle + 1;
    else high = middle;
  }
  return low;
}

/** Each sentence that anybody marked, in the order of the text. */
export function passagesOf(
  sentences: readonly Span[],
  marks: readonly ReadersMark[],
  taught: readonly Omit<ReadersMark, 'reader'>[],
): readonly Passage[] {
  const byKind = spread(sentences, marks);
  const byTeachers = spread(
    sentences,
    taught.map((m) => ({ ...m, reader: '' })),
  );
  return sentences.flatMap(({ start, end }, index) => {
    const kinds = byKind.get(index) ?? new Map<KindCode, Set<string>>();
    const teachers = [...(byTeachers.get(index)?.keys() ?? [])];
    if (kinds.size === 0 && teachers.length === 0) return [];
    return [
      {
        ...{ start, end, index },
        readers: new Set([...kinds.values()].flatMap((readers) => [...readers])).size,
        kinds: [...kinds]
          .map(([kind, readers]) => ({ kind, readers: readers.size }))
          .toSorted((a, b) => b.readers - a.readers || a.kind.localeCompare(b.kind)),
        taught: teachers,
      },
    ];
  });
}

type Readers = Map<KindCode, Set<string>>;

/** Who marked which sentence as what. */
function spread(sentences: readonly Span[], marks: readonly ReadersMark[]): ReadonlyMap<number, Readers> {
  const found = new Map<number, Readers>();
  for (const { reader, kind, ...range } of marks)
    for (const index of sentencesOf(sentences, range)) {
      const kinds = found.get(index) ?? new Map<KindCode, Set<string>>();
      kinds.set(kind, (kinds.get(kind) ?? new Set<string>()).add(reader));
      found.set(index, kinds);
    }
  return found;
}

/** Those that most readers marked, and more than one did. */
export const drawing = (passages: readonly Passage[], most: number): readonly Passage[] =>
  passages
    .filter((p) => p.readers > 1)
    .toSorted((a, b) => b.readers - a.readers || a.index - b.index)
    .slice(0, most);

/** Those that split the class: the second kind was chosen at least half as often as the first, by two readers or more. */
export const splitting = (passages: readonly Passage[]): readonly Passage[] =>
  passages.filter(
    ({ kinds: [first, second] }) => second && second.readers >= 2 && second.readers * 2 >= first!.readers,
  );

/** Those that a teacher marked, and no student. */
export const missed = (passages: readonly Passage[]): readonly Passage[] =>
  passages.filter((p) => p.readers === 0 && p.taught.length > 0);

/** Below so many readers who marked something, a figure for their agreement would say more of chance than of them. */
export const FEWEST_READERS = 5;

export interface ClassAgreement {
  /** Krippendorff's α; null where there are too few readers, or nothing to compare. */
  readonly alpha: number | null;
  /** Of the bootstrap, 95 %; null where α is. */
  readonly interval: readonly [number, number] | null;
  readonly readers: number;
  /** Sentences that two readers or more marked. */
  readonly units: number;
}

/**
 * How far readers agree on kinds, corrected for chance: Krippendorff's α for nominal data, sentences as units; of a
 * reader who marked one twice, the first kind. Its interval by drawing the units again, with replacement (the percentile
 * bootstrap, B. Efron 1979), the same for the same marks.
 */
export function agreementOn(sentences: readonly Span[], marks: readonly ReadersMark[]): ClassAgreement {
  const readers = [...new Set(marks.map((m) => m.reader))];
  const column = new Map(readers.map((reader, i) => [reader, i]));
  const rows = new Map<number, (Value | null)[]>();
  for (const { reader, kind, ...range } of marks)
    for (const index of sentencesOf(sentences, range)) {
      const row = rows.get(index) ?? readers.map(() => null);
      row[column.get(reader)!] ??= kind;
      rows.set(index, row);
    }
  const units = [...rows.values()].filter((row) => row.filter((value) => value !== null).length >= 2);
  const base = { readers: readers.length, units: units.length };
  const alpha = readers.length < FEWEST_READERS ? null : krippendorffsAlpha(units);
  return { ...base, alpha, interval: alpha === null ? null : alphaInterval(units, seeded(units.length)) };
}

export interface AgainstTeacher {
  /** Of the sentences that the teachers marked, the share that the reader marked; null where they marked none. */
  readonly recall: number | null;
  /** Of the sentences that the reader marked, the share that the teachers marked; null where the reader marked none. */
  readonly precision: number | null;
  /** Cohen's κ of marked or not, over all sentences; null where one of them marked none. */
  readonly kappa: number | null;
}

/** One reader's marks beside the teachers', sentence by sentence, whatever the kind. */
export function againstTeacher(
  sentences: readonly Span[],
  marks: readonly Span[],
  taught: readonly Span[],
): AgainstTeacher {
  const of = (some: readonly Span[]) => new Set(some.flatMap((m) => sentencesOf(sentences, m)));
  const [mine, theirs] = [of(marks), of(taught)];
  const both = [...mine].filter((index) => theirs.has(index)).length;
  return {
    recall: theirs.size === 0 ? null : both / theirs.size,
    precision: mine.size === 0 ? null : both / mine.size,
    kappa:
      mine.size === 0 || theirs.size === 0
        ? null
        : cohensKappa(sentences.map((_sentence, index) => [mine.has(index), theirs.has(index)])),
  };
}

/** How many readers marked each of so many equal stretches of a text. */
export function densityOf(marks: readonly ReadersMark[], length: number, stretches: number): readonly number[] {
  const readers = Array.from({ length: stretches }, () => new Set<string>());
  const at = (offset: number): number =>
    Math.min(stretches - 1, Math.floor((offset / Math.max(1, length)) * stretches));
  for (const { reader, start, end } of marks)
    for (let n = at(start); n <= at(Math.max(start, end - 1)); n++) readers[n]!.add(reader);
  return readers.map((set) => set.size);
}
