-- The tint in which somebody sees one of their tags, and those beneath it that have none of their own.
CREATE TABLE tag_tint (
  person_id TEXT NOT NULL REFERENCES person(id) ON DELETE CASCADE,
  tag TEXT NOT NULL,
  tint TEXT NOT NULL,
  PRIMARY KEY (person_id, tag)
) STRICT, WITHOUT ROWID;
