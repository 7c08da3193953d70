-- What somebody wants to find again in a discussion; nobody else sees it.
CREATE TABLE annotation_star (
  person_id TEXT NOT NULL REFERENCES person(id) ON DELETE CASCADE,
  annotation_id TEXT NOT NULL REFERENCES annotation(id) ON DELETE CASCADE,
  starred_at TEXT NOT NULL,
  PRIMARY KEY (person_id, annotation_id)
) STRICT, WITHOUT ROWID;
CREATE INDEX annotation_star_annotation ON annotation_star(annotation_id);
-- Somebody who teaches recommends it to all who see it.
ALTER TABLE annotation ADD COLUMN endorsed_by TEXT REFERENCES person(id) ON DELETE SET NULL;
CREATE INDEX annotation_endorsed_by ON annotation(endorsed_by) WHERE endorsed_by IS NOT NULL;
-- Somebody asks the teachers of a class to look at what was written for it.
CREATE TABLE report (
  class_id TEXT NOT NULL REFERENCES class(id) ON DELETE CASCADE,
  annotation_id TEXT NOT NULL REFERENCES annotation(id) ON DELETE CASCADE,
  person_id TEXT NOT NULL REFERENCES person(id) ON DELETE CASCADE,
  words TEXT NOT NULL,
  reported_at TEXT NOT NULL,
  -- Since when nothing is left to be done about it.
  settled_at TEXT,
  PRIMARY KEY (class_id, annotation_id, person_id)
) STRICT, WITHOUT ROWID;
CREATE INDEX report_annotation ON report(annotation_id);
CREATE INDEX report_person ON report(person_id);
