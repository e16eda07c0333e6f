-- What people do most is write. In one statement: whether nothing stands in the way (the document is the writer's; operations
-- and annotations are new; their pages are there and not removed), and what is to be written. The revision before, or
-- null where something does, and nothing has been done. Statements of a function each see what is committed by then
-- (PostgreSQL, 38.7): once the document is locked nobody else changes it.
CREATE FUNCTION add_annotations(document uuid, writer text, batch jsonb, coming jsonb) RETURNS integer LANGUAGE plpgsql AS $$
DECLARE
  before integer;
  after integer;
BEGIN
  SELECT revision INTO before FROM documents WHERE id = document AND owner = writer FOR UPDATE;
  IF NOT FOUND
    OR EXISTS (
      SELECT FROM jsonb_to_recordset(batch) AS r(id uuid) JOIN operations o ON o.id = r.id
    )
    OR EXISTS (
      SELECT FROM jsonb_to_recordset(coming) AS r(id uuid)
      JOIN annotations a ON a.document_id = document AND a.id = r.id
    )
    OR EXISTS (
      SELECT FROM jsonb_to_recordset(coming) AS r(page_id uuid)
      LEFT JOIN pages p ON p.id = r.page_id AND p.document_id = document AND NOT p.removed
      WHERE p.id IS NULL
    )
  THEN
    RETURN NULL;
  END IF;
  after := before + jsonb_array_length(batch);
  INSERT INTO annotations (document_id, id, page_id, fields, samples, revision)
    SELECT document, id, page_id, fields, samples, after
    FROM jsonb_to_recordset(coming) AS r(id uuid, page_id uuid, fields jsonb, samples bytea);
  INSERT INTO operations (id, document_id, revision, base_revision, author, at, effect)
    SELECT id, document, before + place, base_revision, author, at, effect
    FROM jsonb_to_recordset(batch)
      AS r(id uuid, place integer, base_revision integer, author text, at timestamptz, effect jsonb);
  UPDATE documents SET revision = after, modified = now() WHERE id = document;
  PERFORM pg_notify('stylet_revisions', document || ' ' || after);
  RETURN before;
END $$;
