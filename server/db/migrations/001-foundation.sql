CREATE TABLE person (
  id TEXT PRIMARY KEY,
  email TEXT NOT NULL COLLATE NOCASE UNIQUE,
  name TEXT NOT NULL,
  password_hash TEXT NOT NULL,
  role TEXT NOT NULL CHECK (role IN ('administrator', 'member')),
  created_at TEXT NOT NULL
) STRICT;

CREATE TABLE session (
  token_hash TEXT PRIMARY KEY,
  person_id TEXT NOT NULL REFERENCES person(id) ON DELETE CASCADE,
  created_at TEXT NOT NULL,
  expires_at TEXT NOT NULL
) STRICT, WITHOUT ROWID;

CREATE TABLE class (
  id TEXT PRIMARY KEY,
  name TEXT NOT NULL,
  tint TEXT NOT NULL,
  code TEXT NOT NULL UNIQUE,
  created_by TEXT NOT NULL REFERENCES person(id),
  created_at TEXT NOT NULL,
  version INTEGER NOT NULL DEFAULT 1
) STRICT;

CREATE TABLE membership (
  class_id TEXT NOT NULL REFERENCES class(id) ON DELETE CASCADE,
  person_id TEXT NOT NULL REFERENCES person(id) ON DELETE CASCADE,
  role TEXT NOT NULL CHECK (role IN ('teacher', 'assistant', 'student')),
  joined_at TEXT NOT NULL,
  PRIMARY KEY (class_id, person_id)
) STRICT, WITHOUT ROWID;
CREATE INDEX membership_person ON membership(person_id, class_id);

-- Files of every sort, stored once by content and in chunks, so that a range can be read without the whole.
CREATE TABLE blob (
  hash TEXT PRIMARY KEY,
  size INTEGER NOT NULL,
  media_type TEXT NOT NULL
) STRICT;
CREATE TABLE blob_chunk (
  hash TEXT NOT NULL REFERENCES blob(hash) ON DELETE CASCADE,
  seq INTEGER NOT NULL,
  data BLOB NOT NULL,
  UNIQUE (hash, seq)
) STRICT;

CREATE TABLE source (
  id TEXT PRIMARY KEY,
  owner_id TEXT NOT NULL REFERENCES person(id),
  kind TEXT NOT NULL CHECK (kind IN ('page', 'markdown', 'text')),
  title TEXT NOT NULL,
  author TEXT NOT NULL,
  site TEXT NOT NULL,
  address TEXT,
  canonical TEXT,
  description TEXT NOT NULL,
  language TEXT NOT NULL,
  published_at TEXT,
  kept_at TEXT NOT NULL,
  current_version TEXT NOT NULL,
  minutes REAL NOT NULL,
  length INTEGER NOT NULL,
  version INTEGER NOT NULL DEFAULT 1,
  deleted_at TEXT
) STRICT;
CREATE INDEX source_owner ON source(owner_id, kept_at);
CREATE INDEX source_current ON source(current_version);
CREATE UNIQUE INDEX source_once ON source(owner_id, canonical) WHERE canonical IS NOT NULL AND deleted_at IS NULL;

CREATE TABLE source_version (
  id TEXT PRIMARY KEY,
  source_id TEXT NOT NULL REFERENCES source(id) ON DELETE CASCADE,
  number INTEGER NOT NULL,
  kept_at TEXT NOT NULL,
  address TEXT,
  snapshot_hash TEXT NOT NULL REFERENCES blob(hash),
  UNIQUE (source_id, number)
) STRICT;
CREATE TABLE version_asset (
  version_id TEXT NOT NULL REFERENCES source_version(id) ON DELETE CASCADE,
  hash TEXT NOT NULL REFERENCES blob(hash),
  PRIMARY KEY (version_id, hash)
) STRICT, WITHOUT ROWID;
CREATE TABLE version_text (
  seq INTEGER PRIMARY KEY,
  version_id TEXT NOT NULL UNIQUE REFERENCES source_version(id) ON DELETE CASCADE,
  title TEXT NOT NULL,
  stream TEXT NOT NULL,
  outline TEXT NOT NULL
) STRICT;
CREATE VIRTUAL TABLE text_fts USING fts5(title, stream, content='version_text', content_rowid='seq', tokenize="unicode61 remove_diacritics 2");
CREATE TRIGGER version_text_in AFTER INSERT ON version_text BEGIN
  INSERT INTO text_fts(rowid, title, stream) VALUES (new.seq, new.title, new.stream);
