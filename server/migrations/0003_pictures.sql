CREATE TABLE "pictures" (
	"digest" text PRIMARY KEY NOT NULL,
	"type" text NOT NULL,
	"width" double precision NOT NULL,
	"height" double precision NOT NULL,
	"orientation" integer DEFAULT 1 NOT NULL,
	"page" text
);
--> statement-breakpoint
ALTER TABLE "pictures" ADD CONSTRAINT "pictures_digest_sources_digest_fk" FOREIGN KEY ("digest") REFERENCES "public"."sources"("digest") ON DELETE no action ON UPDATE no action;--> statement-breakpoint
ALTER TABLE "pictures" ADD CONSTRAINT "pictures_page_sources_digest_fk" FOREIGN KEY ("page") REFERENCES "public"."sources"("digest") ON DELETE no action ON UPDATE no action;