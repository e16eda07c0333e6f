ALTER TABLE "documents" ADD COLUMN "page_count" integer DEFAULT 0 NOT NULL;--> statement-breakpoint
ALTER TABLE "documents" ADD COLUMN "annotation_count" integer DEFAULT 0 NOT NULL;--> statement-breakpoint
UPDATE "documents" d SET
  "page_count" = (SELECT count(*) FROM "pages" p WHERE p."document_id" = d."id" AND NOT p."removed"),
  "annotation_count" = (
    SELECT count(*) FROM "annotations" a
    JOIN "pages" p ON p."id" = a."page_id" AND NOT p."removed"
    WHERE a."document_id" = d."id"
  );
--> statement-breakpoint
-- Titles as people sort them: "Week 2" before "Week 10".
CREATE COLLATION IF NOT EXISTS "natural" (provider = icu, locale = 'und-u-kn-true');
--> statement-breakpoint
-- Counts are kept by whatever writes, a statement at a time: what is counted anew for each reading grows with all that
-- was ever written.
CREATE FUNCTION count_annotations() RETURNS trigger LANGUAGE plpgsql AS $$
BEGIN
  IF TG_OP = 'INSERT' THEN
    UPDATE documents d SET annotation_count = annotation_count + c.n FROM (
      SELECT a.document_id, count(*) AS n FROM added a
      JOIN pages p ON p.id = a.page_id AND NOT p.removed GROUP BY a.document_id
    ) c WHERE d.id = c.document_id;
  ELSIF TG_OP = 'DELETE' THEN
    UPDATE documents d SET annotation_count = annotation_count - c.n FROM (
      SELECT a.document_id, count(*) AS n FROM gone a
      JOIN pages p ON p.id = a.page_id AND NOT p.removed GROUP BY a.document_id
    ) c WHERE d.id = c.document_id;
  ELSE
    UPDATE documents d SET annotation_count = annotation_count + c.n FROM (
      SELECT x.document_id, sum(x.n) AS n FROM (
        SELECT document_id, page_id, 1 AS n FROM added
        UNION ALL SELECT document_id, page_id, -1 FROM gone
      ) x JOIN pages p ON p.id = x.page_id AND NOT p.removed GROUP BY x.document_id
    ) c WHERE d.id = c.document_id AND c.n <> 0;
  END IF;
  RETURN NULL;
END $$;
--> statement-breakpoint
CREATE TRIGGER annotations_added AFTER INSERT ON "annotations"
  REFERENCING NEW TABLE AS added FOR EACH STATEMENT EXECUTE FUNCTION count_annotations();
--> statement-breakpoint
CREATE TRIGGER annotations_gone AFTER DELETE ON "annotations"
  REFERENCING OLD TABLE AS gone FOR EACH STATEMENT EXECUTE FUNCTION count_annotations();
--> statement-breakpoint
CREATE TRIGGER annotations_changed AFTER UPDATE ON "annotations"
  REFERENCING OLD TABLE AS gone NEW TABLE AS added FOR EACH STATEMENT EXECUTE FUNCTION count_annotations();
--> statement-breakpoint
CREATE FUNCTION count_pages() RETURNS trigger LANGUAGE plpgsql AS $$
BEGIN
  IF TG_OP = 'INSERT' THEN
    UPDATE documents d SET page_count = page_count + c.n FROM (
      SELECT document_id, count(*) AS n FROM added WHERE NOT removed GROUP BY document_id
    ) c WHERE d.id = c.document_id;
  ELSE
    UPDATE documents d SET
      page_count = page_count + c.pages,
      annotation_count = annotation_count + c.annotations
    FROM (
      SELECT x.document_id, sum(x.n) AS pages,
        sum(x.n * (SELECT count(*) FROM annotations a WHERE a.page_id = x.id)) AS annotations
      FROM (
        SELECT a.document_id, a.id, CASE WHEN a.removed THEN -1 ELSE 1 END AS n
        FROM added a JOIN gone g ON g.id = a.id WHERE a.removed <> g.removed
      ) x GROUP BY x.document_id
    ) c WHERE d.id = c.document_id;
  END IF;
  RETURN NULL;
END $$;
--> statement-breakpoint
CREATE TRIGGER pages_added AFTER INSERT ON "pages"
  REFERENCING NEW TABLE AS added FOR EACH STATEMENT EXECUTE FUNCTION count_pages();
--> statement-breakpoint
CREATE TRIGGER pages_changed AFTER UPDATE ON "pages"
  REFERENCING OLD TABLE AS gone NEW TABLE AS added FOR EACH STATEMENT EXECUTE FUNCTION count_pages();
