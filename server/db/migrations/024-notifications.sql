-- What somebody follows: a source, a thread by the annotation it began with, or whoever writes.
CREATE TABLE follow (
  person_id TEXT NOT NULL REFERENCES person(id) ON DELETE CASCADE,
  source_id TEXT REFERENCES source(id) ON DELETE CASCADE,
  root_id TEXT REFERENCES annotation(id) ON DELETE CASCADE,
  author_id TEXT REFERENCES person(id) ON DELETE CASCADE,
  created_at TEXT NOT NULL,
  CHECK ((source_id IS NOT NULL) + (root_id IS NOT NULL) + (author_id IS NOT NULL) = 1),
  UNIQUE (source_id, person_id),
  UNIQUE (root_id, person_id),
  UNIQUE (author_id, person_id)
) STRICT;
CREATE INDEX follow_person ON follow(person_id, created_at);

-- Where somebody is told of a kind of thing; what stands in no row is told everywhere.
CREATE TABLE notification_setting (
  person_id TEXT NOT NULL REFERENCES person(id) ON DELETE CASCADE,
  kind TEXT NOT NULL,
  desk INTEGER NOT NULL,
  mail INTEGER NOT NULL,
  PRIMARY KEY (person_id, kind)
) STRICT, WITHOUT ROWID;

-- Of which class somebody is told nothing. Who leaves it and comes again hears of it.
CREATE TABLE muted_class (
  person_id TEXT NOT NULL,
  class_id TEXT NOT NULL,
  PRIMARY KEY (person_id, class_id),
  FOREIGN KEY (class_id, person_id) REFERENCES membership(class_id, person_id) ON DELETE CASCADE
) STRICT, WITHOUT ROWID;
CREATE INDEX muted_class_class ON muted_class(class_id, person_id);

-- Who gets mails, how often, and when the next is due; who stands in no row gets none.
CREATE TABLE digest_schedule (
  person_id TEXT PRIMARY KEY REFERENCES person(id) ON DELETE CASCADE,
  every TEXT NOT NULL CHECK (every IN ('hour', 'day')),
  -- At which hour of the day in their own time zone (IANA).
  hour INTEGER NOT NULL,
  zone TEXT NOT NULL,
  next_at TEXT NOT NULL,
  -- How often in turn sending failed.
  tries INTEGER NOT NULL DEFAULT 0
) STRICT, WITHOUT ROWID;
CREATE INDEX digest_schedule_next ON digest_schedule(next_at);

-- A mail that was sent, or is being sent.
CREATE TABLE digest (
  id TEXT PRIMARY KEY,
  person_id TEXT NOT NULL REFERENCES person(id) ON DELETE CASCADE,
  -- SHA-256 of what stands in its address to end the mails.
  stop_hash TEXT NOT NULL UNIQUE,
  made_at TEXT NOT NULL,
  sent_at TEXT
) STRICT, WITHOUT ROWID;
CREATE INDEX digest_person ON digest(person_id, sent_at);
CREATE INDEX digest_made ON digest(made_at);
-- What was said in it, so that nothing is said twice.
CREATE TABLE digest_item (
  person_id TEXT NOT NULL REFERENCES person(id) ON DELETE CASCADE,
  item TEXT NOT NULL,
  digest_id TEXT NOT NULL REFERENCES digest(id) ON DELETE CASCADE,
  PRIMARY KEY (person_id, item)
) STRICT, WITHOUT ROWID;
CREATE INDEX digest_item_digest ON digest_item(digest_id);
