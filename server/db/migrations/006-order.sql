-- What is searched: the words of sources and of annotations, in two indexes that hold no text of their own. spaced() is
-- the program's: it puts spaces into scripts that are written without them. Whom an annotation is for stands in its
-- index, so that the words of others are passed over before the rule of who sees what is asked.
ALTER TABLE annotation ADD COLUMN audience TEXT NOT NULL DEFAULT '';
DROP TRIGGER annotation_in;
DROP TRIGGER annotation_out;
DROP TRIGGER annotation_change;
DROP TABLE annotation_fts;
UPDATE annotation SET audience = 'p' || replace(author_id, '-', '')
  || coalesce((SELECT ' ' || group_concat('c' || replace(c.class_id, '-', ''), ' ') FROM annotation_class c WHERE c.annotation_id = annotation.id), '');
CREATE VIRTUAL TABLE annotation_words USING fts5(quote, note, audience, content='', contentless_delete=1, tokenize="unicode61 remove_diacritics 2");
INSERT INTO annotation_words(rowid, quote, note, audience) SELECT seq, spaced(quote), spaced(note), audience FROM annotation;
CREATE TRIGGER annotation_words_in AFTER INSERT ON annotation BEGIN
  INSERT INTO annotation_words(rowid, quote, note, audience) VALUES (new.seq, spaced(new.quote), spaced(new.note), new.audience);
END;
CREATE TRIGGER annotation_words_out AFTER DELETE ON annotation BEGIN
  DELETE FROM annotation_words WHERE rowid = old.seq;
END;
CREATE TRIGGER annotation_words_change AFTER UPDATE OF quote, note, audience ON annotation
WHEN new.quote <> old.quote OR new.note <> old.note OR new.audience <> old.audience BEGIN
  UPDATE annotation_words SET quote = spaced(new.quote), note = spaced(new.note), audience = new.audience WHERE rowid = new.seq;
END;

-- `about` is author, site and description; `remark` is its owner's alone.
DROP TRIGGER version_text_in;
DROP TRIGGER version_text_out;
DROP TRIGGER version_text_change;
DROP TABLE text_fts;
ALTER TABLE version_text ADD COLUMN about TEXT NOT NULL DEFAULT '';
ALTER TABLE version_text ADD COLUMN remark TEXT NOT NULL DEFAULT '';
UPDATE version_text SET (about, remark) = (SELECT trim(s.author || ' ' || s.site || ' ' || s.description), s.remark FROM source_version v JOIN source s ON s.id = v.source_id WHERE v.id = version_text.version_id);
CREATE VIRTUAL TABLE source_words USING fts5(title, about, remark, stream, content='', contentless_delete=1, tokenize="unicode61 remove_diacritics 2");
INSERT INTO source_words(rowid, title, about, remark, stream) SELECT seq, spaced(title), spaced(about), spaced(remark), spaced(stream) FROM version_text;
CREATE TRIGGER source_words_in AFTER INSERT ON version_text BEGIN
  INSERT INTO source_words(rowid, title, about, remark, stream) VALUES (new.seq, spaced(new.title), spaced(new.about), spaced(new.remark), spaced(new.stream));
END;
CREATE TRIGGER source_words_out AFTER DELETE ON version_text BEGIN
  DELETE FROM source_words WHERE rowid = old.seq;
END;
CREATE TRIGGER source_words_change AFTER UPDATE OF title, about, remark ON version_text
WHEN new.title <> old.title OR new.about <> old.about OR new.remark <> old.remark BEGIN
  UPDATE source_words SET title = spaced(new.title), about = spaced(new.about), remark = spaced(new.remark), stream = spaced(new.stream) WHERE rowid = new.seq;
END;
CREATE VIRTUAL TABLE source_vocabulary USING fts5vocab(source_words, row);
CREATE VIRTUAL TABLE annotation_vocabulary USING fts5vocab(annotation_words, col);

-- The share that was read, 0 to 1; written with the spans it is counted from.
ALTER TABLE shelf ADD COLUMN read_share REAL NOT NULL DEFAULT 0;
UPDATE shelf SET read_share = min(1.0, coalesce((SELECT sum(json_extract(e.value, '$[1]') - json_extract(e.value, '$[0]')) FROM json_each(shelf.spans) e), 0) * 1.0
  / max(1, (SELECT length FROM source WHERE source.id = shelf.source_id)));

