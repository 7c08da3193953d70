import type { Expectation, ExpectedMarks } from '@avrelle/core/class';
import type { AssignmentFields, ClassId, ClassRole, GroupId, OthersSeen, PersonId, SourceId } from '@avrelle/core/wire';
import { isSetFor, isSetForGroup, sees } from '../access/visible-queries';
import type { Db } from '../db/database';

export interface AssignmentRow {
  readonly classId: ClassId;
  readonly className: string;
  readonly tint: string;
  readonly role: ClassRole;
  readonly sourceId: SourceId;
  readonly instructions: string;
  /** JSON of `ExpectedMarks`. */
  readonly marks: string;
  readonly answers: number;
  readonly opensAt: string | null;
  readonly dueAt: string | null;
  readonly extendedTo: string | null;
  readonly isOpen: number;
  readonly othersSeen: OthersSeen;
  readonly withheld: number;
  readonly shownAt: string | null;
  readonly comments: number;
  readonly questions: number;
  readonly inOrder: number;
  readonly version: number;
  /** JSON of `NamedGroup`s; none where it is for all. */
  readonly groups: string;
  readonly publishedAt: string;
  readonly publishedNumber: number;
  readonly lookedSince: string | null;
  /** What is not as it was when it was published. */
  readonly instructionsChanged: number;
  readonly askedChanged: number;
  readonly textChanged: number;
  /** How many notes and marks of its teachers are new or changed, of those that the asker sees. */
  readonly notesChanged: number;
}

/** What is asked for and until when, of an assignment. */
const ASKED = (g: string): string =>
  `json_array(json(${g}marks), ${g}answers, ${g}questions, ${g}due_at, ${g}in_order)`;
const NOTES_CHANGED = `
  SELECT count(*) FROM membership t
  JOIN annotation a ON a.author_id = t.person_id AND a.source_id = g.source_id AND a.root_id IS NULL
  JOIN annotation_class ac ON ac.annotation_id = a.id AND ac.class_id = g.class_id
  LEFT JOIN release l ON l.id = ac.release_id
  WHERE t.class_id = g.class_id AND t.role <> 'student' AND ${sees('a')}
    AND max(a.updated_at, coalesce(l.released_at, '')) > g.published_at`;

/** Of the classes of `@me`, archived ones only where they are asked for; what they may not read yet is not among it. */
const ASSIGNMENTS = `
  SELECT g.class_id, c.name AS class_name, c.tint, m.role, g.source_id, g.instructions, g.marks, g.answers, g.opens_at,
    g.due_at, e.due_at AS extended_to, g.is_open, g.others_seen, w.withheld, g.shown_at, g.comments, g.questions,
    g.in_order, g.version, g.published_at, g.published_number, g.looked_since,
    g.instructions <> g.published_instructions AS instructions_changed,
    ${ASKED('g.')} <> g.published_asked AS asked_changed,
    s.current_version IS NOT g.published_version AS text_changed,
    (${NOTES_CHANGED}) AS notes_changed,
    CASE WHEN g.for_groups = 0 THEN '[]' ELSE (
      SELECT json_group_array(json_object('id', cg.id, 'name', cg.name) ORDER BY cg.position)
      FROM assignment_group x JOIN class_group cg ON cg.id = x.group_id
      WHERE x.class_id = g.class_id AND x.source_id = g.source_id) END AS groups
  FROM membership m
  JOIN class c ON c.id = m.class_id
  JOIN assignment g ON g.class_id = m.class_id
  JOIN source s ON s.id = g.source_id
  JOIN class_reach w ON w.person_id = m.person_id AND w.class_id = g.class_id AND w.source_id = g.source_id
  LEFT JOIN extension e ON e.class_id = g.class_id AND e.source_id = g.source_id AND e.person_id = m.person_id
    AND e.due_at > g.due_at
  WHERE m.person_id = @me AND (@class IS NULL OR g.class_id = @class) AND (@source IS NULL OR g.source_id = @source)
    AND ${isSetFor('w', 'g')} AND (@class IS NOT NULL OR c.archived_at IS NULL)
  ORDER BY coalesce(e.due_at, g.due_at) IS NULL, coalesce(e.due_at, g.due_at), g.set_at, g.source_id`;

