import { againstTeacher, expectationWords, passagesOf } from '@avrelle/core/class';
import { sentences } from '@avrelle/core/text';
import type { Annotation, AssignmentDetail, PersonId } from '@avrelle/core/wire';
import { annotationsOf } from '../annotations/queries';
import { membershipsOf } from '../classes/queries';
import type { Db } from '../db/database';
import { csvOf } from '../export/csv';
import { sourceDetail, versionText } from '../sources/queries';

const FIELDS = [
  'student',
  'opened',
  'read',
  'heard, in seconds',
  'marks',
  'answers',
  'questions answered',
  'still missing',
  'of the teachers',
  'also a teacher’s',
  'kappa',
  'due',
];

/** How each student read what is set, as CSV; shares from 0 to 1. */
export function studentsTable(db: Db, me: PersonId, set: AssignmentDetail): string {
  const { students, dueAt } = set;
  const { units, marks, taught } = marksOf(db, me, set);
  const rows = students.map((student) => {
    const own = marks.filter(({ reader }) => reader === student.id);
    const beside = againstTeacher(units, own, taught);
    const names = new Map(student.missing.marks.map(({ kind, name }) => [kind, name]));
    return [
      student.name,
      student.opened ? 'yes' : 'no',
      rounded(student.readShare),
      student.heardSeconds,
      student.marks,
      student.answers,
      student.questions,
      expectationWords(student.missing, (kind) => names.get(kind) ?? kind),
      rounded(beside.recall),
      rounded(beside.precision),
      rounded(beside.kappa),
      student.extendedTo ?? dueAt ?? '',
    ];
  });
  return csvOf(FIELDS, rows);
}

/** Each sentence that a student or a teacher marked, in the order of the text, as CSV. */
export function passagesTable(db: Db, me: PersonId, set: AssignmentDetail): string {
  const { text, units, marks, taught, names } = marksOf(db, me, set);
  const students = new Set(set.students.map(({ id }) => id));
  const passages = passagesOf(
    units,
    marks.filter(({ reader }) => students.has(reader)),
    taught,
  );
  const kinds = [...names.keys()].filter((kind) => passages.some((p) => p.kinds.some((one) => one.kind === kind)));
  return csvOf(
    ['sentence', 'words', 'students', ...kinds.map((kind) => `as ${names.get(kind)!}`), 'by a teacher as'],
    passages.map(({ index, start, end, readers, kinds: as, taught: byTeachers }) => [
      index + 1,
      text.slice(start, end).replace(/\s+/g, ' ').trim(),
      readers,
      ...kinds.map((kind) => as.find((one) => one.kind === kind)?.readers ?? 0),
      byTeachers.map((kind) => names.get(kind) ?? kind).join(', '),
    ]),
  );
}

/** The text by its sentences, and what was marked in it for the class. */
function marksOf(db: Db, me: PersonId, { source, class: { id }, together }: AssignmentDetail) {
  const text = versionText(db, sourceDetail(db, me, source.id)!.versionId)!.stream;
  const annotations = annotationsOf(db, me, source.id);
  const within = [id, ...together.map((other) => other.id)];
  const marks = annotations.flatMap((mark) => placedFor(mark, within));
  const teachers = new Set(
    membershipsOf(db, [id]).flatMap(({ personId, role }) => (role === 'student' ? [] : [personId])),
  );
  return {
    text,
    units: sentences(text, source.language || 'en'),
    marks,
    taught: marks.filter(({ reader }) => teachers.has(reader)),
    names: new Map(annotations.map(({ kind }) => [kind.code, kind.name])),
  };
}

const PLACES = 3;
const rounded = (share: number | null): number | string => (share === null ? '' : Number(share.toFixed(PLACES)));

function placedFor({ place, rootId, deleted, classIds, author, kind }: Annotation, within: readonly string[]) {
  const { start, end } = place ?? {};
  if (rootId !== null || deleted || start == null || end == null) return [];
  if (!classIds.some((id) => within.includes(id))) return [];
  return [{ reader: author.id, kind: kind.code, start, end }];
}
