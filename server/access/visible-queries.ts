/** Who sees what is said once, by `annotation_visible`. `x` names an annotation; `@me` is the asker. */
export const sees = (x: string): string =>
  `EXISTS (SELECT 1 FROM annotation_visible y WHERE y.person_id = @me AND y.seq = ${x}.seq)`;

/**
 * The sources of the asker's classes, each with how its class is named in the audience of annotations; where what others
 * wrote is withheld, once for each of those who teach the class and are seen all the same. `only` is a further condition
 * on `cs.source_id`.
 */
export const reach = (only = ''): string => `
  SELECT cs.source_id, 'c' || replace(cs.class_id, '-', '') AS token, NULL AS author_id
  FROM class_reach cs WHERE cs.person_id = @me AND cs.withheld = 0 ${only}
  UNION ALL
  SELECT cs.source_id, 'c' || replace(cs.class_id, '-', ''), t.person_id
  FROM class_reach cs JOIN membership t ON t.class_id = cs.class_id AND t.role <> 'student'
  WHERE cs.person_id = @me AND cs.withheld = 1 ${only}`;
export const REACH = reach();

/**
 * The same, for going over thousands: what a row itself says of whom it is for is read first, and the rule is asked of
 * answers alone, which hang on what they answer. `from` names a table with the rows of REACH.
 */
export const seesByReach = (x: string, from: string): string =>
  `(${x}.deleted_at IS NULL AND (${x}.author_id = @me OR (EXISTS (SELECT 1 FROM ${from} w WHERE w.source_id = ${x}.source_id AND instr(${x}.audience, w.token) AND (w.author_id IS NULL OR w.author_id = ${x}.author_id)) AND (${x}.root_id IS NULL OR ${sees(x)}))))`;
