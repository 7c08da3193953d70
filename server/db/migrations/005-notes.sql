-- What the notes lead to, read from their words whenever they change: for both ends to show it, for telling people they
-- are meant, and for who may see a picture.
CREATE TABLE annotation_link (
  annotation_id TEXT NOT NULL REFERENCES annotation(id) ON DELETE CASCADE,
  type TEXT NOT NULL CHECK (type IN ('annotation', 'source', 'person', 'picture')),
  target TEXT NOT NULL,
  PRIMARY KEY (annotation_id, type, target)
) STRICT, WITHOUT ROWID;
CREATE INDEX annotation_link_target ON annotation_link(type, target, annotation_id);

-- Pictures put into notes, by who put them there.
CREATE TABLE picture (
  hash TEXT NOT NULL REFERENCES blob(hash),
  person_id TEXT NOT NULL REFERENCES person(id) ON DELETE CASCADE,
  created_at TEXT NOT NULL,
  PRIMARY KEY (hash, person_id)
) STRICT, WITHOUT ROWID;