END;
CREATE TRIGGER version_text_out AFTER DELETE ON version_text BEGIN
  INSERT INTO text_fts(text_fts, rowid, title, stream) VALUES ('delete', old.seq, old.title, old.stream);
END;
CREATE TRIGGER version_text_change AFTER UPDATE OF title ON version_text BEGIN
  INSERT INTO text_fts(text_fts, rowid, title, stream) VALUES ('delete', old.seq, old.title, old.stream);
  INSERT INTO text_fts(rowid, title, stream) VALUES (new.seq, new.title, new.stream);
END;

CREATE TABLE class_source (
  class_id TEXT NOT NULL REFERENCES class(id) ON DELETE CASCADE,
  source_id TEXT NOT NULL REFERENCES source(id) ON DELETE CASCADE,
  added_by TEXT NOT NULL REFERENCES person(id),
  added_at TEXT NOT NULL,
  PRIMARY KEY (class_id, source_id)
) STRICT, WITHOUT ROWID;
CREATE INDEX class_source_source ON class_source(source_id, class_id);

-- What a source is to one reader: state, place, what has been read, tags.
CREATE TABLE shelf (
  person_id TEXT NOT NULL REFERENCES person(id) ON DELETE CASCADE,
  source_id TEXT NOT NULL REFERENCES source(id) ON DELETE CASCADE,
  state TEXT NOT NULL CHECK (state IN ('to_read', 'reading', 'finished', 'set_aside')),
  position INTEGER NOT NULL DEFAULT 0,
  spans TEXT NOT NULL DEFAULT '[]',
  touched_at TEXT NOT NULL,
  PRIMARY KEY (person_id, source_id)
) STRICT, WITHOUT ROWID;
CREATE TABLE source_tag (
  person_id TEXT NOT NULL REFERENCES person(id) ON DELETE CASCADE,
  source_id TEXT NOT NULL REFERENCES source(id) ON DELETE CASCADE,
  tag TEXT NOT NULL,
  PRIMARY KEY (person_id, source_id, tag)
) STRICT, WITHOUT ROWID;
CREATE INDEX source_tag_tag ON source_tag(person_id, tag, source_id);

-- Highlights, notes and replies. A reply has a root and no anchor.
CREATE TABLE annotation (
  seq INTEGER PRIMARY KEY,
  id TEXT NOT NULL UNIQUE,
  source_id TEXT NOT NULL REFERENCES source(id) ON DELETE CASCADE,
  version_id TEXT NOT NULL REFERENCES source_version(id),
  author_id TEXT NOT NULL REFERENCES person(id),
  kind TEXT NOT NULL,
  note TEXT NOT NULL,
  quote TEXT NOT NULL,
  anchor TEXT,
  start INTEGER NOT NULL DEFAULT 0,
  root_id TEXT REFERENCES annotation(id) ON DELETE CASCADE,
  parent_id TEXT REFERENCES annotation(id) ON DELETE CASCADE,
  created_at TEXT NOT NULL,
  updated_at TEXT NOT NULL,
  version INTEGER NOT NULL DEFAULT 1,
  deleted_at TEXT
) STRICT;
CREATE INDEX annotation_source ON annotation(source_id, start);
CREATE INDEX annotation_author ON annotation(author_id, created_at);
CREATE INDEX annotation_root ON annotation(root_id) WHERE root_id IS NOT NULL;
CREATE INDEX annotation_parent ON annotation(parent_id) WHERE parent_id IS NOT NULL;

