import type { Place } from '@stylet/core/document';
import type { HitKind } from '@stylet/core/find';
import { sql } from 'drizzle-orm';
import { isSeenBy } from '../access/access';
import type { Identity } from '../access/identity';
import type { Queries } from '../db/database';
import { documents, entries, pages } from '../db/schema';
import { layerKey, type FoldedText, type LayerOfSheet, type SheetTexts } from './sheet-texts';
import type { MatchedSheets, SheetsByDocument } from './sheets';

/** Pages that are read to be ranked, when there are no more of them than these. */
export const MOST_READ = 400;
/** And so many where the index cannot tell all, as with capitals: they are looked at to be counted. */
export const MOST_CHECKED = 3000;
/** When there are more: so many pages of each document. */
export const OF_EACH = 12;
const MOST_ENTRIES = 400;

export interface CandidateEntry {
  readonly documentId: string;
  readonly title: string;
  readonly kind: Exclude<HitKind, 'text'>;
  readonly place: Place | null;
  readonly text: string;
}

/** A layer of a sheet on which the words stand, in a document. */
export interface FoundLayer extends LayerOfSheet {
  readonly documentId: string;
}

/** A page of a document on which the words of a search stand, in one of its layers. */
export interface CandidatePage extends FoundLayer {
  readonly pageId: string;
  readonly text: FoldedText;
}

/** What of each document the words stand on, in the order of its pages. */
export class FoundLayers {
  /** On how many pages of each document the words stand; 0 where they stand only in what leads away from it. */
  readonly counts = new Map<string, number>();
  private readonly marks: Uint8Array;

  constructor(
    private readonly sheets: SheetsByDocument,
    { text, address }: MatchedSheets,
  ) {
    let most = 0;
    for (const list of [text, address]) for (const sheet of list) most = Math.max(most, sheet);
    this.marks = new Uint8Array(most + 1);
    for (const sheet of text) this.marks[sheet] |= TEXT;
    for (const sheet of address) this.marks[sheet] |= ADDRESS;
    for (const [id, own] of sheets) this.count(id, own);
  }

  /** The layers of some documents, the first `most` pages of each; without `most` all. */
  of(documentIds: Iterable<string>, most = Infinity): FoundLayer[] {
    const found: FoundLayer[] = [];
    for (const documentId of documentIds) {
      // Copies of a page share its layer, which is looked at once.
      const own = new Set<number>();
      for (const sheet of this.sheets.get(documentId) ?? []) {
        const mark = this.marks[sheet];
        if (!mark || own.has(sheet)) continue;
        own.add(sheet);
        if (mark & TEXT) found.push({ documentId, sheet, layer: 'text' });
        if (mark & ADDRESS) found.push({ documentId, sheet, layer: 'address' });
        if (own.size >= most) break;
      }
    }
    return found;
  }

  private count(id: string, own: Int32Array): void {
    let [pages, found] = [0, 0];
    for (const sheet of own) {
      const mark = this.marks[sheet];
      if (mark) found++;
      if (mark & TEXT) pages++;
    }
    if (found > 0) this.counts.set(id, pages);
  }
}

const [TEXT, ADDRESS] = [1, 2];

/** The pages of layers, with what stands there; a document that has a page twice has it twice here. */
export async function readPages(
  queries: Queries,
  texts: SheetTexts,
  wanted: readonly FoundLayer[],
): Promise<CandidatePage[]> {
  if (wanted.length === 0) return [];
  const [found, { rows }] = await Promise.all([
    texts.read(queries, wanted),
    queries.execute<{ documentId: string; sheet: number; pageId: string }>(sql`
      select p.document_id as "documentId", p.sheet, p.id as "pageId"
      from unnest(
        ${sql.param(wanted.map(({ documentId }) => documentId))}::uuid[],
        ${sql.param(wanted.map(({ sheet }) => sheet))}::int[]
      ) as w(id, sheet)
      join ${pages} p on p.sheet = w.sheet and p.document_id = w.id
      where not p.removed
      group by p.document_id, p.sheet, p.id`),
  ]);
  const pageIds = new Map<string, string[]>();
  for (const { documentId, sheet, pageId } of rows) {
    const key = `${documentId} ${sheet}`;
    const ids = pageIds.get(key);
    if (ids) ids.push(pageId);
    else pageIds.set(key, [pageId]);
  }
  return wanted.flatMap((layer) => {
    const text = found.get(layerKey(layer));
    const ids = pageIds.get(`${layer.documentId} ${layer.sheet}`) ?? [];
    return text ? ids.map((pageId) => ({ ...layer, pageId, text })) : [];
  });
}

/** What people named so, on pages that are there. */
export async function candidateEntries(
  queries: Queries,
  identity: Identity,
  tsquery: string,
  only: readonly string[] | undefined,
): Promise<CandidateEntry[]> {
  const { rows } = await queries.execute<Record<string, unknown>>(sql`
    select e.document_id as "documentId", d.title, e.kind, e.place, e.text
    from ${entries} e join ${documents} d on d.id = e.document_id
    where e.lexemes @@ ${tsquery}::tsquery and d.trashed is null
      and ${isSeenBy(identity, sql`d.owner`)}
      ${only ? sql`and e.document_id = any(${sql.param([...only])}::uuid[])` : sql``}
      and not exists (
        select 1 from ${pages} p where p.id = (e.place ->> 'pageId')::uuid and p.removed)
    limit ${MOST_ENTRIES}`);
  return rows as unknown as CandidateEntry[];
}
