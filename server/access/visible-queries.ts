/** Who sees what is said once, by `annotation_visible`. `x` names an annotation; `@me` is the asker. */
export const sees = (x: string): string =>
  `EXISTS (SELECT 1 FROM annotation_visible y WHERE y.person_id = @me AND y.seq = ${x}.seq)`;

/**
 * Of the classes an annotation `x` is for, those that the asker may know of: the author all that they chose; others
 * their own, students only where it is shown to them. A JSON array of ids.
 */
export const classesShown = (x: string): string => `(
  SELECT json_group_array(ac.class_id) FROM annotation_class ac
  WHERE ac.annotation_id = ${x}.id AND CASE WHEN ${x}.author_id = @me THEN ac.from_class IS NULL ELSE EXISTS (
    SELECT 1 FROM membership m WHERE m.class_id = ac.class_id AND m.person_id = @me AND ${isShownTo('m', 'ac')}) END)`;
/** Who writes `a`, and who teaches there, know where it is held or hidden; all who see it, who recommends it. */
const KNOWN_THERE = `(a.author_id = @me OR EXISTS (
  SELECT 1 FROM membership m WHERE m.class_id = ac.class_id AND m.person_id = @me AND m.role <> 'student'))`;
export const FOR_WHOM = `
  EXISTS (SELECT 1 FROM annotation_class ac WHERE ac.annotation_id = a.id AND ac.teachers_only = 1) AS teachers_only,
  (SELECT json_group_array(json_object('classId', ac.class_id, 'groupId', ac.group_id, 'name', cg.name))
    FROM annotation_class ac JOIN class_group cg ON cg.id = ac.group_id
    WHERE ac.annotation_id = a.id AND (a.author_id = @me OR EXISTS (
      SELECT 1 FROM membership m WHERE m.class_id = ac.class_id AND m.person_id = @me
        AND (m.role <> 'student' OR m.group_id = ac.group_id)))) AS groups,
  (SELECT json_group_array(json_object('classId', ac.class_id, 'releaseAt', ac.release_at)) FROM annotation_class ac
    WHERE ac.annotation_id = a.id AND ac.held = 1 AND ${KNOWN_THERE}) AS held,
  (SELECT json_group_array(json_object('classId', ac.class_id, 'reason', ac.hidden_reason, 'by', coalesce(q.name, '')))
    FROM annotation_class ac LEFT JOIN person q ON q.id = ac.hidden_by
    WHERE ac.annotation_id = a.id AND ac.hidden_reason IS NOT NULL AND ${KNOWN_THERE}) AS hidden,
  (SELECT q.name FROM person q WHERE q.id = a.endorsed_by) AS endorsed`;
/** Whether what is for a class is for one of its members: `m` names a membership, `ac` a row of `annotation_class`. */
export const isShownTo = (m: string, ac: string): string =>
  `(${m}.role <> 'student' OR (${ac}.teachers_only = 0 AND ${ac}.held = 0 AND ${ac}.hidden_reason IS NULL
    AND (${ac}.group_id IS NULL OR ${ac}.group_id = ${m}.group_id)))`;

/**
 * The sources of the asker's classes, each with how its class is named in the audience of annotations: a bare class
 * where it does not matter whether something is for its students, too; a student's group beside it. Where what others
 * wrote is withheld, once for each of those who teach the class and are seen all the same. `only` is a further condition
 * on `cs.source_id` or `cs.class_id`.
 */
export const reach = (only = ''): string => `
  SELECT cs.source_id, CASE WHEN cs.teaches THEN '' ELSE 'c' END || replace(cs.class_id, '-', '') AS token,
    NULL AS author_id
  FROM class_reach cs WHERE cs.person_id = @me AND cs.withheld = 0 ${only}
  UNION ALL
  SELECT cs.source_id, 'g' || replace(cs.group_id, '-', ''), NULL
  FROM class_reach cs
  WHERE cs.person_id = @me AND cs.withheld = 0 AND cs.teaches = 0 AND cs.group_id IS NOT NULL ${only}
  UNION ALL
  SELECT cs.source_id, j.value, t.person_id
  FROM class_reach cs JOIN membership t ON t.class_id = cs.class_id AND t.role <> 'student'
  JOIN json_each(json_array(
    'c' || replace(cs.class_id, '-', ''), 'g' || replace(coalesce(cs.group_id, 'none'), '-', ''))) j
  WHERE cs.person_id = @me AND cs.withheld = 1 ${only}`;
export const REACH = reach();

/**
 * The same, for going over thousands: what a row itself says of whom it is for is read, and the rule is asked of
 * answers alone, which hang on what they answer. `from` names a table with the rows of REACH.
 */
export const seesByReach = (x: string, from: string): string => `(${x}.deleted_at IS NULL AND (
  ${x}.author_id = @me OR CASE WHEN ${x}.root_id IS NOT NULL THEN ${sees(x)} ELSE EXISTS (
    SELECT 1 FROM ${from} w WHERE w.source_id = ${x}.source_id AND instr(${x}.audience, w.token)
      AND (w.author_id IS NULL OR w.author_id = ${x}.author_id)) END))`;

/** A class `c` that somebody can join. */
export const IS_OPEN_CLASS = 'c.deleted_at IS NULL AND c.archived_at IS NULL';
/**
 * Of the classes that an annotation is for beside those of the asker, and whose students see it: nobody learns of a
 * class where it is held, hidden, or for its teachers or a group alone; that a class of theirs reads together with
 * one is no news. `id` is an expression; `ac` and `c` name rows.
 */
export const elsewhere = (id: string, columns: string): string => `
  SELECT ${columns} FROM annotation_class ac JOIN class c ON c.id = ac.class_id AND ${IS_OPEN_CLASS}
  WHERE ac.annotation_id = ${id} AND ac.teachers_only = 0 AND ac.held = 0 AND ac.hidden_reason IS NULL
    AND ac.group_id IS NULL AND ac.from_class IS NULL AND NOT EXISTS (
    SELECT 1 FROM membership m WHERE m.class_id = ac.class_id AND m.person_id = @me) AND NOT EXISTS (
    SELECT 1 FROM annotation_class x JOIN membership m ON m.class_id = x.class_id AND m.person_id = @me
    WHERE x.annotation_id = ac.annotation_id AND x.from_class = ac.class_id)`;
/** Whether what is set is set for a student: `m` names a row with their group, `g` an assignment. */
export const isSetForGroup = (m: string, g: string): string =>
  `(${g}.for_groups = 0 OR EXISTS (
    SELECT 1 FROM assignment_group x
    WHERE x.class_id = ${g}.class_id AND x.source_id = ${g}.source_id AND x.group_id = ${m}.group_id))`;
/** The same for whoever reads it: `w` names a row of `class_reach`. */
export const isSetFor = (w: string, g: string): string => `(${w}.teaches OR ${isSetForGroup(w, g)})`;

/** Whether the asker has a card `c` to practise: it is theirs, or was given to a class of theirs. */
export const practises = (c: string): string => `(${c}.deleted_at IS NULL AND (${c}.owner_id = @me OR EXISTS (
  SELECT 1 FROM class_card k JOIN membership w ON w.class_id = k.class_id AND w.person_id = @me
  WHERE k.card_id = ${c}.id)))`;
