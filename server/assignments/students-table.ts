import { againstTeacher, expectationWords } from '@avrelle/core/class';
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
  const { source, students, dueAt } = set;
  const text = versionText(db, sourceDetail(db, me, source.id)!.versionId)!.stream;
  const units = sentences(text, source.language || 'en');
  const marks = annotationsOf(db, me, source.id).flatMap((mark) => placedFor(mark, set.class.id));
  const teachers = new Set(
    membershipsOf(db, [set.class.id]).flatMap(({ personId, role }) => (role === 'student' ? [] : [personId])),
  );
  const taught = marks.filter(({ by }) => teachers.has(by));
  const rows = students.map((student) => {
    const own = marks.filter(({ by }) => by === student.id);
    const beside = againstTeacher(units, own, taught);
    const names = new Map(student.missing.marks.map(({ kind, name }) => [kind, name]));
    return [
      student.name,
      student.opened ? 'yes' : 'no',
      rounded(student.readShare),
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

const PLACES = 3;
const rounded = (share: number | null): number | string => (share === null ? '' : Number(share.toFixed(PLACES)));

function placedFor({ place, rootId, deleted, classIds, author }: Annotation, classId: string) {
  const { start, end } = place ?? {};
  if (rootId !== null || deleted || !classIds.includes(classId) || start == null || end == null) return [];
  return [{ by: author.id, start, end }];
}