/** What is set for somebody; of one class or source only, where it is named. */
export const assignmentsFor = (
  db: Db,
  me: PersonId,
  { classId = null, sourceId = null }: { readonly classId?: ClassId | null; readonly sourceId?: SourceId | null },
): AssignmentRow[] => db.all<AssignmentRow>(ASSIGNMENTS, { me, class: classId, source: sourceId });

const VERSION = `
  SELECT version, others_seen, shown_at, is_open, published_number FROM assignment
  WHERE class_id = @class AND source_id = @source`;
const INSERT = `
  INSERT INTO assignment (class_id, source_id, instructions, marks, answers, opens_at, due_at, is_open, others_seen,
    shown_at, comments, questions, in_order, for_groups, set_by, set_at)
  VALUES (@class, @source, @instructions, @marks, @answers, @opensAt, @dueAt, @isOpen, @othersSeen,
    @shownAt, @comments, @questions, @inOrder, @forGroups, @me, @now)`;
const UPDATE = `
  UPDATE assignment SET instructions = @instructions, marks = @marks, answers = @answers, opens_at = @opensAt,
    due_at = @dueAt, is_open = @isOpen, others_seen = @othersSeen, shown_at = @shownAt, comments = @comments,
    questions = @questions, in_order = @inOrder, for_groups = @forGroups, version = version + 1
  WHERE class_id = @class AND source_id = @source`;
const PUBLISH = `
  UPDATE assignment SET published_at = @now, published_number = published_number + @more,
    published_instructions = instructions, published_asked = ${ASKED('')},
    published_version = (SELECT current_version FROM source WHERE id = source_id),
    looked_since = iif(@lookAgain, @now, looked_since)
  WHERE class_id = @class AND source_id = @source`;
const DELETE = 'DELETE FROM assignment WHERE class_id = ? AND source_id = ?';
const SHOW = `
  UPDATE assignment SET shown_at = @at
  WHERE class_id = @class AND source_id = @source AND (shown_at IS NULL) = (@at IS NOT NULL)`;

/** Which class, and what it reads. */
export interface Place {
  readonly classId: ClassId;
  readonly sourceId: SourceId;
}

export interface Stored {
  readonly version: number;
  readonly othersSeen: OthersSeen;
  readonly shownAt: string | null;
  readonly isOpen: number;
  readonly publishedNumber: number;
}
export const storedAssignment = (db: Db, { classId, sourceId }: Place): Stored | undefined =>
  db.get<Stored>(VERSION, { class: classId, source: sourceId });

/** What is stored of a reading that is set, beside what was asked for. */
export interface Standing {
  readonly isOpen: boolean;
  readonly shownAt: string | null;
}

const columns = ({ classId, sourceId }: Place, put: AssignmentFields, { isOpen, shownAt }: Standing) => ({
  class: classId,
  source: sourceId,
  instructions: put.instructions,
  marks: JSON.stringify(put.marks),
  answers: put.answers,
  opensAt: put.opensAt,
  dueAt: put.dueAt,
  isOpen: Number(isOpen),
  othersSeen: put.othersSeen,
  shownAt,
  comments: Number(put.comments),
  questions: Number(put.questions),
  inOrder: Number(put.inOrder),
  forGroups: Number(put.groupIds.length > 0),
});
export function insertAssignment(
  db: Db,
  place: Place,
  put: AssignmentFields,
  { me, now, ...standing }: Standing & { readonly me: PersonId; readonly now: string },
): void {
  db.run(INSERT, { ...columns(place, put, standing), me, now });
  setGroups(db, place, put);
  publish(db, place, { now, more: 0, lookAgain: false });
}
export function updateAssignment(db: Db, place: Place, put: AssignmentFields, standing: Standing): void {
  db.run(UPDATE, columns(place, put, standing));
  setGroups(db, place, put);
}
/** What stands there now is what changes are told against; `more` is by how much its number grows. */
export const publish = (
  db: Db,
  { classId, sourceId }: Place,
  { now, more, lookAgain }: { readonly now: string; readonly more: 0 | 1; readonly lookAgain: boolean },
): number => db.run(PUBLISH, { class: classId, source: sourceId, now, more, lookAgain: Number(lookAgain) });

