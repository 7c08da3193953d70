-- What is held is shown to the students of a class by a release; each of them is told of it once.
CREATE TABLE release (
  id TEXT PRIMARY KEY,
  class_id TEXT NOT NULL REFERENCES class(id) ON DELETE CASCADE,
  source_id TEXT NOT NULL REFERENCES source(id) ON DELETE CASCADE,
  -- Null where its time had come.
  released_by TEXT REFERENCES person(id) ON DELETE SET NULL,
  released_at TEXT NOT NULL
) STRICT;
CREATE INDEX release_class ON release(class_id);
CREATE INDEX release_source ON release(source_id);
CREATE INDEX release_released_by ON release(released_by);

-- Of the class, only those who teach it.
ALTER TABLE annotation_class ADD COLUMN teachers_only INTEGER NOT NULL DEFAULT 0;
-- Kept from the students, until it is released.
ALTER TABLE annotation_class ADD COLUMN held INTEGER NOT NULL DEFAULT 0;
ALTER TABLE annotation_class ADD COLUMN release_at TEXT;
-- Where somebody who teaches the class has hidden it from its students: why, and who.
ALTER TABLE annotation_class ADD COLUMN hidden_reason TEXT;
ALTER TABLE annotation_class ADD COLUMN hidden_by TEXT REFERENCES person(id) ON DELETE SET NULL;
CREATE INDEX annotation_class_hidden_by ON annotation_class(hidden_by) WHERE hidden_by IS NOT NULL;
ALTER TABLE annotation_class ADD COLUMN release_id TEXT REFERENCES release(id) ON DELETE SET NULL;
CREATE INDEX annotation_class_held ON annotation_class(class_id) WHERE held = 1;
CREATE INDEX annotation_class_release_at ON annotation_class(release_at) WHERE held = 1;
CREATE INDEX annotation_class_release ON annotation_class(release_id) WHERE release_id IS NOT NULL;

-- Who has had an annotation of somebody else before their eyes.
CREATE TABLE annotation_seen (
  annotation_id TEXT NOT NULL REFERENCES annotation(id) ON DELETE CASCADE,
  person_id TEXT NOT NULL REFERENCES person(id) ON DELETE CASCADE,
  seen_at TEXT NOT NULL,
  PRIMARY KEY (annotation_id, person_id)
) STRICT, WITHOUT ROWID;
CREATE INDEX annotation_seen_person ON annotation_seen(person_id);

-- One is told of an annotation, or of a release.
CREATE TABLE told (
  id TEXT PRIMARY KEY,
  person_id TEXT NOT NULL REFERENCES person(id) ON DELETE CASCADE,
  annotation_id TEXT REFERENCES annotation(id) ON DELETE CASCADE,
  release_id TEXT REFERENCES release(id) ON DELETE CASCADE,
  created_at TEXT NOT NULL,
  seen_at TEXT,
  CHECK ((annotation_id IS NULL) <> (release_id IS NULL)),
  UNIQUE (person_id, annotation_id),
  UNIQUE (person_id, release_id)
) STRICT;
INSERT INTO told (id, person_id, annotation_id, created_at, seen_at)
  SELECT id, person_id, annotation_id, created_at, seen_at FROM notification;
DROP TABLE notification;
ALTER TABLE told RENAME TO notification;
CREATE INDEX notification_person ON notification(person_id, created_at);
CREATE INDEX notification_annotation ON notification(annotation_id) WHERE annotation_id IS NOT NULL;
CREATE INDEX notification_release ON notification(release_id) WHERE release_id IS NOT NULL;

DROP VIEW annotation_visible;
DROP VIEW source_visible;
DROP VIEW class_reach;
-- Which sources members read by their classes. Withheld: of what was written for the class, a student sees only what
-- its teachers wrote, and their own.
CREATE VIEW class_reach(person_id, class_id, source_id, withheld, teaches) AS
  SELECT m.person_id, cs.class_id, cs.source_id,
    CASE WHEN m.role <> 'student' THEN 0 ELSE EXISTS (
      SELECT 1 FROM assignment g WHERE g.class_id = cs.class_id AND g.source_id = cs.source_id AND CASE g.others_seen
        WHEN 'at_once' THEN 0
        WHEN 'after_own' THEN NOT EXISTS (
          SELECT 1 FROM own_given o WHERE o.class_id = g.class_id AND o.source_id = g.source_id AND o.person_id = m.person_id)
        WHEN 'after_due' THEN g.shown_at IS NULL OR EXISTS (
          SELECT 1 FROM extension e WHERE e.class_id = g.class_id AND e.source_id = g.source_id AND e.person_id = m.person_id AND e.passed = 0)
        ELSE g.shown_at IS NULL END)
    END,
    m.role <> 'student'
  FROM class_source cs
  JOIN membership m ON m.class_id = cs.class_id
  JOIN source s ON s.id = cs.source_id AND s.deleted_at IS NULL
  WHERE m.role <> 'student' OR NOT EXISTS (
    SELECT 1 FROM assignment g WHERE g.class_id = cs.class_id AND g.source_id = cs.source_id AND g.is_open = 0);
CREATE VIEW source_visible(person_id, source_id) AS
  SELECT s.owner_id, s.id FROM source s WHERE s.deleted_at IS NULL
  UNION ALL
  SELECT person_id, source_id FROM class_reach;
-- Who teaches a class sees all that is for it. Students do not see what is for its teachers alone, but for answers to
-- what they wrote; nor what is held or hidden.
CREATE VIEW annotation_visible(person_id, annotation_id, seq) AS
  SELECT a.author_id, a.id, a.seq FROM annotation a WHERE a.deleted_at IS NULL
  UNION ALL
  SELECT w.person_id, a.id, a.seq
    FROM annotation a
    JOIN annotation_class ac ON ac.annotation_id = a.id
    JOIN class_reach w ON w.class_id = ac.class_id AND w.source_id = a.source_id
   WHERE a.deleted_at IS NULL
     AND (w.teaches OR (ac.held = 0 AND ac.hidden_reason IS NULL AND (ac.teachers_only = 0 OR EXISTS (
       SELECT 1 FROM annotation o WHERE o.id = a.root_id AND o.author_id = w.person_id)) AND (w.withheld = 0 OR EXISTS (
       SELECT 1 FROM membership t WHERE t.class_id = ac.class_id AND t.person_id = a.author_id AND t.role <> 'student'))))
     AND (a.root_id IS NULL OR EXISTS (
       SELECT 1 FROM annotation r
        WHERE r.id = a.root_id
          AND (r.author_id = w.person_id OR EXISTS (
            SELECT 1 FROM annotation_class rc
              JOIN class_reach rw ON rw.class_id = rc.class_id AND rw.source_id = r.source_id AND rw.person_id = w.person_id
             WHERE rc.annotation_id = r.id
               AND (rw.teaches OR (rc.teachers_only = 0 AND rc.held = 0 AND rc.hidden_reason IS NULL AND (rw.withheld = 0 OR EXISTS (
                 SELECT 1 FROM membership t
                  WHERE t.class_id = rc.class_id AND t.person_id = r.author_id AND t.role <> 'student'))))))));
