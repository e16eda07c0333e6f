CREATE TABLE "stamp_sheets" (
	"id" text PRIMARY KEY NOT NULL,
	"owner" text NOT NULL,
	"name" text NOT NULL,
	"order" text NOT NULL,
	"shipped" text,
	"removed" timestamp with time zone,
	CONSTRAINT "one_of_each_shipped_sheet" UNIQUE("owner","shipped")
);
--> statement-breakpoint
CREATE TABLE "stamps" (
	"id" text PRIMARY KEY NOT NULL,
	"sheet" text NOT NULL,
	"name" text NOT NULL,
	"order" text NOT NULL,
	"digest" text NOT NULL,
	"crop" jsonb,
	"size" jsonb NOT NULL,
	"favourite" boolean NOT NULL,
	"removed" timestamp with time zone
);
--> statement-breakpoint
ALTER TABLE "stamp_sheets" ADD CONSTRAINT "stamp_sheets_owner_accounts_id_fk" FOREIGN KEY ("owner") REFERENCES "public"."accounts"("id") ON DELETE no action ON UPDATE no action;--> statement-breakpoint
ALTER TABLE "stamps" ADD CONSTRAINT "stamps_sheet_stamp_sheets_id_fk" FOREIGN KEY ("sheet") REFERENCES "public"."stamp_sheets"("id") ON DELETE cascade ON UPDATE no action;--> statement-breakpoint
ALTER TABLE "stamps" ADD CONSTRAINT "stamps_digest_pictures_digest_fk" FOREIGN KEY ("digest") REFERENCES "public"."pictures"("digest") ON DELETE no action ON UPDATE no action;--> statement-breakpoint
CREATE INDEX "stamps_of_sheet" ON "stamps" USING btree ("sheet");