CREATE TABLE annotation_class (
  annotation_id TEXT NOT NULL REFERENCES annotation(id) ON DELETE CASCADE,
  class_id TEXT NOT NULL REFERENCES class(id) ON DELETE CASCADE,
  PRIMARY KEY (annotation_id, class_id)
) STRICT, WITHOUT ROWID;
CREATE INDEX annotation_class_class ON annotation_class(class_id, annotation_id);
CREATE TABLE annotation_tag (
  annotation_id TEXT NOT NULL REFERENCES annotation(id) ON DELETE CASCADE,
  tag TEXT NOT NULL,
  PRIMARY KEY (annotation_id, tag)
) STRICT, WITHOUT ROWID;
CREATE INDEX annotation_tag_tag ON annotation_tag(tag, annotation_id);

CREATE VIRTUAL TABLE annotation_fts USING fts5(quote, note, content='annotation', content_rowid='seq', tokenize="unicode61 remove_diacritics 2");
CREATE TRIGGER annotation_in AFTER INSERT ON annotation BEGIN
  INSERT INTO annotation_fts(rowid, quote, note) VALUES (new.seq, new.quote, new.note);
END;
CREATE TRIGGER annotation_out AFTER DELETE ON annotation BEGIN
  INSERT INTO annotation_fts(annotation_fts, rowid, quote, note) VALUES ('delete', old.seq, old.quote, old.note);
END;
CREATE TRIGGER annotation_change AFTER UPDATE OF quote, note ON annotation BEGIN
  INSERT INTO annotation_fts(annotation_fts, rowid, quote, note) VALUES ('delete', old.seq, old.quote, old.note);
  INSERT INTO annotation_fts(rowid, quote, note) VALUES (new.seq, new.quote, new.note);
END;

-- Who may read a source: its owner, and the members of a class it is in.
CREATE VIEW source_visible(person_id, source_id) AS
  SELECT s.owner_id, s.id FROM source s WHERE s.deleted_at IS NULL
  UNION ALL
  SELECT m.person_id, cs.source_id
    FROM class_source cs
    JOIN membership m ON m.class_id = cs.class_id
    JOIN source s ON s.id = cs.source_id AND s.deleted_at IS NULL;

-- Who sees an annotation: the one visibility rule. Its author; and whoever is in a class it is for, while its source
-- is in that class. A reply is seen by nobody who does not see what it hangs on, but for its author.
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
        WHERE r.id = a.root_id AND r.deleted_at IS NULL
          AND (r.author_id = m.person_id OR EXISTS (
            SELECT 1 FROM annotation_class rc
              JOIN class_source rs ON rs.class_id = rc.class_id AND rs.source_id = r.source_id
              JOIN membership rm ON rm.class_id = rc.class_id AND rm.person_id = m.person_id
             WHERE rc.annotation_id = r.id))));

CREATE TABLE notification (
  id TEXT PRIMARY KEY,
  person_id TEXT NOT NULL REFERENCES person(id) ON DELETE CASCADE,
  annotation_id TEXT NOT NULL REFERENCES annotation(id) ON DELETE CASCADE,
  created_at TEXT NOT NULL,
  seen_at TEXT,
  UNIQUE (person_id, annotation_id)
) STRICT;

-- Append-only; open pages are told from it and catch up on it after a broken connection.
CREATE TABLE event (
  seq INTEGER PRIMARY KEY AUTOINCREMENT,
  at TEXT NOT NULL,
  type TEXT NOT NULL,
  person_id TEXT,
  source_id TEXT,
  annotation_id TEXT,
  class_id TEXT,
  job_id TEXT,
  former_classes TEXT
) STRICT;

CREATE TABLE job (
  id TEXT PRIMARY KEY,
  person_id TEXT NOT NULL REFERENCES person(id) ON DELETE CASCADE,
  label TEXT NOT NULL,
  input TEXT NOT NULL,
  upload_hash TEXT REFERENCES blob(hash),
  state TEXT NOT NULL CHECK (state IN ('queued', 'running', 'done', 'failed')),
  step TEXT NOT NULL,
  progress REAL NOT NULL,
  source_id TEXT,
  already INTEGER NOT NULL DEFAULT 0,
  error TEXT,
  created_at TEXT NOT NULL,
  ended_at TEXT
) STRICT;
CREATE INDEX job_waiting ON job(state, created_at);
