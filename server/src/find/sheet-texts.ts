import { LRUCache } from 'lru-cache';
import { searchableText, type Searchable, type TextLayer } from '@stylet/core/find';
import { sql } from 'drizzle-orm';
import type { Queries } from '../db/database';
import { sourceTexts } from '../db/schema';

/** So many characters of texts are kept, each a few bytes with what is worked out of it. */
const MOST_KEPT = 4_000_000;

export interface LayerOfSheet {
  readonly sheet: number;
  readonly layer: TextLayer;
}

/** A layer of a page's text, by its name in what is read together. */
export const layerKey = ({ sheet, layer }: LayerOfSheet): string => `${sheet} ${layer}`;

/** A text, and how it is searched: worked out once for each way. */
export class FoldedText {
  private readonly folded = new Map<boolean, Searchable>();

  constructor(readonly text: string) {}

  searchable(keepsCase: boolean): Searchable {
    let folded = this.folded.get(keepsCase);
    if (!folded) this.folded.set(keepsCase, (folded = searchableText(this.text, keepsCase)));
    return folded;
  }
}

/**
 * The texts of sheets, which never change once they have been read. Those used last are kept: while one types on, and
 * with words that are common, the same pages are looked at again and again.
 */
export class SheetTexts {
  private readonly kept = new LRUCache<string, FoldedText>({
    maxSize: MOST_KEPT,
    sizeCalculation: ({ text }) => text.length + 1,
  });

  async read(
    queries: Queries,
    wanted: readonly LayerOfSheet[],
  ): Promise<ReadonlyMap<string, FoldedText>> {
    const found = new Map<string, FoldedText>();
    const missing: LayerOfSheet[] = [];
    for (const layer of wanted) {
      const key = layerKey(layer);
      const text = this.kept.get(key);
      if (text) found.set(key, text);
      else missing.push(layer);
    }
    for (const { text, ...layer } of await readTexts(queries, missing))
      found.set(layerKey(layer), new FoldedText(text));
    for (const [key, text] of found) this.kept.set(key, text);
    return found;
  }
}

async function readTexts(
  queries: Queries,
  wanted: readonly LayerOfSheet[],
): Promise<(LayerOfSheet & { readonly text: string })[]> {
  if (wanted.length === 0) return [];
  const { rows } = await queries.execute<Record<string, unknown>>(sql`
    select t.sheet, t.layer, t.text
    from unnest(
      ${sql.param(wanted.map(({ sheet }) => sheet))}::int[],
      ${sql.param(wanted.map(({ layer }) => layer))}::text[]
    ) as w(sheet, layer)
    join ${sourceTexts} t on t.sheet = w.sheet and t.layer = w.layer`);
  return rows as unknown as (LayerOfSheet & { text: string })[];
}
