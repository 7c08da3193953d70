import { randomBytes } from 'node:crypto';
import { TZDate } from '@date-fns/tz';
import { addWeeks } from 'date-fns';
import { startingKind, type KindCode } from '@avrelle/core/legend';
import type { AssignmentFields, ClassId, ClassLabel, Me, NamedExpectation, NextClass } from '@avrelle/core/wire';
import { mustBe } from '../access/access';
import { assignmentsOf } from '../assignments/assignments';
import { standingOf } from '../assignments/put';
import { insertAssignment, type Place } from '../assignments/queries';
import type { Context } from '../context';
import { joinCode } from '../joining/join-code';
import { kindsOf, legendVersion, storeLegend } from '../legend/queries';
import { copyClassCards } from '../review/class-card-queries';
import { addClassSource, classLabel, insertClass, joinClass, readingsInOrder } from './queries';

/**
 * A class that begins with what another reads, what is set for it and its Legend; nobody is in it but who begins it,
 * and nothing is written. Sent again, it is the same class.
 */
export function beginNext(context: Context, me: Me, from: ClassId, next: NextClass): ClassLabel {
  const { db, now, events } = context;
  const { id, weeks, zone } = next;
  return db.transaction(() => {
    if (!insertClass(db, { id, code: joinCode(randomBytes), personId: me.id }, next, now())) {
      mustBe(db, me.id, { thing: 'class', as: 'teacher' }, id);
      return classLabel(db, id)!;
    }
    joinClass(db, { classId: id, personId: me.id, role: 'teacher' }, now());
    // In the order in which they were added; the clock has no finer ticks than the list needs.
    const start = Date.parse(now());
    readingsInOrder(db, from).forEach((sourceId, n) => {
      addClassSource(db, { classId: id, sourceId, personId: me.id }, new Date(start + n).toISOString());
    });
    const codes = copyLegend(context, from, id);
    const later = (instant: string | null): string | null =>
      instant === null || weeks === null ? null : new Date(addWeeks(new TZDate(instant, zone), weeks)).toISOString();
    for (const set of assignmentsOf(db, me.id, { classId: from })) {
      const { instructions, othersSeen, comments, questions, inOrder, expected, source } = set;
      const { answers } = expected;
      const marks = renamed(expected.marks, codes);
      const put = { instructions, othersSeen, comments, questions, inOrder, answers, marks, groupIds: [] };
      setIn(
        context,
        me,
        { classId: id, sourceId: source.id },
        { ...put, opensAt: later(set.opensAt), dueAt: later(set.dueAt) },
      );
    }
    copyClassCards(db, me.id, { from, to: id }, now());
    events.append({ type: 'classes', classId: id });
    return classLabel(db, id)!;
  });
}

/** The kinds of a class have codes of their own; gives the new ones by the old. */
function copyLegend({ db, newId }: Context, from: ClassId, to: ClassId): ReadonlyMap<KindCode, KindCode> {
  if (legendVersion(db, from) === 0) return new Map();
  const kinds = kindsOf(db, from);
  const codes = new Map(kinds.map(({ code }) => [code, newId()]));
  storeLegend(
    db,
    to,
    kinds.map((kind) => ({ ...kind, code: codes.get(kind.code)! })),
  );
  return codes;
}

/** Kinds that were taken from the Legend meanwhile count as any, together. */
function renamed(marks: NamedExpectation['marks'], codes: ReadonlyMap<KindCode, KindCode>): AssignmentFields['marks'] {
  const counts = new Map<KindCode | null, number>();
  for (const { kind, count } of marks) {
    const code = kind === null || startingKind(kind) ? kind : (codes.get(kind) ?? null);
    counts.set(code, (counts.get(code) ?? 0) + count);
  }
  return [...counts].map(([kind, count]) => ({ kind, count }));
}

function setIn({ db, now }: Context, me: Me, place: Place, put: AssignmentFields): void {
  const at = now();
  // Without a date, what was to be shown after it waits for a teacher.
  const othersSeen = put.othersSeen === 'after_due' && put.dueAt === null ? 'after_release' : put.othersSeen;
  const fitting = { ...put, othersSeen, version: 1 };
  insertAssignment(db, place, fitting, { ...standingOf(fitting, undefined, at), me: me.id, now: at });
}
