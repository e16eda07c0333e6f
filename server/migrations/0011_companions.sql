CREATE TABLE "companions" (
	"document_id" uuid PRIMARY KEY NOT NULL,
	"companion_id" uuid NOT NULL
);
--> statement-breakpoint
ALTER TABLE "pages" ADD COLUMN "beside" jsonb;--> statement-breakpoint
ALTER TABLE "companions" ADD CONSTRAINT "companions_document_id_documents_id_fk" FOREIGN KEY ("document_id") REFERENCES "public"."documents"("id") ON DELETE cascade ON UPDATE no action;--> statement-breakpoint
ALTER TABLE "companions" ADD CONSTRAINT "companions_companion_id_documents_id_fk" FOREIGN KEY ("companion_id") REFERENCES "public"."documents"("id") ON DELETE cascade ON UPDATE no action;