-- A card of somebody's own: a question, words or an area under a slip, or both, of something marked.
CREATE TABLE card (
  id TEXT PRIMARY KEY,
  owner_id TEXT NOT NULL REFERENCES person(id) ON DELETE CASCADE,
  -- No references: what is deleted there keeps its words here. Null for a card that was brought in without a passage.
  annotation_id TEXT,
  source_id TEXT,
  question TEXT NOT NULL DEFAULT '',
  -- In Markdown; '' where the note of the passage is the answer.
  answer TEXT NOT NULL DEFAULT '',
  -- Words under a slip (JSON), and whether the area of the passage lies under one.
  slips TEXT NOT NULL DEFAULT '[]',
  covers INTEGER NOT NULL DEFAULT 0,
  -- The words of the passage and the title of its source, as they were when the card was made or changed last.
  quote TEXT NOT NULL DEFAULT '',
  title TEXT NOT NULL DEFAULT '',
  version INTEGER NOT NULL DEFAULT 1,
  created_at TEXT NOT NULL,
  deleted_at TEXT
) STRICT, WITHOUT ROWID;
CREATE INDEX card_owner ON card(owner_id, created_at);
CREATE INDEX card_annotation ON card(annotation_id) WHERE annotation_id IS NOT NULL;
CREATE INDEX card_source ON card(source_id, owner_id) WHERE source_id IS NOT NULL;
CREATE INDEX card_deleted ON card(deleted_at) WHERE deleted_at IS NOT NULL;

-- How well somebody remembers a card.
CREATE TABLE card_memory (
  person_id TEXT NOT NULL REFERENCES person(id) ON DELETE CASCADE,
  card_id TEXT NOT NULL REFERENCES card(id) ON DELETE CASCADE,
  state TEXT NOT NULL CHECK (state IN ('new', 'learning', 'review', 'relearning')),
  due TEXT NOT NULL,
  stability REAL NOT NULL,
  difficulty REAL NOT NULL,
  seen INTEGER NOT NULL,
  forgotten INTEGER NOT NULL,
  step INTEGER NOT NULL,
  last TEXT,
  resting INTEGER NOT NULL DEFAULT 0,
  PRIMARY KEY (person_id, card_id)
) STRICT, WITHOUT ROWID;
CREATE INDEX card_memory_due ON card_memory(person_id, due) WHERE resting = 0;
CREATE INDEX card_memory_card ON card_memory(card_id);

-- Every answer, with what was known before it, so that it can be taken back.
CREATE TABLE card_answer (
  id TEXT PRIMARY KEY,
  person_id TEXT NOT NULL REFERENCES person(id) ON DELETE CASCADE,
  card_id TEXT NOT NULL REFERENCES card(id) ON DELETE CASCADE,
  at TEXT NOT NULL,
  rating TEXT NOT NULL CHECK (rating IN ('forgot', 'partly', 'knew', 'easily')),
  state TEXT NOT NULL,
  -- The chance with which it was remembered at that time, as it was reckoned; null for a new one.
  chance REAL,
  -- The memory (JSON).
  before TEXT NOT NULL
) STRICT, WITHOUT ROWID;
CREATE INDEX card_answer_person ON card_answer(person_id, at);
CREATE INDEX card_answer_card ON card_answer(card_id, at);

-- How somebody wants to practise; who has no row, as is usual.
CREATE TABLE review_wish (
  person_id TEXT PRIMARY KEY REFERENCES person(id) ON DELETE CASCADE,
  retention REAL NOT NULL,
  new_per_day INTEGER NOT NULL,
  answers_per_day INTEGER NOT NULL
) STRICT, WITHOUT ROWID;
