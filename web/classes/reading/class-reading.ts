import {
  agreementOn,
  againstTeacher,
  densityOf,
  drawing,
  missed,
  passagesOf,
  splitting,
  type AgainstTeacher,
  type ClassAgreement,
  type Passage,
  type ReadersMark,
} from '@avrelle/core/class';
import type { Kind } from '@avrelle/core/legend';
import { sentences } from '@avrelle/core/text';
import type { Annotation, ClassId, PersonId, SourceText } from '@avrelle/core/wire';

/** A mark that stands in the text. */
export interface PlacedMark extends ReadersMark {
  readonly annotation: Annotation;
}

/** How a class read a text. */
export interface ClassReading {
  readonly length: number;
  /** Of each student. */
  readonly marks: ReadonlyMap<PersonId, readonly PlacedMark[]>;
  readonly taught: readonly PlacedMark[];
  /** How many students marked each of `STRETCHES` equal parts. */
  readonly density: readonly number[];
  readonly drew: readonly Passage[];
  readonly split: readonly Passage[];
  readonly missed: readonly Passage[];
  readonly agreement: ClassAgreement;
  /** Kinds by their codes, as the class's marks show them. */
  readonly kinds: ReadonlyMap<string, Kind>;
  /** Headings of the first levels, where they stand. */
  readonly headings: readonly { readonly at: number; readonly words: string }[];
  /** Each student's sentences beside the teachers'. */
  readonly beside: ReadonlyMap<PersonId, AgainstTeacher>;
}

export const STRETCHES = 80;
const MOST = 6;
const TOP_LEVEL = 2;

/** Whose marks for which class. */
interface OfClass {
  /** And those that read together with it. */
  readonly classIds: readonly ClassId[];
  readonly students: readonly PersonId[];
  readonly teachers: readonly PersonId[];
}

/** What the class made of a text, counted from the annotations that its teacher sees. */
export function classReading(
  { text, outline }: SourceText,
  annotations: readonly Annotation[],
  { classIds, students, teachers }: OfClass,
  language: string,
): ClassReading {
  const units = sentences(text, language || 'en');
  const placed = annotations.flatMap((a) => placedIn(a, classIds));
  const all = placed.filter((m) => students.includes(m.reader));
  const taught = placed.filter((m) => teachers.includes(m.reader));
  const passages = passagesOf(units, all, taught);
  const marks = new Map(students.map((id) => [id, all.filter((m) => m.reader === id)]));
  return {
    length: text.length,
    marks,
    taught,
    density: densityOf(all, text.length, STRETCHES),
    drew: drawing(passages, MOST),
    split: splitting(passages).slice(0, MOST),
    missed: missed(passages).slice(0, MOST),
    agreement: agreementOn(units, all),
    kinds: new Map(placed.map(({ annotation: { kind } }) => [kind.code, kind])),
    headings: outline
      .filter((b) => b.role === 'heading' && (b.level ?? 1) <= TOP_LEVEL && !b.aside)
      .map((b) => ({ at: b.start, words: text.slice(b.start, b.end) })),
    beside: new Map([...marks].map(([id, own]) => [id, againstTeacher(units, own, taught)])),
  };
}

function placedIn(annotation: Annotation, of: readonly ClassId[]): readonly PlacedMark[] {
  const { place, rootId, deleted, classIds, author, kind } = annotation;
  if (rootId !== null || deleted || !classIds.some((id) => of.includes(id))) return [];
  if (!place || place.start === null || place.end === null) return [];
  return [{ annotation, reader: author.id, kind: kind.code, start: place.start, end: place.end }];
}
