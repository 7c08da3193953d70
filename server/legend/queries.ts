import type { LegendOwnerId, PersonId, SourceId, AnnotationId } from '@avrelle/core/wire';
import { STARTING_LEGEND, startingKind, type Kind, type KindCode } from '@avrelle/core/legend';
import type { Db } from '../db/database';

/** Columns and join with which a query of annotations `a` learns how their kinds look; read with `kindFrom`. */
export const KIND_LOOK = 'k.name AS kind_name, k.pigment AS kind_pigment, k.line AS kind_line, k.sign AS kind_sign';
export const KIND_COLUMNS = `a.kind, ${KIND_LOOK}`;
export const KIND_JOIN = 'LEFT JOIN kind k ON k.owner_id = a.kind_owner AND k.code = a.kind';
export interface KindRow {
  kind: KindCode;
  kindName: string | null;
  kindPigment: Kind['pigment'] | null;
  kindLine: Kind['line'] | null;
  kindSign: string | null;
}

export function kindFrom(row: KindRow): Kind {
  const { kind: code, kindName: name, kindPigment: pigment, kindLine: line, kindSign: sign } = row;
  return name !== null && pigment !== null && line !== null && sign !== null
    ? { code, name, pigment, line, sign }
    : startingKind(code)!;
}

const VERSION = 'SELECT version FROM key_version WHERE owner_id = ?';
const KINDS = 'SELECT code, name, pigment, line, sign FROM kind WHERE owner_id = ? AND retired = 0 ORDER BY position';
const SET_VERSION =
  'INSERT INTO key_version (owner_id, version) VALUES (?, 1) ON CONFLICT (owner_id) DO UPDATE SET version = version + 1';
const RETIRE = 'UPDATE kind SET retired = 1 WHERE owner_id = ?';
const PUT = `INSERT INTO kind (owner_id, code, name, pigment, line, sign, position) VALUES (@owner, @code, @name, @pigment, @line, @sign, @position)
  ON CONFLICT (owner_id, code) DO UPDATE SET name = @name, pigment = @pigment, line = @line, sign = @sign, position = @position, retired = 0`;
const USES =
  'SELECT kind AS code, count(*) AS count FROM annotation WHERE kind_owner = ? AND deleted_at IS NULL GROUP BY kind';
const OWNS = 'SELECT 1 AS one FROM kind WHERE owner_id = ? AND code = ?';
const CLASS_WITH =
  'SELECT k.owner_id FROM kind k JOIN membership m ON m.class_id = k.owner_id WHERE k.code = ? AND m.person_id = ?';
const TO_REPLACE =
  'SELECT id, source_id FROM annotation WHERE kind_owner = @owner AND kind = @from AND deleted_at IS NULL AND (@ids IS NULL OR id IN (SELECT value FROM json_each(@ids)))';
const REPLACE = 'UPDATE annotation SET kind = ?, kind_owner = ?, updated_at = ?, version = version + 1 WHERE id = ?';

export const legendVersion = (db: Db, ownerId: LegendOwnerId): number =>
  db.get<{ version: number }>(VERSION, ownerId)?.version ?? 0;

/** The kinds of a Legend in their order; `otherwise` where nobody changed it. */
export const kindsOf = (
  db: Db,
  ownerId: LegendOwnerId,
  otherwise: readonly Kind[] = STARTING_LEGEND,
): readonly Kind[] => (legendVersion(db, ownerId) === 0 ? otherwise : db.all<Kind>(KINDS, ownerId));

export const usesOf = (db: Db, ownerId: LegendOwnerId): Record<string, number> =>
  Object.fromEntries(db.all<{ code: string; count: number }>(USES, ownerId).map(({ code, count }) => [code, count]));

/** What is in the Legend no longer is retired; a kind that comes back is what it was. */
export function storeLegend(db: Db, ownerId: LegendOwnerId, kinds: readonly Kind[]): void {
  db.run(SET_VERSION, ownerId);
  db.run(RETIRE, ownerId);
  kinds.forEach((kind, position) => db.run(PUT, { ...kind, owner: ownerId, position }));
}

/** In whose Legend a kind stands that this person may mark with: their own, or that of a class they are in. */
export function ownerOfKind(db: Db, personId: PersonId, code: KindCode): string | undefined {
  if (startingKind(code) || db.get(OWNS, personId, code)) return personId;
  return db.get<{ ownerId: LegendOwnerId }>(CLASS_WITH, code, personId)?.ownerId;
}

export const toReplace = (db: Db, owner: string, from: KindCode, ids: readonly string[] | undefined) =>
  db.all<{ id: string; sourceId: SourceId }>(TO_REPLACE, {
    owner,
    from,
    ids: ids ? JSON.stringify(ids) : null,
  });
export const replaceKind = (
  db: Db,
  id: AnnotationId,
  { to, owner }: { to: KindCode; owner: LegendOwnerId },
  now: string,
): void => void db.run(REPLACE, to, owner, now, id);
