CREATE TABLE "landmarks" (
	"document_id" uuid NOT NULL,
	"id" uuid NOT NULL,
	"fields" jsonb NOT NULL,
	CONSTRAINT "landmarks_document_id_id_pk" PRIMARY KEY("document_id","id")
);
--> statement-breakpoint
ALTER TABLE "documents" ADD COLUMN "outline_changed" boolean DEFAULT false NOT NULL;--> statement-breakpoint
ALTER TABLE "landmarks" ADD CONSTRAINT "landmarks_document_id_documents_id_fk" FOREIGN KEY ("document_id") REFERENCES "public"."documents"("id") ON DELETE cascade ON UPDATE no action;--> statement-breakpoint
WITH RECURSIVE walk AS (
	SELECT d.id AS document_id, gen_random_uuid() AS id, NULL::uuid AS parent, e.value AS entry, (e.ordinality - 1)::int AS n
	FROM documents d, jsonb_array_elements(d.outline) WITH ORDINALITY e
	UNION ALL
	SELECT w.document_id, gen_random_uuid(), w.id, c.value, (c.ordinality - 1)::int
	FROM walk w, jsonb_array_elements(w.entry->'children') WITH ORDINALITY c
), digits AS (SELECT '0123456789ABCDEFGHIJKLMNOPQRSTUVWXYZabcdefghijklmnopqrstuvwxyz' AS d)
INSERT INTO landmarks (document_id, id, fields)
SELECT w.document_id, w.id, jsonb_strip_nulls(jsonb_build_object(
	'kind', 'outline',
	'id', w.id,
	'parentId', w.parent,
	'order', 'c' || substr(d, w.n / 3844 % 62 + 1, 1) || substr(d, w.n / 62 % 62 + 1, 1) || substr(d, w.n % 62 + 1, 1),
	'title', left(w.entry->>'title', 2000),
	'open', w.entry->'open',
	'place', CASE WHEN p.id IS NOT NULL THEN jsonb_strip_nulls(jsonb_build_object(
		'pageId', p.id, 'x', w.entry->'destination'->'x', 'y', w.entry->'destination'->'y')) END
))
FROM walk w CROSS JOIN digits
LEFT JOIN pages p ON p.document_id = w.document_id AND p.position = (w.entry->'destination'->>'pageIndex')::int;
