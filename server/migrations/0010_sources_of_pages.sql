CREATE TABLE "source_pages" (
	"source" text NOT NULL,
	"source_index" integer NOT NULL,
	"width" double precision NOT NULL,
	"height" double precision NOT NULL,
	"has_marks" boolean NOT NULL,
	CONSTRAINT "source_pages_source_source_index_pk" PRIMARY KEY("source","source_index")
);
--> statement-breakpoint
ALTER TABLE "pages" ADD COLUMN "source" text;--> statement-breakpoint
UPDATE "pages" SET "source" = "documents"."working" FROM "documents" WHERE "documents"."id" = "pages"."document_id";--> statement-breakpoint
ALTER TABLE "pages" ALTER COLUMN "source" SET NOT NULL;--> statement-breakpoint
INSERT INTO "source_pages" SELECT DISTINCT ON ("source", "source_index") "source", "source_index", "width", "height", "has_marks" FROM "pages";--> statement-breakpoint
ALTER TABLE "source_pages" ADD CONSTRAINT "source_pages_source_sources_digest_fk" FOREIGN KEY ("source") REFERENCES "public"."sources"("digest") ON DELETE cascade ON UPDATE no action;--> statement-breakpoint
ALTER TABLE "pages" ADD CONSTRAINT "pages_source_sources_digest_fk" FOREIGN KEY ("source") REFERENCES "public"."sources"("digest") ON DELETE no action ON UPDATE no action;