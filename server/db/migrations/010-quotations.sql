-- What words are within their line, beside being words: links, emphasis, code, raised and lowered, formulas, and what
-- pictures show. By it a quotation keeps what its passage held. Places are those of the version's stream.
CREATE TABLE version_inline (
  version_id TEXT NOT NULL REFERENCES source_version(id) ON DELETE CASCADE,
  start INTEGER NOT NULL,
  stop INTEGER NOT NULL,
  type TEXT NOT NULL,
  value TEXT NOT NULL,
  PRIMARY KEY (version_id, start, stop, type)
) STRICT, WITHOUT ROWID;
