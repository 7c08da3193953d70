import { hasDone, missing, type Expectation } from '@avrelle/core/class';
import type { NamedGroup } from '@avrelle/core/audience';
import { startingKind } from '@avrelle/core/legend';
import { heardSeconds, type Spans } from '@avrelle/core/reading';
import type {
  Assignment,
  AssignmentDetail,
  AssignmentProgress,
  ClassId,
  NamedExpectation,
  PersonId,
  SourceId,
  WeekProgress,
} from '@avrelle/core/wire';
import { roleIn } from '../access/access-queries';
import type { Db } from '../db/database';
import { kindsOf } from '../legend/queries';
import { sourceRowsOf } from '../sources/queries';
import {
  assignmentsFor,
  expectedOf,
  extensionsOf,
  readBy,
  studentsOf,
  type AssignmentRow,
  type Student,
} from './queries';
import { marksOf, tallyOf, type Tally } from './tally';
import { readingTogether } from './together-queries';

type Named = (expected: Expectation) => NamedExpectation;

/** Names kinds as the class does. */
function naming(db: Db, classId: ClassId): Named {
  const own = new Map(kindsOf(db, classId, []).map((kind) => [kind.code, kind.name]));
  const nameOf = (code: string | null): string =>
    code === null ? 'Mark' : (own.get(code) ?? startingKind(code)?.name ?? 'a kind that is gone');
  return ({ marks, ...rest }) => ({ ...rest, marks: marks.map((m) => ({ ...m, name: nameOf(m.kind) })) });
}

/** A class as it is asked about: whose tally, its students for who teaches it, and how it names kinds. */
interface Around {
  readonly tally: Tally;
  /** Null for a student. */
  readonly students: readonly Student[] | null;
  readonly named: Named;
}

/** What is set for somebody, the first that is due first. */
export function assignmentsOf(
  db: Db,
  me: PersonId,
  asked: { readonly classId?: ClassId; readonly sourceId?: SourceId | undefined },
): Assignment[] {
  const rows = assignmentsFor(db, me, asked);
  const sources = new Map(
    sourceRowsOf(db, me, [...new Set(rows.map((r) => r.sourceId))]).map((source) => [source.id, source]),
  );
  const classes = new Map<ClassId, Around>();
  const around = (row: AssignmentRow): Around => {
    const found = classes.get(row.classId) ?? aroundOf(db, me, row, asked.sourceId);
    classes.set(row.classId, found);
    return found;
  };
  return rows.flatMap((row) => {
    const source = sources.get(row.sourceId);
    return source ? [{ ...setOf(db, row, me, around(row)), source }] : [];
  });
}

const aroundOf = (db: Db, me: PersonId, { classId, role }: AssignmentRow, sourceId?: SourceId): Around => ({
  tally: tallyOf(db, { classId, sourceId: sourceId ?? null, personId: role === 'student' ? me : null }),
  students: role === 'student' ? null : studentsOf(db, classId),
  named: naming(db, classId),
});

const groupsOf = ({ groups }: AssignmentRow): readonly NamedGroup[] => JSON.parse(groups) as NamedGroup[];
/** Whether it is set for a student; no groups are all of the class. */
const isSetFor = (groups: readonly NamedGroup[], { groupId }: Student): boolean =>
  groups.length === 0 || groups.some(({ id }) => id === groupId);

function setOf(
  db: Db,
  row: AssignmentRow,
  me: PersonId,
  { tally, students, named }: Around,
): Omit<Assignment, 'source'> {
  const groups = groupsOf(row);
  const those = students?.filter((one) => isSetFor(groups, one)) ?? [];
  // Of a class as many as one of them is asked at most: some are for a group alone.
  const expected = expectedOf(
    row,
    students === null
      ? tally.asked(row.sourceId, me)
      : Math.max(0, ...those.map(({ id }) => tally.asked(row.sourceId, id))),
  );
  return {
    class: { id: row.classId, name: row.className, tint: row.tint },
    instructions: row.instructions,
    expected: named(expected),
    opensAt: row.opensAt,
    dueAt: row.dueAt,
    myDueAt: row.extendedTo ?? row.dueAt,
    isOpen: row.isOpen === 1,
    othersSeen: row.othersSeen,
    seesOthers: row.withheld === 0,
    shownAt: row.shownAt,
    comments: row.comments === 1,
    questions: row.questions === 1,
    inOrder: row.inOrder === 1,
    together: readingTogether(db, row),
    groups,
    version: row.version,
    published: publishedOf(row),
    missing: students === null ? named(missing(expected, tally.done(row.sourceId, me))) : null,
    progress: students && progressOf(row, those, tally),
  };
}

