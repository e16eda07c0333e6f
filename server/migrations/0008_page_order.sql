ALTER TABLE "pages" ALTER COLUMN "label" DROP NOT NULL;--> statement-breakpoint
ALTER TABLE "pages" ADD COLUMN "order" text;--> statement-breakpoint
-- Fractional indexes of whole numbers: a and one digit, b and two, c and three, to the base 62.
UPDATE "pages" SET "order" = CASE
  WHEN "position" < 62 THEN 'a'
  WHEN "position" < 62 + 62 * 62 THEN 'b'
  ELSE 'c'
END || (
  SELECT string_agg(substr('0123456789ABCDEFGHIJKLMNOPQRSTUVWXYZabcdefghijklmnopqrstuvwxyz', (rest / (62 ^ digit)::int) % 62 + 1, 1), '' ORDER BY digit DESC)
  FROM (SELECT CASE
      WHEN "position" < 62 THEN "position"
      WHEN "position" < 62 + 62 * 62 THEN "position" - 62
      ELSE "position" - 62 - 62 * 62
    END AS rest) AS number,
    generate_series(0, CASE WHEN "position" < 62 THEN 0 WHEN "position" < 62 + 62 * 62 THEN 1 ELSE 2 END) AS digit
);--> statement-breakpoint
ALTER TABLE "pages" ALTER COLUMN "order" SET NOT NULL;--> statement-breakpoint
-- Where pages are called by their places, nothing else is known of their labels.
UPDATE "pages" SET "label" = NULL WHERE NOT EXISTS (
  SELECT FROM "pages" AS other
  WHERE other."document_id" = "pages"."document_id" AND other."label" <> (other."position" + 1)::text
);--> statement-breakpoint
ALTER TABLE "pages" ADD COLUMN "removed" boolean DEFAULT false NOT NULL;
