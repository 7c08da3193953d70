-- A note of somebody's own, in Markdown: words, and excerpts of what was marked. One of a source fills itself.
CREATE TABLE study_note (
  id TEXT PRIMARY KEY,
  owner_id TEXT NOT NULL REFERENCES person(id) ON DELETE CASCADE,
  -- Null for a note of one's own choosing; also once the source is gone for good.
  source_id TEXT REFERENCES source(id) ON DELETE SET NULL,
  title TEXT NOT NULL,
  markdown TEXT NOT NULL DEFAULT '',
  version INTEGER NOT NULL DEFAULT 1,
  -- What comes in by itself: every mark of its owner, or what they put there; of which kinds (JSON; none: of all).
  joins TEXT NOT NULL DEFAULT 'put' CHECK (joins IN ('all', 'put')),
  kinds TEXT NOT NULL DEFAULT '[]',
  -- Counted when it is written.
  excerpts INTEGER NOT NULL DEFAULT 0,
  words INTEGER NOT NULL DEFAULT 0,
  -- When it was last brought up to what its annotations are; '' for never.
  followed_at TEXT NOT NULL DEFAULT '',
  created_at TEXT NOT NULL,
  changed_at TEXT NOT NULL,
  deleted_at TEXT
) STRICT, WITHOUT ROWID;
CREATE INDEX study_note_owner ON study_note(owner_id, changed_at);
CREATE UNIQUE INDEX study_note_source ON study_note(source_id, owner_id) WHERE source_id IS NOT NULL;
CREATE INDEX study_note_deleted ON study_note(deleted_at) WHERE deleted_at IS NOT NULL;

-- Every annotation that was ever written into a note. No reference to it: what is deleted there keeps its words here.
CREATE TABLE study_excerpt (
  note_id TEXT NOT NULL REFERENCES study_note(id) ON DELETE CASCADE,
  annotation_id TEXT NOT NULL,
  -- Fingerprint of what Avrelle wrote, by which it knows what was touched.
  written TEXT NOT NULL,
  -- 0 once it was taken out of the note.
  stands INTEGER NOT NULL,
  -- The kind of mark it had when it was last seen (JSON), and its source.
  kind TEXT,
  source_id TEXT,
  PRIMARY KEY (note_id, annotation_id)
) STRICT, WITHOUT ROWID;
CREATE INDEX study_excerpt_annotation ON study_excerpt(annotation_id);
