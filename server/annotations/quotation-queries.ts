import type { VersionId } from '@avrelle/core/wire';
import type { Inline, InlineType } from '@avrelle/core/text';
import type { Db } from '../db/database';

/** How far before a passage something may begin that reaches into it, in characters of the stream. */
const BACK = 2_000;
/** All at once: one by one, those of a page of links would keep everybody waiting. */
const INSERT = `
  INSERT INTO version_inline (version_id, start, stop, type, value)
  SELECT ?, value ->> 'start', value ->> 'end', value ->> 'type', value ->> 'value' FROM json_each(?) WHERE true
  ON CONFLICT DO NOTHING`;

/** Of annotation `a`: what its words are within their line, on the version it was made on, as JSON; null without words. */
export const inlinesOf = (
  a: string,
): string => `(SELECT json_group_array(json_array(i.start, i.stop, i.type, i.value)) FROM version_inline i
  WHERE i.version_id = ${a}.version_id AND i.start BETWEEN (${a}.anchor ->> '$.position.start') - ${BACK} AND ${a}.anchor ->> '$.position.end' AND i.stop >= ${a}.anchor ->> '$.position.start')`;

export function insertInlines(db: Db, versionId: VersionId, inlines: readonly Inline[]): void {
  if (inlines.length > 0) db.run(INSERT, versionId, JSON.stringify(inlines));
}

/** As `inlinesOf` gives them, in the order in which they begin, the longer before what it holds. */
export function readInlines(json: string | null): readonly Inline[] {
  if (json === null || json === '[]') return [];
  const rows = JSON.parse(json) as readonly (readonly [number, number, InlineType, string])[];
  const inlines = rows.map(([start, end, type, value]): Inline => ({ start, end, type, value }));
  return inlines.sort((a, b) => a.start - b.start || b.end - a.end);
}
