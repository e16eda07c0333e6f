import type { DocumentPage, DocumentState, Operation } from '@stylet/core/document';
import { Problem } from '@stylet/core/problems';
import { and, eq, inArray, sql, type SQL } from 'drizzle-orm';
import { filesUnseen } from '../access/access';
import type { Identity } from '../access/identity';
import type { Queries } from '../db/database';
import { pages, sourcePages } from '../db/schema';
import { pageColumns } from './queries';
import { touchedIds } from './touched';

/**
 * Throws Problem `page-unknown` for a page that is added and is none of its file as it is there,
 * and `operation-invalid` where no page would be left, or the page belongs to another document.
 */
export async function checkPages(
  queries: Queries,
  identity: Identity,
  documentId: string,
  fresh: readonly Operation[],
): Promise<void> {
  const added = fresh.flatMap(({ effect }) => (effect.type === 'page.add' ? [effect.page] : []));
  if (added.length === 0) return;
  const rows = await queries
    .select()
    .from(sourcePages)
    .where(
      and(
        inArray(sourcePages.source, [...new Set(added.map(({ source }) => source))]),
        inArray(sourcePages.sourceIndex, [...new Set(added.map(({ sourceIndex }) => sourceIndex))]),
      ),
    );
  const unseen = await filesUnseen(
    queries,
    identity,
    added.map(({ source }) => source),
  );
  const known = new Set(rows.filter(({ source }) => !unseen.includes(source)).map(factsOf));
  const unknown = added.find((page) => !known.has(factsOf(page)));
  if (unknown)
    throw new Problem(
      'page-unknown',
      `Its file has no page ${unknown.sourceIndex + 1} of that size, or did not come.`,
    );
  const taken = await queries
    .select({ id: pages.id, documentId: pages.documentId })
    .from(pages)
    .where(
      inArray(
        pages.id,
        added.map(({ id }) => id),
      ),
    );
  const stray = taken.find((row) => row.documentId !== documentId);
  if (stray)
    throw new Problem('operation-invalid', `Page ${stray.id} belongs to another document.`);
}

/** Which sheet a page is: its file has come before it. */
const sheetFor = ({
  source,
  sourceIndex,
}: Pick<DocumentPage, 'source' | 'sourceIndex'>): { sheet: SQL<number> } => ({
  sheet: sql`(select ${sourcePages.sheet} from ${sourcePages}
    where ${sourcePages.source} = ${source} and ${sourcePages.sourceIndex} = ${sourceIndex})`,
});

type Facts = Pick<DocumentPage, 'source' | 'sourceIndex' | 'width' | 'height' | 'hasMarks'>;
const factsOf = ({ source, sourceIndex, width, height, hasMarks }: Facts): string =>
  [source, sourceIndex, width, height, hasMarks].join();

/** The pages that operations are about, as they are. */
export async function touchedPages(
  queries: Queries,
  documentId: string,
  fresh: readonly Operation[],
): Promise<DocumentPage[]> {
  const ids = touchedIds(fresh, 'page');
  if (ids.length === 0) return [];
  return queries
    .select(pageColumns)
    .from(pages)
    .where(and(eq(pages.documentId, documentId), eq(pages.removed, false), inArray(pages.id, ids)));
}

/** Writes what has become of the pages that operations are about. */
export async function writePages(
  queries: Queries,
  documentId: string,
  fresh: readonly Operation[],
  revisions: ReadonlyMap<string, number>,
  before: DocumentState,
  after: DocumentState,
): Promise<void> {
  const ids = touchedIds(fresh, 'page').filter((id) => before.pages[id] !== after.pages[id]);
  if (ids.length === 0) return;
  const gone = ids.filter((id) => !after.pages[id]);
  const rows = ids.flatMap((id) => {
    const page = after.pages[id];
    return page ? [{ ...page, ...sheetFor(page), documentId, removed: false }] : [];
  });
  if (rows.length > 0)
    await queries
      .insert(pages)
      .values(rows)
      .onConflictDoUpdate({
        target: pages.id,
        // All of it: the page may have come anew, of another file and size.
        set: {
          order: sql`excluded."order"`,
          source: sql`excluded.source`,
          sourceIndex: sql`excluded.source_index`,
          sheet: sql`excluded.sheet`,
          label: sql`excluded.label`,
          width: sql`excluded.width`,
          height: sql`excluded.height`,
          rotation: sql`excluded.rotation`,
          hasMarks: sql`excluded.has_marks`,
          beside: sql`excluded.beside`,
          removed: sql`excluded.removed`,
          removedAt: sql`excluded.removed_at`,
          removedBy: sql`excluded.removed_by`,
        },
      });
  if (gone.length > 0) await markRemoved(queries, gone, fresh, revisions);
  const [left] = await queries
    .select({ id: pages.id })
    .from(pages)
    .where(and(eq(pages.documentId, documentId), eq(pages.removed, false)))
    .limit(1);
  if (!left) throw new Problem('operation-invalid', 'No page would be left.');
}

/** Pages stay when they are removed, and say by what and by whom. */
async function markRemoved(
  queries: Queries,
  gone: readonly string[],
  fresh: readonly Operation[],
  revisions: ReadonlyMap<string, number>,
): Promise<void> {
  const removals = new Map(
    fresh.flatMap(({ id, author, effect }) =>
      effect.type === 'page.remove' ? [[effect.pageId, { at: revisions.get(id)!, author }]] : [],
    ),
  );
  const each = gone.map((id) => ({ id, ...removals.get(id)! }));
  await queries.execute(sql`
    update ${pages} set removed = true, removed_at = g.at, removed_by = g.by
    from unnest(
      ${sql.param(each.map(({ id }) => id))}::uuid[],
      ${sql.param(each.map(({ at }) => at))}::int[],
      ${sql.param(each.map(({ author }) => author))}::text[]
    ) as g(id, at, by)
    where ${pages.id} = g.id`);
}
