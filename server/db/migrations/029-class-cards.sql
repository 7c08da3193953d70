-- Cards that were given to a class: each student has a memory of their own of each.
CREATE TABLE class_card (
  class_id TEXT NOT NULL REFERENCES class(id) ON DELETE CASCADE,
  card_id TEXT NOT NULL REFERENCES card(id) ON DELETE CASCADE,
  given_at TEXT NOT NULL,
  -- From when on those who teach see who answered how; null where they see only how it goes for all together.
  named_from TEXT,
  PRIMARY KEY (class_id, card_id)
) STRICT, WITHOUT ROWID;
CREATE INDEX class_card_card ON class_card(card_id);

CREATE TRIGGER class_card_in AFTER INSERT ON class_card BEGIN
  INSERT INTO card_memory (person_id, card_id, state, due, stability, difficulty, seen, forgotten, step)
  SELECT person_id, new.card_id, 'new', new.given_at, 0, 0, 0, 0, 0 FROM membership
  WHERE class_id = new.class_id AND role = 'student'
  ON CONFLICT DO NOTHING;
END;
CREATE TRIGGER membership_cards_in AFTER INSERT ON membership WHEN new.role = 'student' BEGIN
  INSERT INTO card_memory (person_id, card_id, state, due, stability, difficulty, seen, forgotten, step)
  SELECT new.person_id, card_id, 'new', new.joined_at, 0, 0, 0, 0, 0 FROM class_card WHERE class_id = new.class_id
  ON CONFLICT DO NOTHING;
END;
CREATE TRIGGER membership_cards_change AFTER UPDATE OF role ON membership WHEN new.role = 'student' BEGIN
  INSERT INTO card_memory (person_id, card_id, state, due, stability, difficulty, seen, forgotten, step)
  SELECT new.person_id, card_id, 'new', new.joined_at, 0, 0, 0, 0, 0 FROM class_card WHERE class_id = new.class_id
  ON CONFLICT DO NOTHING;
END;
