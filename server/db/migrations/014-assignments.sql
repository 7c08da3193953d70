-- What a class is asked to do with a reading. It stays where the reading is taken out, and is there again with it.
CREATE TABLE assignment (
  class_id TEXT NOT NULL REFERENCES class(id) ON DELETE CASCADE,
  source_id TEXT NOT NULL REFERENCES source(id) ON DELETE CASCADE,
  -- Markdown.
  instructions TEXT NOT NULL,
  -- So many marks of a kind, or of any: [{"kind": …, "count": …}, …].
  marks TEXT NOT NULL,
  answers INTEGER NOT NULL,
  opens_at TEXT,
  due_at TEXT,
  -- Since its moment: before, only teachers see the reading.
  is_open INTEGER NOT NULL,
  -- From when on members see what the others wrote.
  others_seen TEXT NOT NULL CHECK (others_seen IN ('at_once', 'after_own', 'after_due', 'after_release')),
  -- After the due date or its release: since when they are seen.
  shown_at TEXT,
  -- Whether students may write for the class.
  comments INTEGER NOT NULL,
  set_by TEXT NOT NULL REFERENCES person(id),
  set_at TEXT NOT NULL,
  version INTEGER NOT NULL DEFAULT 1,
  PRIMARY KEY (class_id, source_id)
) STRICT, WITHOUT ROWID;
CREATE INDEX assignment_source ON assignment(source_id);
CREATE INDEX assignment_set_by ON assignment(set_by);
CREATE INDEX assignment_opens ON assignment(opens_at) WHERE is_open = 0;
CREATE INDEX assignment_shown ON assignment(due_at) WHERE shown_at IS NULL;

-- More time for one student. It counts where it is later than the date for all.
CREATE TABLE extension (
  class_id TEXT NOT NULL REFERENCES class(id) ON DELETE CASCADE,
  source_id TEXT NOT NULL REFERENCES source(id) ON DELETE CASCADE,
  person_id TEXT NOT NULL REFERENCES person(id) ON DELETE CASCADE,
  due_at TEXT NOT NULL,
  -- Whether that time is over.
  passed INTEGER NOT NULL,
  PRIMARY KEY (class_id, source_id, person_id)
) STRICT, WITHOUT ROWID;
CREATE INDEX extension_source ON extension(source_id);
CREATE INDEX extension_person ON extension(person_id);
CREATE INDEX extension_due ON extension(due_at) WHERE passed = 0;

-- Who gave their own, where that opens what the others gave. What was seen once stays seen.
CREATE TABLE own_given (
  class_id TEXT NOT NULL REFERENCES class(id) ON DELETE CASCADE,
  source_id TEXT NOT NULL REFERENCES source(id) ON DELETE CASCADE,
  person_id TEXT NOT NULL REFERENCES person(id) ON DELETE CASCADE,
  given_at TEXT NOT NULL,
  PRIMARY KEY (class_id, source_id, person_id)
) STRICT, WITHOUT ROWID;
CREATE INDEX own_given_source ON own_given(source_id);
CREATE INDEX own_given_person ON own_given(person_id);

-- Which sources members read by their classes. Withheld: of what was written for the class, a student sees only what
-- its teachers wrote, and their own.
CREATE VIEW class_reach(person_id, class_id, source_id, withheld) AS
  SELECT m.person_id, cs.class_id, cs.source_id,
    CASE WHEN m.role <> 'student' THEN 0 ELSE EXISTS (
      SELECT 1 FROM assignment g WHERE g.class_id = cs.class_id AND g.source_id = cs.source_id AND CASE g.others_seen
        WHEN 'at_once' THEN 0
        WHEN 'after_own' THEN NOT EXISTS (
          SELECT 1 FROM own_given o WHERE o.class_id = g.class_id AND o.source_id = g.source_id AND o.person_id = m.person_id)
        WHEN 'after_due' THEN g.shown_at IS NULL OR EXISTS (
          SELECT 1 FROM extension e WHERE e.class_id = g.class_id AND e.source_id = g.source_id AND e.person_id = m.person_id AND e.passed = 0)
        ELSE g.shown_at IS NULL END)
    END
  FROM class_source cs
  JOIN membership m ON m.class_id = cs.class_id
  JOIN source s ON s.id = cs.source_id AND s.deleted_at IS NULL
  WHERE m.role <> 'student' OR NOT EXISTS (
    SELECT 1 FROM assignment g WHERE g.class_id = cs.class_id AND g.source_id = cs.source_id AND g.is_open = 0);

DROP VIEW annotation_visible;
DROP VIEW source_visible;
CREATE VIEW source_visible(person_id, source_id) AS
  SELECT s.owner_id, s.id FROM source s WHERE s.deleted_at IS NULL
  UNION ALL
  SELECT person_id, source_id FROM class_reach;
CREATE VIEW annotation_visible(person_id, annotation_id, seq) AS
  SELECT a.author_id, a.id, a.seq FROM annotation a WHERE a.deleted_at IS NULL
  UNION ALL
  SELECT w.person_id, a.id, a.seq
    FROM annotation a
    JOIN annotation_class ac ON ac.annotation_id = a.id
    JOIN class_reach w ON w.class_id = ac.class_id AND w.source_id = a.source_id
   WHERE a.deleted_at IS NULL
     AND (w.withheld = 0 OR EXISTS (
       SELECT 1 FROM membership t WHERE t.class_id = ac.class_id AND t.person_id = a.author_id AND t.role <> 'student'))
     AND (a.root_id IS NULL OR EXISTS (
       SELECT 1 FROM annotation r
        WHERE r.id = a.root_id
          AND (r.author_id = w.person_id OR EXISTS (
            SELECT 1 FROM annotation_class rc
              JOIN class_reach rw ON rw.class_id = rc.class_id AND rw.source_id = r.source_id AND rw.person_id = w.person_id
             WHERE rc.annotation_id = r.id
               AND (rw.withheld = 0 OR EXISTS (
                 SELECT 1 FROM membership t WHERE t.class_id = rc.class_id AND t.person_id = r.author_id AND t.role <> 'student'))))));
