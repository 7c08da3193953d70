-- Where an annotation stands in a version it was not made on: what was found, and what a person said instead. The
-- annotation's own anchor stays as it was made.
CREATE TABLE placement (
  annotation_id TEXT NOT NULL REFERENCES annotation(id) ON DELETE CASCADE,
  version_id TEXT NOT NULL REFERENCES source_version(id) ON DELETE CASCADE,
  state TEXT NOT NULL CHECK (state IN ('exact', 'shifted', 'edited', 'lost')),
  start INTEGER,
  stop INTEGER,
  confidence REAL NOT NULL,
  candidates TEXT NOT NULL,
  hand_start INTEGER,
  hand_stop INTEGER,
  CHECK ((state = 'lost') = (start IS NULL) AND (start IS NULL) = (stop IS NULL) AND (hand_start IS NULL) = (hand_stop IS NULL)),
  PRIMARY KEY (annotation_id, version_id)
) STRICT, WITHOUT ROWID;
CREATE INDEX placement_version ON placement(version_id);
