import type {
  AnnotationId,
  ClassId,
  ClassJoining,
  ClassLabel,
  ClassRole,
  Invitation,
  Joining,
  JoinLink,
  JoinRequest,
  MyRequest,
  PersonId,
} from '@avrelle/core/wire';
import { elsewhere, IS_OPEN_CLASS } from '../access/visible-queries';
import type { Db } from '../db/database';

/** A class that somebody wants to join. */
export interface Joined extends ClassLabel {
  readonly joining: Joining;
}
const BY_CODE = `
  SELECT c.id, c.name, c.tint, c.joining FROM class c WHERE c.code = ? AND c.code_open = 1 AND ${IS_OPEN_CLASS}`;
export const classByCode = (db: Db, code: string): Joined | undefined => db.get<Joined>(BY_CODE, code);

export interface LinkRow extends Joined {
  readonly linkId: string;
  readonly forWhom: string | null;
  readonly role: ClassRole;
  readonly expiresAt: string | null;
  readonly left: number | null;
}
const BY_TOKEN = `
  SELECT c.id, c.name, c.tint, c.joining, l.id AS link_id, l.for_whom, l.role, l.expires_at, l.most - l.used AS left
  FROM join_link l JOIN class c ON c.id = l.class_id WHERE l.token = ? AND ${IS_OPEN_CLASS}`;
export const linkByToken = (db: Db, token: string): LinkRow | undefined => db.get<LinkRow>(BY_TOKEN, token);
const COUNT_USE = 'UPDATE join_link SET used = used + 1 WHERE id = ?';
export const countUse = (db: Db, linkId: string): number => db.run(COUNT_USE, linkId);

const TEACHERS = `
  SELECT p.name FROM membership m JOIN person p ON p.id = m.person_id
  WHERE m.class_id = ? AND m.role = 'teacher' ORDER BY p.name`;
/** What is told of a class to who may join it. */
export const invitationTo = (
  db: Db,
  { id, name, tint, joining }: Joined,
  { isMember, asked }: { readonly isMember: boolean; readonly asked: boolean },
): Invitation => ({
  name,
  tint,
  joining,
  teachers: db.all<{ name: string }>(TEACHERS, id).map((t) => t.name),
  classId: isMember ? id : null,
  asked,
});

const LINK = `
  SELECT id, token, for_whom, email, role, made_at, expires_at, most - used AS left, used FROM join_link`;
const LINKS = `${LINK} WHERE class_id = ? ORDER BY made_at DESC, id DESC`;
const ONE_LINK = `${LINK} WHERE class_id = ? AND id = ?`;
const LINK_FOR = `
  ${LINK} WHERE class_id = @class AND email = @email AND used = 0 AND (expires_at IS NULL OR expires_at > @now)`;
const INSERT_LINK = `
  INSERT INTO join_link (id, class_id, token, for_whom, email, role, made_by, made_at, expires_at, most)
  VALUES (@id, @classId, @token, @forWhom, @email, @role, @madeBy, @madeAt, @expiresAt, @most)
  ON CONFLICT (id) DO NOTHING`;
const DELETE_LINK = 'DELETE FROM join_link WHERE class_id = ? AND id = ?';
const REMOVE_OVER = 'DELETE FROM join_link WHERE expires_at < ?';

export interface NewLink {
  readonly id: string;
  readonly classId: ClassId;
  readonly token: string;
  readonly forWhom: string | null;
  readonly email: string | null;
  readonly role: ClassRole;
  readonly madeBy: PersonId;
  readonly madeAt: string;
  readonly expiresAt: string | null;
  readonly most: number | null;
}
export const linkOf = (db: Db, classId: ClassId, id: string): JoinLink | undefined =>
  db.get<JoinLink>(ONE_LINK, classId, id);
export const insertLink = (db: Db, link: NewLink): boolean => db.run(INSERT_LINK, { ...link }) > 0;
export const deleteLink = (db: Db, classId: ClassId, id: string): boolean => db.run(DELETE_LINK, classId, id) > 0;
/** Of a class, the link that is for somebody by their address and can still be used. */
export const linkFor = (db: Db, classId: ClassId, email: string, now: string): JoinLink | undefined =>
  db.get<JoinLink>(LINK_FOR, { class: classId, email, now });
export const removeLinksOver = (db: Db, before: string): number => db.run(REMOVE_OVER, before);

const ASK = `
  INSERT INTO join_request (id, class_id, person_id, annotation_id, asked_at)
  VALUES (@id, @classId, @personId, @annotationId, @now)
  ON CONFLICT (class_id, person_id) DO UPDATE SET asked_at = @now, refused_at = NULL WHERE refused_at < @again`;
const ASKED = 'SELECT 1 AS one FROM join_request WHERE class_id = ? AND person_id = ? AND refused_at IS NULL';
export const REQUESTS = `
  SELECT r.id, r.person_id, p.name, r.asked_at, s.title AS source_title
  FROM join_request r JOIN person p ON p.id = r.person_id
  LEFT JOIN annotation a ON a.id = r.annotation_id LEFT JOIN source s ON s.id = a.source_id
  WHERE r.class_id = ? AND r.refused_at IS NULL ORDER BY r.asked_at, r.id`;