const CLEAR_GROUPS = 'DELETE FROM assignment_group WHERE class_id = ? AND source_id = ?';
const ADD_GROUP = 'INSERT INTO assignment_group (class_id, source_id, group_id) VALUES (?, ?, ?)';
function setGroups(db: Db, { classId, sourceId }: Place, { groupIds }: AssignmentFields): void {
  db.run(CLEAR_GROUPS, classId, sourceId);
  for (const groupId of new Set(groupIds)) db.run(ADD_GROUP, classId, sourceId, groupId);
}
export const deleteAssignment = (db: Db, { classId, sourceId }: Place): boolean =>
  db.run(DELETE, classId, sourceId) > 0;
/** False where it was so already. */
export const setShown = (db: Db, { classId, sourceId }: Place, at: string | null): boolean =>
  db.run(SHOW, { class: classId, source: sourceId, at }) > 0;

const EXTEND = `
  INSERT INTO extension (class_id, source_id, person_id, due_at, passed) VALUES (@class, @source, @person, @dueAt, @passed)
  ON CONFLICT (class_id, source_id, person_id) DO UPDATE SET due_at = @dueAt, passed = @passed`;
const TAKE_BACK = 'DELETE FROM extension WHERE class_id = ? AND source_id = ? AND person_id = ?';
const EXTENSIONS = `
  SELECT e.person_id, e.due_at FROM extension e
  JOIN assignment g ON g.class_id = e.class_id AND g.source_id = e.source_id
  WHERE e.class_id = ? AND e.source_id = ? AND e.due_at > g.due_at`;
export function setExtension(
  db: Db,
  { classId, sourceId }: Place,
  person: PersonId,
  { dueAt, passed }: { readonly dueAt: string; readonly passed: boolean },
): void {
  db.run(EXTEND, { class: classId, source: sourceId, person, dueAt, passed: Number(passed) });
}
export const takeExtension = (db: Db, { classId, sourceId }: Place, personId: PersonId): number =>
  db.run(TAKE_BACK, classId, sourceId, personId);
export const extensionsOf = (db: Db, { classId, sourceId }: Place): ReadonlyMap<PersonId, string> =>
  new Map(
    db
      .all<{ personId: PersonId; dueAt: string }>(EXTENSIONS, classId, sourceId)
      .map(({ personId, dueAt }) => [personId, dueAt]),
  );

const STUDENTS = `
  SELECT p.id, p.name, m.group_id FROM membership m JOIN person p ON p.id = m.person_id
  WHERE m.class_id = ? AND m.role = 'student' ORDER BY p.name, p.id`;
export interface Student {
  readonly id: PersonId;
  readonly name: string;
  readonly groupId: GroupId | null;
}
export const studentsOf = (db: Db, classId: ClassId): Student[] => db.all<Student>(STUDENTS, classId);

/** What was written for a class; only what is named is asked for, so that it is found by the index that fits. */
const written = ({ sourceId, personId }: Asked): string => `
  FROM annotation a JOIN annotation_class ac ON ac.annotation_id = a.id AND ac.class_id = @class
  WHERE a.deleted_at IS NULL
    ${sourceId ? 'AND a.source_id = @source' : ''} ${personId ? 'AND a.author_id = @person' : ''}`;
/** How many marks, by kind, and answers to others each person wrote, source by source. */
const marks = (asked: Asked): string => `
  SELECT a.source_id, a.author_id AS person_id, a.kind, count(*) AS count ${written(asked)} AND a.root_id IS NULL
  GROUP BY a.source_id, a.author_id, a.kind`;
const answers = (asked: Asked): string => `
  SELECT a.source_id, a.author_id AS person_id, count(*) AS count ${written(asked)} AND a.root_id IS NOT NULL
    AND a.author_id <> (SELECT r.author_id FROM annotation r WHERE r.id = a.root_id)
  GROUP BY a.source_id, a.author_id`;
const SHELVES = `
  SELECT h.source_id, h.person_id, h.read_share, h.spans, h.heard, h.opened_at FROM assignment g
  JOIN membership m ON m.class_id = g.class_id
  JOIN shelf h ON h.person_id = m.person_id AND h.source_id = g.source_id
  WHERE g.class_id = @class AND (@source IS NULL OR g.source_id = @source)
    AND (@person IS NULL OR m.person_id = @person)`;

