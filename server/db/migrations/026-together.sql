-- Classes for which a reading was set at once may read it together: what is written for one of them since then, or by
-- its teachers, stands in the others, too.
ALTER TABLE assignment ADD COLUMN together_id TEXT;
ALTER TABLE assignment ADD COLUMN together_since TEXT;
CREATE INDEX assignment_together ON assignment(together_id) WHERE together_id IS NOT NULL;
-- By which class it came to this one; null where its author chose the class.
ALTER TABLE annotation_class ADD COLUMN from_class TEXT REFERENCES class(id) ON DELETE CASCADE;
CREATE INDEX annotation_class_from ON annotation_class(from_class) WHERE from_class IS NOT NULL;

-- A recording may have to be heard in order. Heard: the stretches of it that somebody played, in whole seconds.
ALTER TABLE assignment ADD COLUMN in_order INTEGER NOT NULL DEFAULT 0;
UPDATE assignment SET published_asked = json_insert(published_asked, '$[#]', 0) WHERE published_asked <> '';
ALTER TABLE shelf ADD COLUMN heard TEXT NOT NULL DEFAULT '[]';
