CREATE EXTENSION IF NOT EXISTS pg_trgm;
--> statement-breakpoint
CREATE TABLE "entries" (
	"document_id" uuid NOT NULL,
	"kind" text NOT NULL,
	"item_id" uuid NOT NULL,
	"place" jsonb,
	"text" text NOT NULL,
	"lexemes" "tsvector" NOT NULL,
	CONSTRAINT "entries_document_id_item_id_kind_pk" PRIMARY KEY("document_id","item_id","kind")
);
--> statement-breakpoint
CREATE TABLE "indexing" (
	"source" text PRIMARY KEY NOT NULL,
	"pages" integer NOT NULL,
	"done" integer DEFAULT 0 NOT NULL,
	"created" timestamp with time zone DEFAULT now() NOT NULL,
	"claimed" timestamp with time zone,
	"trouble" text
);
--> statement-breakpoint
CREATE TABLE "saved_searches" (
	"id" uuid PRIMARY KEY NOT NULL,
	"account" text NOT NULL,
	"name" text NOT NULL,
	"search" jsonb NOT NULL,
	"created" timestamp with time zone DEFAULT now() NOT NULL
);
--> statement-breakpoint
CREATE TABLE "source_texts" (
	"sheet" integer NOT NULL,
	"layer" text NOT NULL,
	"text" text NOT NULL,
	"words" "bytea" NOT NULL,
	"lexemes" "tsvector" NOT NULL,
	"confidence" double precision DEFAULT 1 NOT NULL,
	CONSTRAINT "source_texts_sheet_layer_pk" PRIMARY KEY("sheet","layer")
);
--> statement-breakpoint
CREATE TABLE "terms" (
	"term" text PRIMARY KEY NOT NULL,
	"pages" integer NOT NULL
);
--> statement-breakpoint
ALTER TABLE "source_pages" ADD COLUMN "sheet" integer NOT NULL GENERATED ALWAYS AS IDENTITY (sequence name "source_pages_sheet_seq" INCREMENT BY 1 MINVALUE 1 MAXVALUE 2147483647 START WITH 1 CACHE 1);--> statement-breakpoint
ALTER TABLE "source_pages" ADD CONSTRAINT "source_pages_sheet_unique" UNIQUE("sheet");--> statement-breakpoint
ALTER TABLE "entries" ADD CONSTRAINT "entries_document_id_documents_id_fk" FOREIGN KEY ("document_id") REFERENCES "public"."documents"("id") ON DELETE cascade ON UPDATE no action;--> statement-breakpoint
ALTER TABLE "indexing" ADD CONSTRAINT "indexing_source_sources_digest_fk" FOREIGN KEY ("source") REFERENCES "public"."sources"("digest") ON DELETE cascade ON UPDATE no action;--> statement-breakpoint
ALTER TABLE "source_texts" ADD CONSTRAINT "source_texts_sheet_source_pages_sheet_fk" FOREIGN KEY ("sheet") REFERENCES "public"."source_pages"("sheet") ON DELETE cascade ON UPDATE no action;--> statement-breakpoint
CREATE INDEX "entries_lexemes" ON "entries" USING gin ("lexemes");--> statement-breakpoint
CREATE INDEX "source_texts_lexemes" ON "source_texts" USING gin ("lexemes") WITH (fastupdate=false);--> statement-breakpoint
CREATE INDEX "terms_trigrams" ON "terms" USING gin ("term" gin_trgm_ops);--> statement-breakpoint
ALTER TABLE "pages" ADD COLUMN "sheet" integer;--> statement-breakpoint
UPDATE "pages" SET "sheet" = s."sheet" FROM "source_pages" s WHERE s."source" = "pages"."source" AND s."source_index" = "pages"."source_index";--> statement-breakpoint
ALTER TABLE "pages" ALTER COLUMN "sheet" SET NOT NULL;--> statement-breakpoint
CREATE INDEX "pages_of_sheet" ON "pages" USING btree ("sheet","document_id") WHERE not removed;--> statement-breakpoint
-- Rows stay narrow, so that pages are counted without their texts being read.
ALTER TABLE "source_texts" SET (toast_tuple_target = 128);--> statement-breakpoint
ALTER TABLE "source_texts" ALTER COLUMN "layer" SET STORAGE PLAIN;--> statement-breakpoint
ALTER TABLE "source_texts" ALTER COLUMN "text" SET COMPRESSION lz4;--> statement-breakpoint
ALTER TABLE "source_texts" ALTER COLUMN "lexemes" SET COMPRESSION lz4;--> statement-breakpoint
ALTER TABLE "source_texts" ALTER COLUMN "words" SET STORAGE EXTERNAL;--> statement-breakpoint
INSERT INTO "indexing" ("source", "pages") SELECT "source", count(*) FROM "source_pages" GROUP BY "source";
