DROP TABLE "bookmarks" CASCADE;--> statement-breakpoint
ALTER TABLE "documents" DROP COLUMN "outline";