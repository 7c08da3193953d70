import {
  NOTIFICATION_KINDS,
  type ClassId,
  type ClassLabel,
  type NotificationKind,
  type NotificationSettings,
  type PersonId,
} from '@avrelle/core/wire';
import type { Db } from '../db/database';

type Channel = 'desk' | 'mail';
type KindSetting = NotificationSettings['kinds'][number];

const CHOSEN = 'SELECT kind, desk, mail FROM notification_setting WHERE person_id = ?';
interface ChosenRow {
  readonly kind: NotificationKind;
  readonly desk: number;
  readonly mail: number;
}
/** Every kind; what nobody chose is told everywhere. */
export function kindSettings(db: Db, me: PersonId): KindSetting[] {
  const chosen = new Map(db.all<ChosenRow>(CHOSEN, me).map((row) => [row.kind, row]));
  return NOTIFICATION_KINDS.map((kind) => {
    const row = chosen.get(kind);
    return { kind, desk: row?.desk !== 0, mail: row?.mail !== 0 };
  });
}
/** The kinds of which somebody is told nothing there. */
export const kindsOff = (db: Db, me: PersonId, where: Channel): NotificationKind[] =>
  kindSettings(db, me)
    .filter((setting) => !setting[where])
    .map(({ kind }) => kind);

const SET_KIND = `
  INSERT INTO notification_setting (person_id, kind, desk, mail) VALUES (@me, @kind, @desk, @mail)
  ON CONFLICT (person_id, kind) DO UPDATE SET desk = @desk, mail = @mail`;
export function setKinds(db: Db, me: PersonId, kinds: readonly KindSetting[]): void {
  for (const { kind, desk, mail } of kinds) db.run(SET_KIND, { me, kind, desk: Number(desk), mail: Number(mail) });
}

export interface Schedule {
  readonly every: 'hour' | 'day';
  readonly hour: number;
  readonly zone: string;
}
const SCHEDULE = 'SELECT every, hour, zone FROM digest_schedule WHERE person_id = ?';
export const scheduleOf = (db: Db, me: PersonId): Schedule | undefined => db.get<Schedule>(SCHEDULE, me);

const SET_SCHEDULE = `
  INSERT INTO digest_schedule (person_id, every, hour, zone, next_at) VALUES (@me, @every, @hour, @zone, @nextAt)
  ON CONFLICT (person_id) DO UPDATE SET every = @every, hour = @hour, zone = @zone, next_at = @nextAt, tries = 0`;
export const setSchedule = (db: Db, me: PersonId, schedule: Schedule & { readonly nextAt: string }): number =>
  db.run(SET_SCHEDULE, { me, ...schedule });
const END_SCHEDULE = 'DELETE FROM digest_schedule WHERE person_id = ?';
export const endSchedule = (db: Db, me: PersonId): number => db.run(END_SCHEDULE, me);

export const MUTED_BY = `
  SELECT c.id, c.name, c.tint FROM muted_class y JOIN class c ON c.id = y.class_id
  WHERE y.person_id = ? AND c.deleted_at IS NULL ORDER BY c.name`;
export const mutedBy = (db: Db, me: PersonId): ClassLabel[] => db.all<ClassLabel>(MUTED_BY, me);

const MUTE = 'INSERT INTO muted_class (person_id, class_id) VALUES (?, ?) ON CONFLICT DO NOTHING';
const UNMUTE = 'DELETE FROM muted_class WHERE person_id = ? AND class_id = ?';
/** How many rows that changed. */
export const setMuted = (db: Db, me: PersonId, classId: ClassId, muted: boolean): number =>
  db.run(muted ? MUTE : UNMUTE, me, classId);
