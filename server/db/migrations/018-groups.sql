-- Groups of a class. One that is dissolved stays for what was written for it.
CREATE TABLE class_group (
  id TEXT PRIMARY KEY,
  class_id TEXT NOT NULL REFERENCES class(id) ON DELETE CASCADE,
  name TEXT NOT NULL,
  position INTEGER NOT NULL,
  dissolved INTEGER NOT NULL DEFAULT 0
) STRICT;
CREATE INDEX class_group_class ON class_group(class_id, dissolved, position);
ALTER TABLE class ADD COLUMN groups_version INTEGER NOT NULL DEFAULT 0;

-- The one group of the class that somebody is in.
ALTER TABLE membership ADD COLUMN group_id TEXT REFERENCES class_group(id);
CREATE INDEX membership_group ON membership(group_id) WHERE group_id IS NOT NULL;
ALTER TABLE former_membership ADD COLUMN group_id TEXT REFERENCES class_group(id);
CREATE INDEX former_membership_group ON former_membership(group_id) WHERE group_id IS NOT NULL;
-- Of the class, only a group and who teaches it.
ALTER TABLE annotation_class ADD COLUMN group_id TEXT REFERENCES class_group(id);
CREATE INDEX annotation_class_group ON annotation_class(group_id) WHERE group_id IS NOT NULL;

-- A reading is set for the whole class, or for some of its groups.
ALTER TABLE assignment ADD COLUMN for_groups INTEGER NOT NULL DEFAULT 0;
CREATE TABLE assignment_group (
  class_id TEXT NOT NULL,
  source_id TEXT NOT NULL,
  group_id TEXT NOT NULL REFERENCES class_group(id),
  PRIMARY KEY (class_id, source_id, group_id),
  FOREIGN KEY (class_id, source_id) REFERENCES assignment(class_id, source_id) ON DELETE CASCADE
) STRICT, WITHOUT ROWID;
CREATE INDEX assignment_group_group ON assignment_group(group_id);

DROP VIEW annotation_visible;
DROP VIEW source_visible;
DROP VIEW class_reach;
-- Which sources members read by their classes. Withheld: of what was written for the class, a student sees only what
-- its teachers wrote, and their own. What is set for other groups is not set for them.
CREATE VIEW class_reach(person_id, class_id, source_id, withheld, teaches, group_id) AS
  SELECT m.person_id, cs.class_id, cs.source_id,
    CASE WHEN m.role <> 'student' THEN 0 ELSE EXISTS (
      SELECT 1 FROM assignment g WHERE g.class_id = cs.class_id AND g.source_id = cs.source_id
        AND (g.for_groups = 0 OR EXISTS (
          SELECT 1 FROM assignment_group x
           WHERE x.class_id = g.class_id AND x.source_id = g.source_id AND x.group_id = m.group_id))
        AND CASE g.others_seen
        WHEN 'at_once' THEN 0
        WHEN 'after_own' THEN NOT EXISTS (
          SELECT 1 FROM own_given o
           WHERE o.class_id = g.class_id AND o.source_id = g.source_id AND o.person_id = m.person_id)
        WHEN 'after_due' THEN g.shown_at IS NULL OR EXISTS (
          SELECT 1 FROM extension e
           WHERE e.class_id = g.class_id AND e.source_id = g.source_id AND e.person_id = m.person_id AND e.passed = 0)
        ELSE g.shown_at IS NULL END)
    END,
    m.role <> 'student', m.group_id
  FROM class_source cs
  JOIN membership m ON m.class_id = cs.class_id
  JOIN source s ON s.id = cs.source_id AND s.deleted_at IS NULL
  WHERE m.role <> 'student' OR NOT EXISTS (
    SELECT 1 FROM assignment g WHERE g.class_id = cs.class_id AND g.source_id = cs.source_id AND g.is_open = 0
      AND (g.for_groups = 0 OR EXISTS (
        SELECT 1 FROM assignment_group x
         WHERE x.class_id = g.class_id AND x.source_id = g.source_id AND x.group_id = m.group_id)));
CREATE VIEW source_visible(person_id, source_id) AS
  SELECT s.owner_id, s.id FROM source s WHERE s.deleted_at IS NULL
  UNION ALL
  SELECT person_id, source_id FROM class_reach;
-- Who teaches a class sees all that is for it. Students do not see what is for its teachers alone or for another group,
-- but for answers to what they wrote; nor what is held or hidden.
CREATE VIEW annotation_visible(person_id, annotation_id, seq) AS
  SELECT a.author_id, a.id, a.seq FROM annotation a WHERE a.deleted_at IS NULL
  UNION ALL
  SELECT w.person_id, a.id, a.seq
    FROM annotation a
    JOIN annotation_class ac ON ac.annotation_id = a.id
    JOIN class_reach w ON w.class_id = ac.class_id AND w.source_id = a.source_id
   WHERE a.deleted_at IS NULL
     AND (w.teaches OR (ac.held = 0 AND ac.hidden_reason IS NULL
       AND ((ac.teachers_only = 0 AND (ac.group_id IS NULL OR ac.group_id = w.group_id)) OR EXISTS (
         SELECT 1 FROM annotation o WHERE o.id = a.root_id AND o.author_id = w.person_id))
       AND (w.withheld = 0 OR EXISTS (
         SELECT 1 FROM membership t
          WHERE t.class_id = ac.class_id AND t.person_id = a.author_id AND t.role <> 'student'))))
     AND (a.root_id IS NULL OR EXISTS (
       SELECT 1 FROM annotation r
        WHERE r.id = a.root_id
          AND (r.author_id = w.person_id OR EXISTS (
            SELECT 1 FROM annotation_class rc
              JOIN class_reach rw ON rw.class_id = rc.class_id AND rw.source_id = r.source_id
                AND rw.person_id = w.person_id
             WHERE rc.annotation_id = r.id
               AND (rw.teaches OR (rc.teachers_only = 0 AND rc.held = 0 AND rc.hidden_reason IS NULL
                 AND (rc.group_id IS NULL OR rc.group_id = rw.group_id) AND (rw.withheld = 0 OR EXISTS (
                 SELECT 1 FROM membership t
                  WHERE t.class_id = rc.class_id AND t.person_id = r.author_id AND t.role <> 'student'))))))));
