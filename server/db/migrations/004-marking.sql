-- The Key: kinds of highlight that a person or a class made or changed. Who has none here has the starting Key. A kind
-- that is retired is offered no longer; what was marked with it keeps its look.
CREATE TABLE key_version (
  -- A person or a class.
  owner_id TEXT PRIMARY KEY,
  version INTEGER NOT NULL
) STRICT, WITHOUT ROWID;
CREATE TABLE kind (
  owner_id TEXT NOT NULL REFERENCES key_version(owner_id) ON DELETE CASCADE,
  code TEXT NOT NULL,
  name TEXT NOT NULL,
  pigment TEXT NOT NULL,
  line TEXT NOT NULL,
  sign TEXT NOT NULL,
  position INTEGER NOT NULL,
  retired INTEGER NOT NULL DEFAULT 0,
  PRIMARY KEY (owner_id, code)
) STRICT, WITHOUT ROWID;
CREATE INDEX kind_code ON kind(code);

-- In whose Key the kind of an annotation stands: its author's, or a class's.
ALTER TABLE annotation ADD COLUMN kind_owner TEXT NOT NULL DEFAULT '';
UPDATE annotation SET kind_owner = author_id;
CREATE INDEX annotation_kind ON annotation(kind_owner, kind);

-- As before; but an answer outlives what it answers: whoever was to see that, still sees it.
DROP VIEW annotation_visible;
CREATE VIEW annotation_visible(person_id, annotation_id) AS
  SELECT a.author_id, a.id FROM annotation a WHERE a.deleted_at IS NULL
  UNION ALL
  SELECT m.person_id, a.id
    FROM annotation a
    JOIN annotation_class ac ON ac.annotation_id = a.id
    JOIN class_source cs ON cs.class_id = ac.class_id AND cs.source_id = a.source_id
    JOIN membership m ON m.class_id = ac.class_id
    JOIN source s ON s.id = a.source_id AND s.deleted_at IS NULL
   WHERE a.deleted_at IS NULL
     AND (a.root_id IS NULL OR EXISTS (
       SELECT 1 FROM annotation r
        WHERE r.id = a.root_id
          AND (r.author_id = m.person_id OR EXISTS (
            SELECT 1 FROM annotation_class rc
              JOIN class_source rs ON rs.class_id = rc.class_id AND rs.source_id = r.source_id
              JOIN membership rm ON rm.class_id = rc.class_id AND rm.person_id = m.person_id
             WHERE rc.annotation_id = r.id))));
