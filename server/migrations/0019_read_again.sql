-- Text without spaces is kept otherwise, and fonts of character collections are read: all files are read again.
DELETE FROM "source_texts";--> statement-breakpoint
DELETE FROM "terms";--> statement-breakpoint
UPDATE "indexing" SET "done" = 0, "claimed" = null, "trouble" = null;
