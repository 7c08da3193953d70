/** Who sees what is said once, by `annotation_visible`. `x` names an annotation; `@me` is the asker. */
export const sees = (x: string): string =>
  `EXISTS (SELECT 1 FROM annotation_visible y WHERE y.person_id = @me AND y.seq = ${x}.seq)`;

/**
 * The sources of the asker's classes, each with how its class is named in the audience of annotations, and whether what
 * others wrote is still withheld.
 */
export const REACH = `SELECT cs.source_id, 'c' || replace(cs.class_id, '-', '') AS token, cs.withheld FROM class_reach cs WHERE cs.person_id = @me`;

/**
 * The same, for going over thousands: what a row itself says of whom it is for is read first, and the rule is asked only
 * of answers, which hang on what they answer, and where something is withheld. `reach` names a table with the rows of
 * REACH.
 */
export const seesByReach = (x: string, reach: string): string =>
  `(${x}.deleted_at IS NULL AND (${x}.author_id = @me OR EXISTS (SELECT 1 FROM ${reach} w WHERE w.source_id = ${x}.source_id AND instr(${x}.audience, w.token) AND (w.withheld = 0 AND ${x}.root_id IS NULL OR ${sees(x)}))))`;
