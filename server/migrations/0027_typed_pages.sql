ALTER TABLE "documents" ADD COLUMN "typed" text;--> statement-breakpoint
ALTER TABLE "documents" ADD COLUMN "typed_before" text;--> statement-breakpoint
ALTER TABLE "documents" ADD CONSTRAINT "documents_typed_sources_digest_fk" FOREIGN KEY ("typed") REFERENCES "public"."sources"("digest") ON DELETE no action ON UPDATE no action;