-- What is shown to a class now: outlives a restart of the server. Pointer and ink are never stored.
CREATE TABLE live (
  class_id TEXT PRIMARY KEY REFERENCES class(id) ON DELETE CASCADE,
  shown_by TEXT NOT NULL REFERENCES person(id) ON DELETE CASCADE,
  started_at TEXT NOT NULL,
  -- When who shows it was heard of last.
  heard_at TEXT NOT NULL,
  -- JSON: what stands of it, as the interface says.
  state TEXT NOT NULL
) STRICT, WITHOUT ROWID;
CREATE INDEX live_shown_by ON live(shown_by);
CREATE INDEX live_heard_at ON live(heard_at);
