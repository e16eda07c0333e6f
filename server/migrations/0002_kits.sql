CREATE TABLE "kits" (
	"account" text PRIMARY KEY NOT NULL,
	"kit" jsonb NOT NULL,
	"modified" timestamp with time zone DEFAULT now() NOT NULL
);