const ONE_REQUEST = 'SELECT person_id FROM join_request WHERE class_id = ? AND id = ? AND refused_at IS NULL';
const REFUSE = 'UPDATE join_request SET refused_at = ? WHERE id = ?';
const FORGET = 'DELETE FROM join_request WHERE class_id = ? AND person_id = ?';
export const MINE = `
  SELECT r.id, CASE WHEN r.annotation_id IS NULL THEN c.name END AS name, s.title AS source_title, r.asked_at,
    r.refused_at IS NOT NULL AS refused
  FROM join_request r JOIN class c ON c.id = r.class_id AND c.deleted_at IS NULL
  LEFT JOIN annotation a ON a.id = r.annotation_id LEFT JOIN source s ON s.id = a.source_id
  WHERE r.person_id = ? ORDER BY r.asked_at DESC`;
const WITHDRAW = 'DELETE FROM join_request WHERE id = ? AND person_id = ? RETURNING class_id';

export interface Asking {
  readonly id: string;
  readonly classId: ClassId;
  readonly personId: PersonId;
  readonly annotationId: AnnotationId | null;
}
/** False where they ask already, or were refused after `again`. */
export const ask = (
  db: Db,
  asking: Asking,
  { now, again }: { readonly now: string; readonly again: string },
): boolean => db.run(ASK, { ...asking, now, again }) > 0;
export const hasAsked = (db: Db, classId: ClassId, personId: PersonId): boolean =>
  db.get(ASKED, classId, personId) !== undefined;
/** Who asks, by the id of what they ask. */
export const askerIn = (db: Db, classId: ClassId, requestId: string): PersonId | undefined =>
  db.get<{ personId: PersonId }>(ONE_REQUEST, classId, requestId)?.personId;
export const refuse = (db: Db, requestId: string, now: string): number => db.run(REFUSE, now, requestId);
export const forgetRequest = (db: Db, classId: ClassId, personId: PersonId): number =>
  db.run(FORGET, classId, personId);
export const myRequests = (db: Db, me: PersonId): MyRequest[] =>
  db.all<Omit<MyRequest, 'refused'> & { refused: number }>(MINE, me).map((r) => ({ ...r, refused: r.refused === 1 }));
/** The class that was asked; undefined where it was not this person who asked. */
export const withdraw = (db: Db, id: string, me: PersonId): ClassId | undefined =>
  db.get<{ classId: ClassId }>(WITHDRAW, id, me)?.classId;

interface RequestRow extends Omit<JoinRequest, 'person'> {
  readonly personId: PersonId;
  readonly name: string;
}
const SETTINGS = 'SELECT joining, askable FROM class WHERE id = ?';
const SET = 'UPDATE class SET joining = ?, askable = ? WHERE id = ?';
const SET_CODE = 'UPDATE class SET code = ?, code_open = 1 WHERE id = ?';
const CLOSE_CODE = 'UPDATE class SET code_open = 0 WHERE id = ?';
export function joiningOf(db: Db, classId: ClassId): ClassJoining {
  const { joining, askable } = db.get<{ joining: Joining; askable: number }>(SETTINGS, classId)!;
  return {
    joining,
    askable: askable === 1,
    links: db.all<JoinLink>(LINKS, classId),
    requests: db
      .all<RequestRow>(REQUESTS, classId)
      .map(({ personId, name, ...request }) => ({ ...request, person: { id: personId, name } })),
  };
}
export const setJoining = (db: Db, classId: ClassId, joining: Joining, askable: boolean): number =>
  db.run(SET, joining, Number(askable), classId);
export const setCode = (db: Db, classId: ClassId, code: string): number => db.run(SET_CODE, code, classId);
export const closeCode = (db: Db, classId: ClassId): number => db.run(CLOSE_CODE, classId);

const TO_ASK = `${elsewhere('@id', 'c.id')} AND c.askable = 1`;
/** Classes that somebody may ask to join by an annotation they see. */
export const classesToAsk = (db: Db, me: PersonId, id: AnnotationId): ClassId[] =>
  db.all<{ id: ClassId }>(TO_ASK, { me, id }).map((c) => c.id);

export const ASKING_ME = `
  SELECT c.id, c.name, c.tint, count(*) AS people, max(r.asked_at) AS newest_at
  FROM membership m JOIN join_request r ON r.class_id = m.class_id AND r.refused_at IS NULL
  JOIN class c ON c.id = m.class_id
  WHERE m.person_id = ? AND m.role <> 'student' GROUP BY c.id ORDER BY c.name`;
interface AskingMe {
  readonly class: ClassLabel;
  readonly people: number;
  /** When the last of them asked. */
  readonly newestAt: string;
}
/** How many wait to be let in, class by class, for who teaches there. */
export const askingMe = (db: Db, me: PersonId): AskingMe[] =>
  db
    .all<ClassLabel & Omit<AskingMe, 'class'>>(ASKING_ME, me)
    .map(({ people, newestAt, ...label }) => ({ class: label, people, newestAt }));
