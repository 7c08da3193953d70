-- One is told of an annotation, of a release, or of something in a class: that one was let in, that a reading is set
-- or changed, that the answers to a question are shown. What is taken back takes what was told of it with it.
CREATE TABLE told (
  id TEXT PRIMARY KEY,
  person_id TEXT NOT NULL REFERENCES person(id) ON DELETE CASCADE,
  annotation_id TEXT REFERENCES annotation(id) ON DELETE CASCADE,
  release_id TEXT REFERENCES release(id) ON DELETE CASCADE,
  class_id TEXT REFERENCES class(id) ON DELETE CASCADE,
  source_id TEXT,
  question_id TEXT,
  -- Of a class: who did it.
  by_id TEXT REFERENCES person(id) ON DELETE SET NULL,
  created_at TEXT NOT NULL,
  seen_at TEXT,
  -- Whether it was seen before, and has happened again since.
  again INTEGER NOT NULL DEFAULT 0,
  CHECK ((annotation_id IS NOT NULL) + (release_id IS NOT NULL) + (class_id IS NOT NULL) = 1),
  CHECK (class_id IS NOT NULL OR (source_id IS NULL AND question_id IS NULL)),
  CHECK (source_id IS NULL OR question_id IS NULL),
  UNIQUE (person_id, annotation_id),
  UNIQUE (person_id, release_id),
  FOREIGN KEY (class_id, source_id) REFERENCES assignment(class_id, source_id) ON DELETE CASCADE,
  FOREIGN KEY (question_id, class_id) REFERENCES question_shown(annotation_id, class_id) ON DELETE CASCADE
) STRICT;
INSERT INTO told (id, person_id, annotation_id, release_id, created_at, seen_at)
  SELECT id, person_id, annotation_id, release_id, created_at, seen_at FROM notification;
DROP TABLE notification;
ALTER TABLE told RENAME TO notification;
CREATE INDEX notification_person ON notification(person_id, created_at);
CREATE INDEX notification_annotation ON notification(annotation_id) WHERE annotation_id IS NOT NULL;
CREATE INDEX notification_release ON notification(release_id) WHERE release_id IS NOT NULL;
CREATE INDEX notification_class ON notification(class_id, source_id) WHERE class_id IS NOT NULL;
CREATE INDEX notification_question ON notification(question_id, class_id) WHERE question_id IS NOT NULL;
CREATE INDEX notification_by ON notification(by_id) WHERE by_id IS NOT NULL;
CREATE UNIQUE INDEX notification_of_class
  ON notification(person_id, class_id, coalesce(source_id, ''), coalesce(question_id, ''));
