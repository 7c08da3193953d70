/** Who sees what is said once, by `annotation_visible`. `x` names an annotation; `@me` is the asker. */
export const sees = (x: string): string =>
  `EXISTS (SELECT 1 FROM annotation_visible y WHERE y.person_id = @me AND y.seq = ${x}.seq)`;

/** The sources of the asker's classes, each with how its class is named in the audience of annotations. */
export const REACH = `SELECT cs.source_id, 'c' || replace(cs.class_id, '-', '') AS token FROM membership m JOIN class_source cs ON cs.class_id = m.class_id JOIN source s ON s.id = cs.source_id AND s.deleted_at IS NULL WHERE m.person_id = @me`;

/**
 * The same, for going over thousands: what a row itself says of whom it is for is read first, and the rule is asked of
 * answers alone, which hang on what they answer. `reach` names a table with the rows of REACH.
 */
export const seesByReach = (x: string, reach: string): string =>
  `(${x}.deleted_at IS NULL AND (${x}.author_id = @me OR (EXISTS (SELECT 1 FROM ${reach} w WHERE w.source_id = ${x}.source_id AND instr(${x}.audience, w.token)) AND (${x}.root_id IS NULL OR ${sees(x)}))))`;
