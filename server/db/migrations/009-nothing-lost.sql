-- Which run of events this database is in: made anew when a backup is put in its place, so that open pages and streams
-- know that what they have heard is no longer what is there.
CREATE TABLE installation (
  key TEXT PRIMARY KEY,
  value TEXT NOT NULL
) STRICT, WITHOUT ROWID;
INSERT INTO installation (key, value) VALUES ('epoch', lower(hex(randomblob(8))));

-- The words of a recording, until its job has ended.
ALTER TABLE job ADD COLUMN transcript_hash TEXT REFERENCES blob(hash);
UPDATE job SET transcript_hash = json_extract(input, '$.transcript.hash') WHERE json_extract(input, '$.transcript.hash') IN (SELECT hash FROM blob);
CREATE INDEX job_transcript ON job(transcript_hash) WHERE transcript_hash IS NOT NULL;

-- Events are kept for as long as somebody may still catch up on them, jobs for as long as they are shown.
CREATE INDEX event_at ON event(at);
CREATE INDEX job_ended ON job(ended_at) WHERE ended_at IS NOT NULL;
-- Whose turn it is: a person's jobs that wait, the oldest first.
CREATE INDEX job_turn ON job(state, person_id, created_at);

-- What a row refers to is asked for when that is deleted; without an index every row would be looked at.
CREATE INDEX session_person ON session(person_id);
CREATE INDEX class_created_by ON class(created_by);
CREATE INDEX class_source_added_by ON class_source(added_by);
CREATE INDEX shelf_source ON shelf(source_id);
CREATE INDEX source_tag_source ON source_tag(source_id);
CREATE INDEX annotation_version ON annotation(version_id);
CREATE INDEX notification_annotation ON notification(annotation_id);
CREATE INDEX draft_person ON draft(person_id);
CREATE INDEX draft_snapshot ON draft(snapshot_hash);
CREATE INDEX draft_file ON draft(file_hash) WHERE file_hash IS NOT NULL;
CREATE INDEX picture_person ON picture(person_id);
CREATE INDEX collection_item_added_by ON collection_item(added_by);
CREATE INDEX annotation_deleted ON annotation(deleted_at) WHERE deleted_at IS NOT NULL;
CREATE INDEX source_deleted ON source(deleted_at) WHERE deleted_at IS NOT NULL;
CREATE INDEX job_source ON job(source_id) WHERE source_id IS NOT NULL;