const publishedOf = (row: AssignmentRow): Assignment['published'] => ({
  number: row.publishedNumber,
  at: row.publishedAt,
  lookedSince: row.lookedSince,
  changed: {
    instructions: row.instructionsChanged === 1,
    asked: row.askedChanged === 1,
    text: row.textChanged === 1,
    notes: row.notesChanged,
  },
});

function progressOf(row: AssignmentRow, students: readonly Student[], tally: Tally): AssignmentProgress {
  const { sourceId } = row;
  const each = students.map(({ id }) => ({
    done: tally.done(sourceId, id),
    read: tally.read(sourceId, id),
    looked: tally.looked(sourceId, id, row.lookedSince),
    expected: expectedOf(row, tally.asked(sourceId, id)),
  }));
  const sum = (of: (one: (typeof each)[number]) => number): number => each.reduce((all, one) => all + of(one), 0);
  return {
    students: students.length,
    opened: sum(({ looked }) => Number(looked)),
    begun: sum(({ done }) => Number(marksOf(done) + done.answers + done.questions > 0)),
    done: sum(({ done, expected, read = 0 }) => Number(hasDone(expected, done, read))),
    marks: sum(({ done }) => marksOf(done)),
    answers: sum(({ done }) => done.answers),
  };
}

/**
 * One reading with each student of the class, to students themselves alone; undefined where it is not set, or not for
 * them to see.
 */
export function assignmentDetail(
  db: Db,
  me: PersonId,
  place: { readonly classId: ClassId; readonly sourceId: SourceId },
): AssignmentDetail | undefined {
  const [found] = assignmentsOf(db, me, place);
  const [row] = assignmentsFor(db, me, place);
  if (!found || !row) return undefined;
  const asked = { ...place, personId: row.role === 'student' ? me : null };
  const tally = tallyOf(db, asked);
  const extended = extensionsOf(db, place);
  const reads = new Map(readBy(db, asked).map((read) => [read.personId, read]));
  const spansOf = (id: PersonId, of: 'spans' | 'heard') => JSON.parse(reads.get(id)?.[of] ?? '[]') as Spans;
  const named = naming(db, place.classId);
  const students = studentsOf(db, place.classId)
    .filter((one) => (asked.personId ?? one.id) === one.id && isSetFor(found.groups, one))
    .map(({ id, name }) => {
      const done = tally.done(place.sourceId, id);
      const read = tally.read(place.sourceId, id);
      return {
        id,
        name,
        opened: tally.looked(place.sourceId, id, row.lookedSince),
        readShare: read ?? 0,
        spans: spansOf(id, 'spans'),
        heardSeconds: heardSeconds(spansOf(id, 'heard')),
        marks: marksOf(done),
        answers: done.answers,
        questions: done.questions,
        missing: named(missing(expectedOf(row, tally.asked(place.sourceId, id)), done)),
        extendedTo: extended.get(id) ?? null,
      };
    });
  return { ...found, students };
}

const WEEK = 7 * 86_400_000;

/**
 * How far each student is with what was due within the last seven days and is due within the next; of a student asking,
 * themselves alone.
 */
export function weekOf(db: Db, me: PersonId, classId: ClassId, now: string): WeekProgress[] {
  const near = assignmentsFor(db, me, { classId }).filter(
    ({ dueAt, isOpen }) => isOpen === 1 && dueAt !== null && Math.abs(Date.parse(dueAt) - Date.parse(now)) <= WEEK,
  );
  if (near.length === 0) return [];
  const tally = tallyOf(db, { classId });
  const teaches = roleIn(db, classId, me) !== 'student';
  const shown = studentsOf(db, classId).filter(({ id }) => teaches || id === me);
  return shown.flatMap((student) => {
    const { id, name } = student;
    const mine = near.filter((row) => isSetFor(groupsOf(row), student));
    if (mine.length === 0) return [];
    const reads = mine.map(({ sourceId }) => tally.read(sourceId, id));
    return {
      id,
      name,
      done: mine.filter((row, i) =>
        hasDone(expectedOf(row, tally.asked(row.sourceId, id)), tally.done(row.sourceId, id), reads[i] ?? 0),
      ).length,
      of: mine.length,
      opened: mine.filter(({ sourceId, lookedSince }) => tally.looked(sourceId, id, lookedSince)).length,
      readShare: reads.reduce<number>((sum, read) => sum + (read ?? 0), 0) / mine.length,
    };
  });
}