-- Sources in an order of one's own, in sections; within another collection at most. Private, or shared with a class to
-- read, or to add to as well.
CREATE TABLE collection (
  id TEXT PRIMARY KEY,
  owner_id TEXT NOT NULL REFERENCES person(id) ON DELETE CASCADE,
  name TEXT NOT NULL,
  parent_id TEXT REFERENCES collection(id) ON DELETE CASCADE,
  class_id TEXT REFERENCES class(id) ON DELETE SET NULL,
  may TEXT NOT NULL DEFAULT 'read' CHECK (may IN ('read', 'add')),
  -- Names of its sections in their order, as JSON.
  sections TEXT NOT NULL DEFAULT '[]',
  position INTEGER NOT NULL DEFAULT 0,
  created_at TEXT NOT NULL,
  version INTEGER NOT NULL DEFAULT 1
) STRICT;
CREATE INDEX collection_owner ON collection(owner_id, position);
CREATE INDEX collection_class ON collection(class_id) WHERE class_id IS NOT NULL;
CREATE INDEX collection_parent ON collection(parent_id) WHERE parent_id IS NOT NULL;
CREATE TABLE collection_item (
  collection_id TEXT NOT NULL REFERENCES collection(id) ON DELETE CASCADE,
  source_id TEXT NOT NULL REFERENCES source(id) ON DELETE CASCADE,
  -- Which section, counted from 0; -1 above the first.
  section INTEGER NOT NULL DEFAULT -1,
  position INTEGER NOT NULL,
  added_by TEXT NOT NULL REFERENCES person(id),
  added_at TEXT NOT NULL,
  PRIMARY KEY (collection_id, source_id)
) STRICT, WITHOUT ROWID;
CREATE INDEX collection_item_source ON collection_item(source_id, collection_id);
CREATE VIEW collection_visible(person_id, collection_id) AS
  SELECT owner_id, id FROM collection
  UNION
  SELECT m.person_id, c.id FROM collection c JOIN membership m ON m.class_id = c.class_id;

CREATE TABLE saved_search (
  id TEXT PRIMARY KEY,
  owner_id TEXT NOT NULL REFERENCES person(id) ON DELETE CASCADE,
  class_id TEXT REFERENCES class(id) ON DELETE SET NULL,
  name TEXT NOT NULL,
  query TEXT NOT NULL,
  position INTEGER NOT NULL,
  version INTEGER NOT NULL DEFAULT 1
) STRICT;
CREATE INDEX saved_search_owner ON saved_search(owner_id, position);
CREATE INDEX saved_search_class ON saved_search(class_id) WHERE class_id IS NOT NULL;

CREATE INDEX annotation_live ON annotation(source_id, author_id) WHERE deleted_at IS NULL;

-- As before; with the row number, by which one annotation is asked for fastest.
DROP VIEW annotation_visible;
CREATE VIEW annotation_visible(person_id, annotation_id, seq) AS
  SELECT a.author_id, a.id, a.seq FROM annotation a WHERE a.deleted_at IS NULL
  UNION ALL
  SELECT m.person_id, a.id, a.seq
    FROM annotation a
    JOIN annotation_class ac ON ac.annotation_id = a.id
    JOIN class_source cs ON cs.class_id = ac.class_id AND cs.source_id = a.source_id
    JOIN membership m ON m.class_id = ac.class_id
    JOIN source s ON s.id = a.source_id AND s.deleted_at IS NULL
   WHERE a.deleted_at IS NULL
     AND (a.root_id IS NULL OR EXISTS (
       SELECT 1 FROM annotation r
        WHERE r.id = a.root_id
          AND (r.author_id = m.person_id OR EXISTS (
            SELECT 1 FROM annotation_class rc
              JOIN class_source rs ON rs.class_id = rc.class_id AND rs.source_id = r.source_id
              JOIN membership rm ON rm.class_id = rc.class_id AND rm.person_id = m.person_id
             WHERE rc.annotation_id = r.id))));

-- What somebody writes about a tag, on a page of their own, and what that leads to.
CREATE TABLE topic (
  person_id TEXT NOT NULL REFERENCES person(id) ON DELETE CASCADE,
  tag TEXT NOT NULL,
  text TEXT NOT NULL,
  written_at TEXT NOT NULL,
  version INTEGER NOT NULL DEFAULT 1,
  PRIMARY KEY (person_id, tag)
) STRICT, WITHOUT ROWID;
CREATE TABLE topic_link (
  person_id TEXT NOT NULL,
  tag TEXT NOT NULL,
  type TEXT NOT NULL CHECK (type IN ('annotation', 'source', 'person', 'picture')),
  target TEXT NOT NULL,
  PRIMARY KEY (person_id, tag, type, target),
  FOREIGN KEY (person_id, tag) REFERENCES topic(person_id, tag) ON DELETE CASCADE
) STRICT, WITHOUT ROWID;
CREATE INDEX topic_link_target ON topic_link(type, target, person_id);
