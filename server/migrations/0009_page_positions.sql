DROP INDEX "pages_in_order";--> statement-breakpoint
CREATE INDEX "pages_of_document" ON "pages" USING btree ("document_id");--> statement-breakpoint
ALTER TABLE "pages" DROP COLUMN "position";