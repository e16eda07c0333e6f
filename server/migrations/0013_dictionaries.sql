CREATE TABLE "dictionaries" (
	"id" uuid PRIMARY KEY NOT NULL,
	"title" text NOT NULL,
	"created" timestamp with time zone DEFAULT now() NOT NULL
);
--> statement-breakpoint
CREATE TABLE "dictionary_entries" (
	"dictionary_id" uuid NOT NULL,
	"position" integer NOT NULL,
	"word" text NOT NULL,
	"headword" text NOT NULL,
	"text" text NOT NULL,
	CONSTRAINT "dictionary_entries_dictionary_id_position_pk" PRIMARY KEY("dictionary_id","position")
);
--> statement-breakpoint
ALTER TABLE "dictionary_entries" ADD CONSTRAINT "dictionary_entries_dictionary_id_dictionaries_id_fk" FOREIGN KEY ("dictionary_id") REFERENCES "public"."dictionaries"("id") ON DELETE cascade ON UPDATE no action;--> statement-breakpoint
CREATE INDEX "dictionary_entries_word" ON "dictionary_entries" USING btree ("word");