/** Of a class; of one source or person only, where it is named. */
export interface Asked {
  readonly classId: ClassId;
  readonly sourceId?: SourceId | null;
  readonly personId?: PersonId | null;
}
export const named = ({ classId, sourceId = null, personId = null }: Asked) => ({
  class: classId,
  source: sourceId,
  person: personId,
});
interface Counted {
  readonly sourceId: SourceId;
  readonly personId: PersonId;
  readonly count: number;
}
export const marksBy = (db: Db, asked: Asked): (Counted & { readonly kind: string })[] =>
  db.all(marks(asked), named(asked));
export const answersBy = (db: Db, asked: Asked): Counted[] => db.all(answers(asked), named(asked));
interface ReadRow {
  readonly sourceId: SourceId;
  readonly personId: PersonId;
  readonly readShare: number;
  /** JSON of `Spans`, of characters and of seconds. */
  readonly spans: string;
  readonly heard: string;
  readonly openedAt: string | null;
}
export const readBy = (db: Db, asked: Asked): ReadRow[] => db.all(SHELVES, named(asked));

const CLOSED = `
  SELECT 1 AS one FROM assignment g JOIN membership m ON m.class_id = g.class_id
  WHERE g.class_id = @class AND g.source_id = @source AND g.comments = 0 AND m.person_id = @me AND m.role = 'student'
    AND ${isSetForGroup('m', 'g')}`;
/** Whether somebody may not write for a class there now. */
export const commentsClosed = (db: Db, { classId, sourceId }: Place, me: PersonId): boolean =>
  db.get(CLOSED, { class: classId, source: sourceId, me }) !== undefined;

/** Where somebody sees others after their own, and has not yet. */
const WAITING = `
  SELECT g.class_id, g.marks FROM assignment g
  JOIN membership m ON m.class_id = g.class_id AND m.role = 'student'
  WHERE g.source_id = @source AND g.others_seen = 'after_own' AND m.person_id = @me AND NOT EXISTS (
    SELECT 1 FROM own_given o
    WHERE o.class_id = g.class_id AND o.source_id = g.source_id AND o.person_id = m.person_id)`;
const GIVE =
  'INSERT INTO own_given (class_id, source_id, person_id, given_at) VALUES (?, ?, ?, ?) ON CONFLICT DO NOTHING';
export const waitingForOwn = (db: Db, me: PersonId, source: SourceId): { classId: ClassId; marks: string }[] =>
  db.all(WAITING, { me, source });
export const giveOwn = (db: Db, { classId, sourceId }: Place, personId: PersonId, now: string): number =>
  db.run(GIVE, classId, sourceId, personId, now);

const OPENS = 'is_open = 1';
/** What time has come for, and what is written then. It is no change of what was asked for: the version stays. */
const TIMES = [
  ['assignment', 'is_open = 0 AND opens_at <= @now', OPENS],
  ['assignment', "shown_at IS NULL AND due_at <= @now AND others_seen = 'after_due'", 'shown_at = @now'],
  ['extension', 'passed = 0 AND due_at <= @now', 'passed = 1'],
] as const;
const ANY_COME = TIMES.map(([table, due]) => `EXISTS (SELECT 1 FROM ${table} WHERE ${due})`).join(' OR ');
const HAS_COME = `SELECT ${ANY_COME} AS come`;
export const hasTimeCome = (db: Db, now: string): boolean => db.get<{ come: number }>(HAS_COME, { now })!.come === 1;
/** Does what time has come for, once; where something changed. */
export const passTime = (db: Db, now: string): readonly Place[] =>
  TIMES.flatMap(([table, due, to]) => {
    const passed = db.all<Place>(`UPDATE ${table} SET ${to} WHERE ${due} RETURNING class_id, source_id`, { now });
    // What opens is published as it stands then: nobody saw it before.
    if (to === OPENS) for (const place of passed) publish(db, place, { now, more: 0, lookAgain: false });
    return passed;
  });

/** `asked` is how many questions there are, which count where they are to be answered. */
export const expectedOf = (
  { marks, answers, questions }: Pick<AssignmentRow, 'marks' | 'answers' | 'questions'>,
  asked: number,
): Expectation => ({
  marks: JSON.parse(marks) as ExpectedMarks[],
  answers,
  questions: questions === 1 ? asked : 0,
});
