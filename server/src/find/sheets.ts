import { and, isNull, sql } from 'drizzle-orm';
import { isSeenBy } from '../access/access';
import type { Identity } from '../access/identity';
import type { Queries } from '../db/database';
import { documents, pages, sourceTexts } from '../db/schema';

/** The sheets that the pages of documents are of, in the order of the pages. */
export type SheetsByDocument = ReadonlyMap<string, Int32Array>;

interface Known {
  readonly revision: number;
  readonly sheets: Int32Array;
}

/**
 * Knows which sheets the pages of each document are of. To join what was found to that took PostgreSQL most of the
 * time of a search; a document is read again only when its revision is another.
 */
export class DocumentSheets {
  private known: ReadonlyMap<string, Known> = new Map();

  /** The sheets of all documents that somebody may see, or of some of these. */
  async read(
    queries: Queries,
    identity: Identity,
    only?: readonly string[],
  ): Promise<SheetsByDocument> {
    const { known } = this;
    const there = await queries
      .select({ id: documents.id, revision: documents.revision })
      .from(documents)
      .where(
        and(
          isSeenBy(identity, documents.owner),
          isNull(documents.trashed),
          only && sql`${documents.id} = any(${sql.param([...only])}::uuid[])`,
        ),
      );
    const stale = there.filter(({ id, revision }) => known.get(id)?.revision !== revision);
    const fresh = await readSheets(
      queries,
      stale.map(({ id }) => id),
    );
    const all = there.map(({ id, revision }): [string, Known] => {
      return [id, { revision, sheets: fresh.get(id) ?? known.get(id)!.sheets }];
    });
    // Another search may have set it meanwhile: what is lost then is only read again.
    const both = new Map([...known, ...all]);
    this.known = both.size > MOST_KNOWN ? new Map(all) : both;
    return new Map(all.map(([id, { sheets }]) => [id, sheets]));
  }
}

/** Documents that are known; of those that are not there any more nothing is told. */
const MOST_KNOWN = 20_000;
const NONE = new Int32Array();

async function readSheets(
  queries: Queries,
  documentIds: readonly string[],
): Promise<Map<string, Int32Array>> {
  if (documentIds.length === 0) return new Map();
  const { rows } = await queries.execute<{ id: string; sheets: Buffer }>(sql`
    select document_id as id, string_agg(int4send(sheet), '' order by "order" collate "C") as sheets
    from ${pages} where document_id = any(${sql.param([...documentIds])}::uuid[]) and not removed
    group by document_id`);
  return new Map([
    ...documentIds.map((id): [string, Int32Array] => [id, NONE]),
    ...rows.map(({ id, sheets }): [string, Int32Array] => [id, numbersIn(sheets)]),
  ]);
}

/** Sheets on which the words of a search stand, by layer. */
export interface MatchedSheets {
  readonly text: Int32Array;
  readonly address: Int32Array;
}

/** The sheets on whose layers the words stand. */
export async function matchedSheets(queries: Queries, tsquery: string): Promise<MatchedSheets> {
  const { rows } = await queries.execute<{ text: Buffer | null; address: Buffer | null }>(sql`
    select string_agg(int4send(sheet), '') filter (where layer = 'text') as text,
      string_agg(int4send(sheet), '') filter (where layer = 'address') as address
    from ${sourceTexts} where lexemes @@ ${tsquery}::tsquery`);
  const [{ text, address }] = rows;
  return { text: numbersIn(text), address: numbersIn(address) };
}

/** Numbers as PostgreSQL sends them: four bytes each, the highest first. */
function numbersIn(bytes: Buffer | null): Int32Array {
  if (!bytes) return NONE;
  const view = new DataView(bytes.buffer, bytes.byteOffset, bytes.length);
  const numbers = new Int32Array(bytes.length / 4);
  for (let i = 0; i < numbers.length; i++) numbers[i] = view.getInt32(4 * i);
  return numbers;
}
