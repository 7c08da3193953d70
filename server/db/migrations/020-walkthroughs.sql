-- Notes in an order in which a class is led through them, for its teachers.
CREATE TABLE walkthrough (
  id TEXT PRIMARY KEY,
  class_id TEXT NOT NULL REFERENCES class(id) ON DELETE CASCADE,
  name TEXT NOT NULL,
  made_by TEXT NOT NULL REFERENCES person(id),
  made_at TEXT NOT NULL,
  changed_at TEXT NOT NULL,
  version INTEGER NOT NULL DEFAULT 1,
  deleted_at TEXT
) STRICT;
CREATE INDEX walkthrough_class ON walkthrough(class_id, changed_at);
CREATE INDEX walkthrough_made_by ON walkthrough(made_by);
CREATE TABLE walkthrough_step (
  walkthrough_id TEXT NOT NULL REFERENCES walkthrough(id) ON DELETE CASCADE,
  position INTEGER NOT NULL,
  annotation_id TEXT NOT NULL REFERENCES annotation(id) ON DELETE CASCADE,
  -- What to say at it, in Markdown.
  words TEXT NOT NULL,
  PRIMARY KEY (walkthrough_id, position)
) STRICT, WITHOUT ROWID;
CREATE INDEX walkthrough_step_annotation ON walkthrough_step(annotation_id);
