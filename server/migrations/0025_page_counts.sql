CREATE TABLE "page_counts" (
	"page_id" uuid PRIMARY KEY NOT NULL,
	"annotations" integer NOT NULL
);
--> statement-breakpoint
ALTER TABLE "page_counts" ADD CONSTRAINT "page_counts_page_id_pages_id_fk" FOREIGN KEY ("page_id") REFERENCES "public"."pages"("id") ON DELETE cascade ON UPDATE no action;
--> statement-breakpoint
INSERT INTO "page_counts" SELECT "page_id", count(*) FROM "annotations" GROUP BY "page_id";
--> statement-breakpoint
-- As count_annotations does for documents: whatever writes, a statement at a time.
CREATE FUNCTION count_on_pages() RETURNS trigger LANGUAGE plpgsql AS $$
BEGIN
  IF TG_OP = 'INSERT' THEN
    INSERT INTO page_counts AS c SELECT page_id, count(*) FROM added GROUP BY page_id
    ON CONFLICT (page_id) DO UPDATE SET annotations = c.annotations + excluded.annotations;
  ELSIF TG_OP = 'DELETE' THEN
    UPDATE page_counts c SET annotations = c.annotations - g.n FROM (
      SELECT page_id, count(*) AS n FROM gone GROUP BY page_id
    ) g WHERE c.page_id = g.page_id;
  ELSE
    INSERT INTO page_counts AS c SELECT x.page_id, sum(x.n) FROM (
      SELECT page_id, 1 AS n FROM added UNION ALL SELECT page_id, -1 FROM gone
    ) x GROUP BY x.page_id HAVING sum(x.n) <> 0
    ON CONFLICT (page_id) DO UPDATE SET annotations = c.annotations + excluded.annotations;
  END IF;
  RETURN NULL;
END $$;
--> statement-breakpoint
CREATE TRIGGER annotations_added_on_pages AFTER INSERT ON "annotations"
  REFERENCING NEW TABLE AS added FOR EACH STATEMENT EXECUTE FUNCTION count_on_pages();
--> statement-breakpoint
CREATE TRIGGER annotations_gone_from_pages AFTER DELETE ON "annotations"
  REFERENCING OLD TABLE AS gone FOR EACH STATEMENT EXECUTE FUNCTION count_on_pages();
--> statement-breakpoint
CREATE TRIGGER annotations_changed_on_pages AFTER UPDATE ON "annotations"
  REFERENCING OLD TABLE AS gone NEW TABLE AS added FOR EACH STATEMENT EXECUTE FUNCTION count_on_pages();
