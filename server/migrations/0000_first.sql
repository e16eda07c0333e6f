CREATE TABLE "annotations" (
	"document_id" uuid NOT NULL,
	"id" uuid NOT NULL,
	"page_id" uuid NOT NULL,
	"fields" jsonb NOT NULL,
	"samples" "bytea",
	CONSTRAINT "annotations_document_id_id_pk" PRIMARY KEY("document_id","id")
);
--> statement-breakpoint
CREATE TABLE "bookmarks" (
	"id" uuid PRIMARY KEY NOT NULL,
	"document_id" uuid NOT NULL,
	"page_id" uuid NOT NULL,
	"title" text NOT NULL
);
--> statement-breakpoint
CREATE TABLE "documents" (
	"id" uuid PRIMARY KEY NOT NULL,
	"title" text NOT NULL,
	"original" text NOT NULL,
	"working" text NOT NULL,
	"repair" text NOT NULL,
	"outline" jsonb NOT NULL,
	"revision" integer DEFAULT 0 NOT NULL,
	"created" timestamp with time zone DEFAULT now() NOT NULL,
	"modified" timestamp with time zone DEFAULT now() NOT NULL
);
--> statement-breakpoint
CREATE TABLE "operations" (
	"id" uuid PRIMARY KEY NOT NULL,
	"document_id" uuid NOT NULL,
	"revision" integer NOT NULL,
	"base_revision" integer NOT NULL,
	"author" text NOT NULL,
	"at" timestamp with time zone NOT NULL,
	"received" timestamp with time zone DEFAULT now() NOT NULL,
	"effect" jsonb NOT NULL
);
--> statement-breakpoint
CREATE TABLE "pages" (
	"id" uuid PRIMARY KEY NOT NULL,
	"document_id" uuid NOT NULL,
	"position" integer NOT NULL,
	"source_index" integer NOT NULL,
	"label" text NOT NULL,
	"width" double precision NOT NULL,
	"height" double precision NOT NULL,
	"rotation" integer NOT NULL
);
--> statement-breakpoint
CREATE TABLE "source_chunks" (
	"digest" text NOT NULL,
	"sequence" integer NOT NULL,
	"bytes" "bytea" NOT NULL,
	CONSTRAINT "source_chunks_digest_sequence_pk" PRIMARY KEY("digest","sequence")
);
--> statement-breakpoint
CREATE TABLE "sources" (
	"digest" text PRIMARY KEY NOT NULL,
	"size" bigint NOT NULL,
	"created" timestamp with time zone DEFAULT now() NOT NULL
);
--> statement-breakpoint
ALTER TABLE "annotations" ADD CONSTRAINT "annotations_document_id_documents_id_fk" FOREIGN KEY ("document_id") REFERENCES "public"."documents"("id") ON DELETE cascade ON UPDATE no action;--> statement-breakpoint
ALTER TABLE "annotations" ADD CONSTRAINT "annotations_page_id_pages_id_fk" FOREIGN KEY ("page_id") REFERENCES "public"."pages"("id") ON DELETE cascade ON UPDATE no action;--> statement-breakpoint
ALTER TABLE "bookmarks" ADD CONSTRAINT "bookmarks_document_id_documents_id_fk" FOREIGN KEY ("document_id") REFERENCES "public"."documents"("id") ON DELETE cascade ON UPDATE no action;--> statement-breakpoint
ALTER TABLE "bookmarks" ADD CONSTRAINT "bookmarks_page_id_pages_id_fk" FOREIGN KEY ("page_id") REFERENCES "public"."pages"("id") ON DELETE cascade ON UPDATE no action;--> statement-breakpoint
ALTER TABLE "documents" ADD CONSTRAINT "documents_original_sources_digest_fk" FOREIGN KEY ("original") REFERENCES "public"."sources"("digest") ON DELETE no action ON UPDATE no action;--> statement-breakpoint
ALTER TABLE "documents" ADD CONSTRAINT "documents_working_sources_digest_fk" FOREIGN KEY ("working") REFERENCES "public"."sources"("digest") ON DELETE no action ON UPDATE no action;--> statement-breakpoint
ALTER TABLE "operations" ADD CONSTRAINT "operations_document_id_documents_id_fk" FOREIGN KEY ("document_id") REFERENCES "public"."documents"("id") ON DELETE cascade ON UPDATE no action;--> statement-breakpoint
ALTER TABLE "pages" ADD CONSTRAINT "pages_document_id_documents_id_fk" FOREIGN KEY ("document_id") REFERENCES "public"."documents"("id") ON DELETE cascade ON UPDATE no action;--> statement-breakpoint
ALTER TABLE "source_chunks" ADD CONSTRAINT "source_chunks_digest_sources_digest_fk" FOREIGN KEY ("digest") REFERENCES "public"."sources"("digest") ON DELETE cascade ON UPDATE no action;--> statement-breakpoint
CREATE INDEX "annotations_of_page" ON "annotations" USING btree ("page_id");--> statement-breakpoint
CREATE UNIQUE INDEX "operations_in_order" ON "operations" USING btree ("document_id","revision");--> statement-breakpoint
CREATE UNIQUE INDEX "pages_in_order" ON "pages" USING btree ("document_id","position");