import { documentState, type DocumentState } from '@stylet/core/document';
import { namedAmong, type Named } from '@stylet/core/find';
import { and, eq, inArray, notExists, sql } from 'drizzle-orm';
import type { Database, Queries } from '../db/database';
import { insertMany } from '../db/insert-many';
import { documents, entries } from '../db/schema';
import { readAnnotations, readLandmarks } from '../documents/queries';
import { lexemesOf } from '../indexing/lexemes';

/** What is found of a document besides the words of its pages. */
type Entry = Omit<Named, 'kind'> & { readonly kind: Named['kind'] | 'title' };

/** Writes what can be found of a document that has just come. */
export async function storeEntries(
  queries: Queries,
  documentId: string,
  state: DocumentState,
): Promise<void> {
  await write(queries, documentId, [...entriesIn(documentId, state).values()]);
}

/** Writes what can be found of documents of which nothing was written yet: they came before finding did. */
export async function fillEntries(database: Database): Promise<void> {
  const written = database
    .select({ one: sql`1` })
    .from(entries)
    .where(and(eq(entries.documentId, documents.id), eq(entries.kind, 'title')));
  const rows = await database
    .select({ id: documents.id, title: documents.title })
    .from(documents)
    .where(notExists(written));
  for (const { id, title } of rows)
    await database.transaction(async (transaction) => {
      const [annotations, landmarks] = [
        await readAnnotations(transaction, id),
        await readLandmarks(transaction, id),
      ];
      await storeEntries(transaction, id, documentState(title, annotations, landmarks));
    });
}

/** Writes what has become of what can be found, of as much of a document as two states hold. */
export async function writeEntries(
  queries: Queries,
  documentId: string,
  before: DocumentState,
  after: DocumentState,
): Promise<void> {
  const [was, is] = [entriesIn(documentId, before), entriesIn(documentId, after)];
  const gone = [...was].filter(([key]) => !is.has(key)).map(([, { itemId }]) => itemId);
  const changed = [...is].filter(([key, entry]) => !isSame(was.get(key), entry));
  if (gone.length > 0)
    await queries
      .delete(entries)
      .where(and(eq(entries.documentId, documentId), inArray(entries.itemId, gone)));
  await write(
    queries,
    documentId,
    changed.map(([, entry]) => entry),
  );
}

async function write(queries: Queries, documentId: string, list: readonly Entry[]): Promise<void> {
  const rows = list.map((entry) => ({ ...entry, documentId, lexemes: lexemesOf(entry.text) }));
  await insertMany(
    queries,
    entries,
    rows,
    sql`on conflict (document_id, item_id, kind)
      do update set place = excluded.place, text = excluded.text, lexemes = excluded.lexemes`,
  );
}

const isSame = (a: Entry | undefined, b: Entry): boolean =>
  a?.text === b.text && JSON.stringify(a.place) === JSON.stringify(b.place);

function entriesIn(documentId: string, state: DocumentState): Map<string, Entry> {
  const annotations = Object.values(state.annotations).flatMap((page) => Object.values(page));
  const all: Entry[] = [
    { kind: 'title', itemId: documentId, place: null, text: state.title },
    ...namedAmong(Object.values(state.landmarks), annotations),
  ];
  return new Map(all.map((entry) => [`${entry.kind} ${entry.itemId}`, entry]));
}
