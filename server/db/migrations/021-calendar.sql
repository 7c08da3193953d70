-- The address at which a calendar program finds what is due for somebody. Whoever has it sees that.
CREATE TABLE calendar_address (
  person_id TEXT PRIMARY KEY REFERENCES person(id) ON DELETE CASCADE,
  -- 64 hexadecimal digits.
  token TEXT NOT NULL UNIQUE,
  made_at TEXT NOT NULL
) STRICT, WITHOUT ROWID;
