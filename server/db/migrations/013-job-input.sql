-- Where a job takes from and what it makes, each as one of a few kinds. What is null is left out by json_patch.
UPDATE job SET input = json_patch('{}', json_object(
  'origin', CASE
    WHEN input -> '$.draft' IS NOT NULL THEN json_object('type', 'draft', 'draftId', input -> '$.draft.id', 'choices', input -> '$.choices')
    WHEN input -> '$.fileName' IS NOT NULL THEN json_object('type', 'file', 'name', input -> '$.fileName', 'transcript', input -> '$.transcript',
      'remote', input -> '$.remote', 'encoding', input -> '$.encoding')
    ELSE json_object('type', 'address', 'address', input -> '$.address', 'choices', input -> '$.choices', 'polite', input -> '$.polite', 'encoding', input -> '$.encoding')
  END,
  'target', CASE
    WHEN input -> '$.look' IS NOT NULL THEN json_object('type', 'draft')
    WHEN input -> '$.again' IS NOT NULL THEN json_object('type', 'version', 'sourceId', input -> '$.sourceId')
    ELSE json_object('type', 'source', 'sourceId', input -> '$.sourceId', 'tags', input -> '$.tags', 'remark', input -> '$.remark', 'apart', input -> '$.apart')
  END,
  'overrides', CASE
    WHEN input -> '$.draft' IS NOT NULL THEN json_object('title', input -> '$.draft.title', 'author', input -> '$.draft.author')
    WHEN input -> '$.author' IS NOT NULL THEN json_object('author', input -> '$.author')
  END));
