-- A reading that is set is published: what it was then tells what has changed since.
ALTER TABLE assignment ADD COLUMN published_at TEXT NOT NULL DEFAULT '';
ALTER TABLE assignment ADD COLUMN published_number INTEGER NOT NULL DEFAULT 1;
ALTER TABLE assignment ADD COLUMN published_instructions TEXT NOT NULL DEFAULT '';
-- What was asked for, and when it was due, as JSON.
ALTER TABLE assignment ADD COLUMN published_asked TEXT NOT NULL DEFAULT '';
-- The newest version of the source then.
ALTER TABLE assignment ADD COLUMN published_version TEXT;
-- Since when it is counted anew who has looked at it; null where all of it counts.
ALTER TABLE assignment ADD COLUMN looked_since TEXT;
UPDATE assignment SET published_at = set_at, published_instructions = instructions,
  published_asked = json_array(json(marks), answers, questions, due_at),
  published_version = (SELECT current_version FROM source WHERE id = source_id);

-- When somebody last had it before them; not when they put it elsewhere.
ALTER TABLE shelf ADD COLUMN opened_at TEXT;
UPDATE shelf SET opened_at = touched_at;
