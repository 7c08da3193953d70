-- Words are found without their accents in Greek and Cyrillic as in Latin letters: spaced() takes them away by now, and
-- what was indexed before is indexed anew.
INSERT INTO annotation_words(annotation_words) VALUES ('delete-all');
INSERT INTO annotation_words(rowid, quote, note, audience) SELECT seq, spaced(quote), spaced(note), audience FROM annotation;
INSERT INTO source_words(source_words) VALUES ('delete-all');
INSERT INTO source_words(rowid, title, about, remark, stream) SELECT seq, spaced(title), spaced(about), spaced(remark), spaced(stream) FROM version_text;
