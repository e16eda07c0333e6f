ALTER TABLE "pages" ADD COLUMN "removed_at" integer;--> statement-breakpoint
ALTER TABLE "pages" ADD COLUMN "removed_by" text;--> statement-breakpoint
UPDATE "pages" p SET "removed_at" = o."revision", "removed_by" = o."author" FROM (
  SELECT DISTINCT ON ("effect" ->> 'pageId') "effect" ->> 'pageId' AS "page_id", "revision", "author"
  FROM "operations" WHERE "effect" ->> 'type' = 'page.remove'
  ORDER BY "effect" ->> 'pageId', "revision" DESC
) o WHERE p."removed" AND p."id" = o."page_id"::uuid;
