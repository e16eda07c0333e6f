-- What people do most is write. In one statement: whether nothing stands in the way (the document is the writer's; operations
-- and annotations are new; their pages are there and not removed), and what is to be written. The revision before, or
-- null where something does, and nothing has been done. Statements of a function each see what is committed by then
-- (PostgreSQL, 38.7): once the document is locked nobody else changes it.
-- Plans are kept for as long as a connection, and made while tables may be small: each thing is looked up by its own key
-- ("offset 0" keeps the planner from reading all of the document instead), and nothing reads whole tables.
CREATE FUNCTION add_annotations(document uuid, writer text, batch jsonb, coming jsonb) RETURNS integer LANGUAGE plpgsql
SET enable_seqscan = off SET enable_bitmapscan = off AS $$
DECLARE
  operation_ids uuid[] := ARRAY(SELECT id FROM jsonb_to_recordset(batch) AS r(id uuid));
  annotation_ids uuid[] := ARRAY(SELECT id FROM jsonb_to_recordset(coming) AS r(id uuid));
  page_ids uuid[] := ARRAY(SELECT DISTINCT page_id FROM jsonb_to_recordset(coming) AS r(page_id uuid));
  before integer;
  after integer;
BEGIN
  SELECT revision INTO before FROM documents WHERE id = document AND owner = writer FOR UPDATE;
  IF NOT FOUND
    OR EXISTS (SELECT FROM operations o WHERE o.id = ANY (operation_ids))
    OR EXISTS (
      SELECT FROM unnest(annotation_ids) AS w(id)
      JOIN LATERAL (
        SELECT FROM annotations a WHERE a.document_id = document AND a.id = w.id OFFSET 0
      ) there ON true
    )
    OR EXISTS (
      SELECT FROM unnest(page_ids) AS w(id)
      LEFT JOIN LATERAL (SELECT document_id, removed FROM pages WHERE pages.id = w.id OFFSET 0) p ON true
      WHERE p.document_id IS DISTINCT FROM document OR p.removed
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
