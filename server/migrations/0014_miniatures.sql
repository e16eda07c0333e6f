CREATE TABLE "miniature_trays" (
	"source" text NOT NULL,
	"tray" integer NOT NULL,
	"picture" "bytea" NOT NULL,
	CONSTRAINT "miniature_trays_source_tray_pk" PRIMARY KEY("source","tray")
);
--> statement-breakpoint
ALTER TABLE "indexing" ADD COLUMN "drawn" integer DEFAULT 0 NOT NULL;--> statement-breakpoint
ALTER TABLE "miniature_trays" ADD CONSTRAINT "miniature_trays_source_sources_digest_fk" FOREIGN KEY ("source") REFERENCES "public"."sources"("digest") ON DELETE cascade ON UPDATE no action;