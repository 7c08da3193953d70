-- An account that may not be used for now.
ALTER TABLE person ADD COLUMN suspended_at TEXT;

-- Sessions by a name of their own, so that their owner can tell and end them; their tokens stay hashed.
CREATE TABLE named_session (
  token_hash TEXT PRIMARY KEY,
  id TEXT NOT NULL UNIQUE,
  person_id TEXT NOT NULL REFERENCES person(id) ON DELETE CASCADE,
  created_at TEXT NOT NULL,
  expires_at TEXT NOT NULL,
  seen_at TEXT NOT NULL,
  agent TEXT NOT NULL
) STRICT, WITHOUT ROWID;
INSERT INTO named_session
  SELECT token_hash,
    lower(hex(randomblob(4)) || '-' || hex(randomblob(2)) || '-7' || substr(hex(randomblob(2)), 2) || '-8' || substr(hex(randomblob(2)), 2) || '-' || hex(randomblob(6))),
    person_id, created_at, expires_at, created_at, ''
  FROM session;
DROP TABLE session;
ALTER TABLE named_session RENAME TO session;
CREATE INDEX session_person ON session(person_id);

-- What a person lets another program do for them. Only the hash of what the program shows is stored.
CREATE TABLE token (
  id TEXT PRIMARY KEY,
  person_id TEXT NOT NULL REFERENCES person(id) ON DELETE CASCADE,
  name TEXT NOT NULL,
  scope TEXT NOT NULL CHECK (scope IN ('read', 'write')),
  hash TEXT NOT NULL UNIQUE,
  created_at TEXT NOT NULL,
  expires_at TEXT NOT NULL,
  used_at TEXT
) STRICT;
CREATE INDEX token_person ON token(person_id);

-- A class that nobody can join, and one that was deleted: its members are set aside, so that nobody sees anything by it.
ALTER TABLE class ADD COLUMN code_open INTEGER NOT NULL DEFAULT 1;
ALTER TABLE class ADD COLUMN deleted_at TEXT;
CREATE TABLE former_membership (
  class_id TEXT NOT NULL REFERENCES class(id) ON DELETE CASCADE,
  person_id TEXT NOT NULL REFERENCES person(id) ON DELETE CASCADE,
  role TEXT NOT NULL CHECK (role IN ('teacher', 'assistant', 'student')),
  joined_at TEXT NOT NULL,
  PRIMARY KEY (class_id, person_id)
) STRICT, WITHOUT ROWID;
CREATE INDEX former_membership_person ON former_membership(person_id);
