import type { Place } from '@stylet/core/document';
import type { HitKind, TextLayer } from '@stylet/core/find';
import { sql, type SQL } from 'drizzle-orm';
import type { Queries } from '../db/database';
import { documents, entries, pages, sourceTexts } from '../db/schema';

/** Pages that are read to be ranked, when there are no more of them than these. */
export const MOST_READ = 400;
/** And so many where the index cannot tell all, as with capitals: they are looked at to be counted. */
export const MOST_CHECKED = 3000;
/** When there are more: so many pages of each document. */
const OF_EACH = 12;
const MOST_ENTRIES = 400;

/** A page of a document on which the words of a search stand. */
export interface CandidatePage {
  readonly documentId: string;
  readonly pageId: string;
  readonly sheet: number;
  readonly layer: TextLayer;
  readonly text: string;
}

export interface CandidateEntry {
  readonly documentId: string;
  readonly title: string;
  readonly kind: Exclude<HitKind, 'text'>;
  readonly place: Place | null;
  readonly text: string;
}

const inDocument = (documentId: string | undefined, column: SQL): SQL =>
  documentId === undefined ? sql`` : sql`and ${column} = ${documentId}`;

/** On how many pages of each document the words stand; 0 where they stand only in what leads away from it. */
export async function countPages(
  queries: Queries,
  tsquery: string,
  documentId: string | undefined,
): Promise<Map<string, number>> {
  const { rows } = await queries.execute<{ id: string; pages: number }>(sql`
    select p.document_id as id, count(*) filter (where t.layer = 'text')::int as pages
    from ${sourceTexts} t join ${pages} p on p.sheet = t.sheet
    where t.lexemes @@ ${tsquery}::tsquery and not p.removed ${inDocument(documentId, sql`p.document_id`)}
    group by p.document_id`);
  return new Map(rows.map(({ id, pages: count }) => [id, count]));
}

const columns = sql`p.document_id as "documentId", p.id as "pageId", t.sheet, t.layer`;

/** The pages on which the words stand, with their texts. */
export async function allPages(
  queries: Queries,
  tsquery: string,
  documentId: string | undefined,
): Promise<CandidatePage[]> {
  const { rows } = await queries.execute<Record<string, unknown>>(sql`
    select ${columns}, t.text from ${sourceTexts} t join ${pages} p on p.sheet = t.sheet
    where t.lexemes @@ ${tsquery}::tsquery and not p.removed ${inDocument(documentId, sql`p.document_id`)}`);
  return rows as unknown as CandidatePage[];
}

/**
 * Where there are too many to look at them all: the first ones of some documents. Where the words stand on most
 * pages, these are soon found page by page; else by the index.
 */
export async function firstPages(
  queries: Queries,
  tsquery: string,
  documentIds: readonly string[],
  areMost: boolean,
): Promise<CandidatePage[]> {
  const most = documentIds.length === 1 ? MOST_READ : OF_EACH;
  const wanted = sql`${sql.param([...documentIds])}::uuid[]`;
  const { rows } = await queries.execute<Record<string, unknown>>(
    areMost
      ? sql`
        select found.* from unnest(${wanted}) as d(id) cross join lateral (
          select ${columns}, t.text from ${pages} p join ${sourceTexts} t on t.sheet = p.sheet
          where p.document_id = d.id and not p.removed and t.lexemes @@ ${tsquery}::tsquery
          limit ${most}
        ) found`
      : sql`
        select h.*, t.text from (
          select ${columns}, row_number() over (partition by p.document_id order by t.sheet) as nth
          from ${sourceTexts} t join ${pages} p on p.sheet = t.sheet
          where p.document_id = any(${wanted}) and not p.removed and t.lexemes @@ ${tsquery}::tsquery
        ) h join ${sourceTexts} t on t.sheet = h.sheet and t.layer = h.layer
        where h.nth <= ${most}`,
  );
  return rows as unknown as CandidatePage[];
}

/** What people named so, on pages that are there. */
export async function candidateEntries(
  queries: Queries,
  tsquery: string,
  documentId: string | undefined,
): Promise<CandidateEntry[]> {
  const { rows } = await queries.execute<Record<string, unknown>>(sql`
    select e.document_id as "documentId", d.title, e.kind, e.place, e.text
    from ${entries} e join ${documents} d on d.id = e.document_id
    where e.lexemes @@ ${tsquery}::tsquery ${inDocument(documentId, sql`e.document_id`)}
      and not exists (
        select 1 from ${pages} p where p.id = (e.place ->> 'pageId')::uuid and p.removed)
    limit ${MOST_ENTRIES}`);
  return rows as unknown as CandidateEntry[];
}
