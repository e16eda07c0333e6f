CREATE TABLE "accounts" (
	"id" text PRIMARY KEY NOT NULL,
	"created" timestamp with time zone DEFAULT now() NOT NULL
);
--> statement-breakpoint
-- The one account there is; what is here already is its.
INSERT INTO "accounts" ("id") VALUES ('local');
--> statement-breakpoint
CREATE TABLE "file_owners" (
	"account" text NOT NULL,
	"digest" text NOT NULL,
	CONSTRAINT "file_owners_account_digest_pk" PRIMARY KEY("account","digest")
);
--> statement-breakpoint
ALTER TABLE "dictionaries" ADD COLUMN "owner" text NOT NULL DEFAULT 'local';--> statement-breakpoint
ALTER TABLE "dictionaries" ALTER COLUMN "owner" DROP DEFAULT;--> statement-breakpoint
ALTER TABLE "documents" ADD COLUMN "owner" text NOT NULL DEFAULT 'local';--> statement-breakpoint
ALTER TABLE "documents" ALTER COLUMN "owner" DROP DEFAULT;--> statement-breakpoint
ALTER TABLE "folders" ADD COLUMN "owner" text NOT NULL DEFAULT 'local';--> statement-breakpoint
ALTER TABLE "folders" ALTER COLUMN "owner" DROP DEFAULT;--> statement-breakpoint
ALTER TABLE "file_owners" ADD CONSTRAINT "file_owners_account_accounts_id_fk" FOREIGN KEY ("account") REFERENCES "public"."accounts"("id") ON DELETE no action ON UPDATE no action;--> statement-breakpoint
ALTER TABLE "file_owners" ADD CONSTRAINT "file_owners_digest_sources_digest_fk" FOREIGN KEY ("digest") REFERENCES "public"."sources"("digest") ON DELETE cascade ON UPDATE no action;--> statement-breakpoint
CREATE INDEX "owners_of_file" ON "file_owners" USING btree ("digest");--> statement-breakpoint
ALTER TABLE "dictionaries" ADD CONSTRAINT "dictionaries_owner_accounts_id_fk" FOREIGN KEY ("owner") REFERENCES "public"."accounts"("id") ON DELETE no action ON UPDATE no action;--> statement-breakpoint
ALTER TABLE "documents" ADD CONSTRAINT "documents_owner_accounts_id_fk" FOREIGN KEY ("owner") REFERENCES "public"."accounts"("id") ON DELETE no action ON UPDATE no action;--> statement-breakpoint
ALTER TABLE "folders" ADD CONSTRAINT "folders_owner_accounts_id_fk" FOREIGN KEY ("owner") REFERENCES "public"."accounts"("id") ON DELETE no action ON UPDATE no action;--> statement-breakpoint
ALTER TABLE "kits" ADD CONSTRAINT "kits_account_accounts_id_fk" FOREIGN KEY ("account") REFERENCES "public"."accounts"("id") ON DELETE no action ON UPDATE no action;--> statement-breakpoint
ALTER TABLE "places" ADD CONSTRAINT "places_account_accounts_id_fk" FOREIGN KEY ("account") REFERENCES "public"."accounts"("id") ON DELETE no action ON UPDATE no action;--> statement-breakpoint
ALTER TABLE "saved_searches" ADD CONSTRAINT "saved_searches_account_accounts_id_fk" FOREIGN KEY ("account") REFERENCES "public"."accounts"("id") ON DELETE no action ON UPDATE no action;--> statement-breakpoint
ALTER TABLE "seen_pages" ADD CONSTRAINT "seen_pages_account_accounts_id_fk" FOREIGN KEY ("account") REFERENCES "public"."accounts"("id") ON DELETE no action ON UPDATE no action;--> statement-breakpoint
INSERT INTO "file_owners" ("account", "digest") SELECT 'local', "digest" FROM "sources";
