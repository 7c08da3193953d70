-- Who comes with a code or a link is in at once, or has to be let in.
ALTER TABLE class ADD COLUMN joining TEXT NOT NULL DEFAULT 'at_once' CHECK (joining IN ('at_once', 'asked'));
-- Whether those may ask to join who meet a note of the class elsewhere.
ALTER TABLE class ADD COLUMN askable INTEGER NOT NULL DEFAULT 0;
-- Since when it is only looked at.
ALTER TABLE class ADD COLUMN archived_at TEXT;

-- Links by which others join, for whoever has one or for somebody whom a list named.
CREATE TABLE join_link (
  id TEXT PRIMARY KEY,
  class_id TEXT NOT NULL REFERENCES class(id) ON DELETE CASCADE,
  token TEXT NOT NULL UNIQUE,
  for_whom TEXT,
  email TEXT,
  role TEXT NOT NULL CHECK (role IN ('teacher', 'assistant', 'student')),
  made_by TEXT REFERENCES person(id) ON DELETE SET NULL,
  made_at TEXT NOT NULL,
  expires_at TEXT,
  -- For how many people it is; null is for as many as want to.
  most INTEGER,
  used INTEGER NOT NULL DEFAULT 0
) STRICT;
CREATE INDEX join_link_class ON join_link(class_id, email);
CREATE INDEX join_link_made_by ON join_link(made_by);

-- Who asks to be let in.
CREATE TABLE join_request (
  id TEXT PRIMARY KEY,
  class_id TEXT NOT NULL REFERENCES class(id) ON DELETE CASCADE,
  person_id TEXT NOT NULL REFERENCES person(id) ON DELETE CASCADE,
  -- By what note of it they ask: they do not know which class it is.
  annotation_id TEXT REFERENCES annotation(id) ON DELETE CASCADE,
  asked_at TEXT NOT NULL,
  refused_at TEXT,
  UNIQUE (class_id, person_id)
) STRICT;
CREATE INDEX join_request_person ON join_request(person_id);
CREATE INDEX join_request_annotation ON join_request(annotation_id) WHERE annotation_id IS NOT NULL;
