import type { ClassId, Live, LiveNow, PersonId } from '@avrelle/core/wire';
import type { Db } from '../db/database';

interface Row {
  readonly classId: ClassId;
  readonly className: string;
  readonly tint: string;
  readonly byId: PersonId;
  readonly byName: string;
  readonly startedAt: string;
  readonly state: string;
}
const ROW = `
  SELECT l.class_id, c.name AS class_name, c.tint, p.id AS by_id, p.name AS by_name, l.started_at, l.state
  FROM live l JOIN class c ON c.id = l.class_id JOIN person p ON p.id = l.shown_by`;
const ONE = `${ROW} WHERE l.class_id = ?`;
export const LIVE_FOR = `
  ${ROW} JOIN membership m ON m.class_id = l.class_id WHERE m.person_id = ? ORDER BY l.started_at, l.class_id`;

/** What stands of it; where one was on the page is not written down. */
type Stored = Pick<Live, 'walkthroughId' | 'place' | 'step' | 'blank' | 'answers' | 'questionId'>;

function liveOf({ classId, byId, byName, startedAt, state }: Row): Live {
  return { ...(JSON.parse(state) as Stored), classId, by: { id: byId, name: byName }, startedAt, top: null };
}
const nowOf = (row: Row): LiveNow => ({
  class: { id: row.classId, name: row.className, tint: row.tint },
  by: { id: row.byId, name: row.byName },
  startedAt: row.startedAt,
  sourceId: (JSON.parse(row.state) as Stored).place.sourceId,
});

export function liveIn(db: Db, classId: ClassId): Live | null {
  const row = db.get<Row>(ONE, classId);
  return row ? liveOf(row) : null;
}
export function liveNowIn(db: Db, classId: ClassId): LiveNow | null {
  const row = db.get<Row>(ONE, classId);
  return row ? nowOf(row) : null;
}
/** In all classes somebody is in. */
export const liveFor = (db: Db, me: PersonId): LiveNow[] => db.all<Row>(LIVE_FOR, me).map(nowOf);

const PUT = `
  INSERT INTO live (class_id, shown_by, started_at, heard_at, state) VALUES (@class, @by, @startedAt, @now, @state)
  ON CONFLICT (class_id) DO UPDATE SET shown_by = @by, started_at = @startedAt, heard_at = @now, state = @state`;
export function putLive(db: Db, { classId, by, startedAt, ...live }: Live, now: string): void {
  const { walkthroughId, place, step, blank, answers, questionId } = live;
  const stored: Stored = { walkthroughId, place, step, blank, answers, questionId };
  db.run(PUT, { class: classId, by: by.id, startedAt, now, state: JSON.stringify(stored) });
}
const HEARD = 'UPDATE live SET heard_at = ? WHERE class_id = ?';
export const heardOfShower = (db: Db, classId: ClassId, now: string): number => db.run(HEARD, now, classId);
const END = 'DELETE FROM live WHERE class_id = ?';
export const deleteLive = (db: Db, classId: ClassId): boolean => db.run(END, classId) > 0;
export const LEFT = 'SELECT class_id AS id FROM live WHERE heard_at < ?';
/** Classes where who shows was not heard of since. */
export const leftSince = (db: Db, time: string): ClassId[] => db.all<{ id: ClassId }>(LEFT, time).map(({ id }) => id);
