-- A note that asks everybody it is for. What is withdrawn is asked no more; what was answered stays with it.
CREATE TABLE question (
  annotation_id TEXT PRIMARY KEY REFERENCES annotation(id) ON DELETE CASCADE,
  form TEXT NOT NULL CHECK (form IN ('open', 'one', 'several', 'number')),
  -- The words of each choice, and the places of the right ones: JSON.
  choices TEXT NOT NULL,
  right TEXT NOT NULL,
  number REAL,
  tolerance REAL NOT NULL,
  unit TEXT NOT NULL,
  -- A model answer, in Markdown.
  model TEXT NOT NULL,
  -- From when on those who are asked see it, and how the others answered.
  answers_shown TEXT NOT NULL CHECK (answers_shown IN ('after_own', 'after_due', 'by_hand')),
  withdrawn INTEGER NOT NULL DEFAULT 0,
  version INTEGER NOT NULL DEFAULT 1
) STRICT, WITHOUT ROWID;

-- In a class, a teacher shows the answers.
CREATE TABLE question_shown (
  annotation_id TEXT NOT NULL REFERENCES question(annotation_id) ON DELETE CASCADE,
  class_id TEXT NOT NULL REFERENCES class(id) ON DELETE CASCADE,
  shown_at TEXT NOT NULL,
  PRIMARY KEY (annotation_id, class_id)
) STRICT, WITHOUT ROWID;
CREATE INDEX question_shown_class ON question_shown(class_id);

-- What somebody answered last.
CREATE TABLE question_response (
  annotation_id TEXT NOT NULL REFERENCES question(annotation_id) ON DELETE CASCADE,
  person_id TEXT NOT NULL REFERENCES person(id) ON DELETE CASCADE,
  -- Places of choices: JSON.
  choices TEXT NOT NULL,
  number REAL,
  words TEXT NOT NULL,
  given_at TEXT NOT NULL,
  PRIMARY KEY (annotation_id, person_id)
) STRICT, WITHOUT ROWID;
CREATE INDEX question_response_person ON question_response(person_id);

-- Whether the questions that are pinned to a reading are to be answered.
ALTER TABLE assignment ADD COLUMN questions INTEGER NOT NULL DEFAULT 0;
