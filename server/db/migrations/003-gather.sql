-- Sources of every kind, with all that is known of them. The table is made anew: which kinds there are is checked
-- where they are read, so that a new kind needs no new table.
DROP VIEW annotation_visible;
DROP VIEW source_visible;
CREATE TABLE source_new (
  id TEXT PRIMARY KEY,
  owner_id TEXT NOT NULL REFERENCES person(id),
  kind TEXT NOT NULL,
  amount TEXT NOT NULL DEFAULT 'whole' CHECK (amount IN ('whole', 'main', 'passage', 'link', 'picture')),
  title TEXT NOT NULL,
  author TEXT NOT NULL,
  site TEXT NOT NULL,
  address TEXT,
  canonical TEXT,
  description TEXT NOT NULL,
  language TEXT NOT NULL,
  published_at TEXT,
  doi TEXT NOT NULL DEFAULT '',
  lead_hash TEXT REFERENCES blob(hash),
  remark TEXT NOT NULL DEFAULT '',
  kept_at TEXT NOT NULL,
  current_version TEXT NOT NULL,
  minutes REAL NOT NULL,
  length INTEGER NOT NULL,
  version INTEGER NOT NULL DEFAULT 1,
  deleted_at TEXT
) STRICT;
INSERT INTO source_new (id, owner_id, kind, title, author, site, address, canonical, description, language, published_at, kept_at, current_version, minutes, length, version, deleted_at)
  SELECT id, owner_id, kind, title, author, site, address, canonical, description, language, published_at, kept_at, current_version, minutes, length, version, deleted_at FROM source;
DROP TABLE source;
ALTER TABLE source_new RENAME TO source;
CREATE INDEX source_owner ON source(owner_id, kept_at);
CREATE INDEX source_current ON source(current_version);
CREATE UNIQUE INDEX source_once ON source(owner_id, canonical) WHERE canonical IS NOT NULL AND deleted_at IS NULL;

CREATE VIEW source_visible(person_id, source_id) AS
  SELECT s.owner_id, s.id FROM source s WHERE s.deleted_at IS NULL
  UNION ALL
  SELECT m.person_id, cs.source_id
    FROM class_source cs
    JOIN membership m ON m.class_id = cs.class_id
    JOIN source s ON s.id = cs.source_id AND s.deleted_at IS NULL;
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

-- The file a version was made of, where one was given (a PDF, a recording, a letter); the width in pixels it was kept
-- for; by what its content is known again; and what a reader should know of it, as JSON.
ALTER TABLE source_version ADD COLUMN file_hash TEXT REFERENCES blob(hash);
ALTER TABLE source_version ADD COLUMN width INTEGER;
ALTER TABLE source_version ADD COLUMN fingerprint TEXT NOT NULL DEFAULT '';
ALTER TABLE source_version ADD COLUMN facts TEXT NOT NULL DEFAULT '{}';
CREATE INDEX source_version_fingerprint ON source_version(fingerprint) WHERE fingerprint <> '';

-- A page fetched to be looked at before it is kept: everything of a version but its owner's word. Gone after a day.
CREATE TABLE draft (
  id TEXT PRIMARY KEY,
  person_id TEXT NOT NULL REFERENCES person(id) ON DELETE CASCADE,
  -- As JSON: all of it but bytes, which are named by their hashes.
  content TEXT NOT NULL,
  snapshot_hash TEXT NOT NULL REFERENCES blob(hash),
  file_hash TEXT REFERENCES blob(hash),
  created_at TEXT NOT NULL
) STRICT;
CREATE TABLE draft_asset (
  draft_id TEXT NOT NULL REFERENCES draft(id) ON DELETE CASCADE,
  hash TEXT NOT NULL REFERENCES blob(hash),
  PRIMARY KEY (draft_id, hash)
) STRICT, WITHOUT ROWID;

-- Many addresses as one piece of work; each of them is a job.
CREATE TABLE batch (
  id TEXT PRIMARY KEY,
  person_id TEXT NOT NULL REFERENCES person(id) ON DELETE CASCADE,
  label TEXT NOT NULL,
  paused INTEGER NOT NULL DEFAULT 0,
  created_at TEXT NOT NULL
) STRICT;
CREATE INDEX batch_person ON batch(person_id, created_at);
ALTER TABLE job ADD COLUMN batch_id TEXT REFERENCES batch(id) ON DELETE CASCADE;
ALTER TABLE job ADD COLUMN seq INTEGER NOT NULL DEFAULT 0;
ALTER TABLE job ADD COLUMN host TEXT NOT NULL DEFAULT '';
CREATE INDEX job_batch ON job(batch_id, seq) WHERE batch_id IS NOT NULL;
CREATE INDEX job_person ON job(person_id, created_at);

CREATE TABLE feed (
  id TEXT PRIMARY KEY,
  person_id TEXT NOT NULL REFERENCES person(id) ON DELETE CASCADE,
  address TEXT NOT NULL,
  title TEXT NOT NULL,
  site TEXT NOT NULL,
  added_at TEXT NOT NULL,
  checked_at TEXT NOT NULL,
  error TEXT,
  UNIQUE (person_id, address)
) STRICT;
CREATE INDEX feed_checked ON feed(checked_at);
CREATE TABLE feed_item (
  id TEXT PRIMARY KEY,
  feed_id TEXT NOT NULL REFERENCES feed(id) ON DELETE CASCADE,
  name TEXT NOT NULL,
  address TEXT NOT NULL,
  title TEXT NOT NULL,
  author TEXT NOT NULL,
  summary TEXT NOT NULL,
  published_at TEXT,
  arrived_at TEXT NOT NULL,
  state TEXT NOT NULL CHECK (state IN ('new', 'accepted', 'skipped')),
  UNIQUE (feed_id, name)
) STRICT;
CREATE INDEX feed_item_new ON feed_item(feed_id, arrived_at) WHERE state = 'new';

-- The local part of the address at which letters for a person come in.
CREATE TABLE intake (
  person_id TEXT PRIMARY KEY REFERENCES person(id) ON DELETE CASCADE,
  local TEXT NOT NULL UNIQUE
) STRICT, WITHOUT ROWID;

-- What is referred to by nothing any more is found by these.
CREATE INDEX source_version_snapshot ON source_version(snapshot_hash);
CREATE INDEX source_version_file ON source_version(file_hash) WHERE file_hash IS NOT NULL;
CREATE INDEX version_asset_hash ON version_asset(hash);
CREATE INDEX source_lead ON source(lead_hash) WHERE lead_hash IS NOT NULL;
CREATE INDEX job_upload ON job(upload_hash) WHERE upload_hash IS NOT NULL;
CREATE INDEX draft_asset_hash ON draft_asset(hash);
CREATE INDEX draft_created ON draft(created_at);
