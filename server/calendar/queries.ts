import type { Me, PersonId } from '@avrelle/core/wire';
import type { Db } from '../db/database';

const TOKEN = 'SELECT token FROM calendar_address WHERE person_id = ?';
const PUT = `
  INSERT INTO calendar_address (person_id, token, made_at) VALUES (@me, @token, @now)
  ON CONFLICT (person_id) DO UPDATE SET token = @token, made_at = @now`;
const END = 'DELETE FROM calendar_address WHERE person_id = ?';
/** Who is suspended has none. */
const OWNER = `
  SELECT p.id, p.name FROM calendar_address c JOIN person p ON p.id = c.person_id
  WHERE c.token = ? AND p.suspended_at IS NULL`;

export const calendarToken = (db: Db, me: PersonId): string | null =>
  db.get<{ token: string }>(TOKEN, me)?.token ?? null;
export const setCalendarToken = (db: Db, me: PersonId, token: string, now: string): number =>
  db.run(PUT, { me, token, now });
export const endCalendar = (db: Db, me: PersonId): number => db.run(END, me);
export const ownerOfCalendar = (db: Db, token: string): Pick<Me, 'id' | 'name'> | undefined =>
  db.get<Pick<Me, 'id' | 'name'>>(OWNER, token);
