CREATE TABLE "places" (
	"account" text NOT NULL,
	"document_id" uuid NOT NULL,
	"page_id" uuid NOT NULL,
	"share" double precision NOT NULL,
	"modified" timestamp with time zone DEFAULT now() NOT NULL,
	CONSTRAINT "places_account_document_id_pk" PRIMARY KEY("account","document_id")
);
--> statement-breakpoint
CREATE TABLE "seen_pages" (
	"account" text NOT NULL,
	"page_id" uuid NOT NULL,
	"first" timestamp with time zone DEFAULT now() NOT NULL,
	"last" timestamp with time zone DEFAULT now() NOT NULL,
	CONSTRAINT "seen_pages_account_page_id_pk" PRIMARY KEY("account","page_id")
);
--> statement-breakpoint
ALTER TABLE "places" ADD CONSTRAINT "places_document_id_documents_id_fk" FOREIGN KEY ("document_id") REFERENCES "public"."documents"("id") ON DELETE cascade ON UPDATE no action;--> statement-breakpoint
ALTER TABLE "places" ADD CONSTRAINT "places_page_id_pages_id_fk" FOREIGN KEY ("page_id") REFERENCES "public"."pages"("id") ON DELETE cascade ON UPDATE no action;--> statement-breakpoint
ALTER TABLE "seen_pages" ADD CONSTRAINT "seen_pages_page_id_pages_id_fk" FOREIGN KEY ("page_id") REFERENCES "public"."pages"("id") ON DELETE cascade ON UPDATE no action;