import type { FindRequest, FindResult, Hit } from '@stylet/core/api';
import {
  boxesOfWords,
  closest,
  matchAt,
  scoreNamed,
  scorePage,
  termPlaces,
  weightsOf,
  type FindQuery,
  type HitKind,
  type PageWords,
} from '@stylet/core/find';
import type { Box } from '@stylet/core/geometry';
import { checkRight } from '../access/access';
import type { Identity } from '../access/identity';
import type { Database, Queries } from '../db/database';
import { documentsIn } from '../folders/store';
import {
  FoundLayers,
  MOST_CHECKED,
  MOST_READ,
  OF_EACH,
  candidateEntries,
  readPages,
  type CandidateEntry,
  type CandidatePage,
} from './candidates';
import { foundPages, titlesOf, wordsOn } from './found-pages';
import { libraryQuery, type LibraryQuery } from './library-query';
import { FoldedText, layerKey, type SheetTexts } from './sheet-texts';
import { matchedSheets, type DocumentSheets } from './sheets';
import { neighbours } from './term-query';

/** What finding needs. */
export interface FindTools {
  readonly finding: Database;
  readonly documentSheets: DocumentSheets;
  readonly sheetTexts: SheetTexts;
}

/** Documents told at a time, and hits in each; of one document that is asked for alone, more. */
const DOCUMENTS = 12;
const HITS = 3;
const HITS_OF_ONE = 200;
/** Terms in a stretch of so many characters are shown as one match. */
const TOGETHER = 90;

/** A hit that may be told. */
interface Ranked {
  readonly documentId: string;
  readonly pageId: string | undefined;
  readonly score: number;
  readonly kind: HitKind;
  readonly text: FoldedText;
  readonly at?: CandidatePage;
  readonly entry?: CandidateEntry;
}

interface RankedDocument {
  readonly id: string;
  readonly score: number;
  readonly hits: readonly Ranked[];
}

/**
 * Finds words in all documents or in one: PostgreSQL tells the pages, which are then looked at and ranked; see
 * docs/ranking.md. Throws Problem `find-without-words`, `find-too-much` and `folder-not-found`.
 */
export async function findInLibrary(
  { finding: queries, documentSheets, sheetTexts }: FindTools,
  identity: Identity,
  { document, folder, from, ...search }: FindRequest,
): Promise<FindResult> {
  const [library, only] = await Promise.all([
    libraryQuery(queries, search),
    scopeOf(queries, identity, document, folder),
  ]);
  const { tsquery } = library;
  const [sheets, matched, named] = await Promise.all([
    documentSheets.read(queries, identity, only),
    matchedSheets(queries, tsquery),
    candidateEntries(queries, identity, tsquery, only),
  ]);
  const layers = new FoundLayers(sheets, matched);
  const { counts } = layers;
  const total = sum(counts.values());
  const isMany = total > (library.isChecked ? MOST_CHECKED : MOST_READ);
  const weights = weightsOf(library);
  const rankedNamed = named.flatMap((entry) => rankedEntry(entry, library.query, weights));
  const some = isMany ? likeliest(counts, rankedNamed).slice(from, from + DOCUMENTS) : undefined;
  const pages = await readPages(
    queries,
    sheetTexts,
    some ? layers.of(some, document === undefined ? OF_EACH : MOST_READ) : layers.of(counts.keys()),
  );
  const ranked = [
    ...pages.flatMap((page) => rankedPage(page, library.query, weights)),
    ...rankedNamed.filter(({ documentId }) => !some || some.includes(documentId)),
  ];
  if (!isMany && library.isChecked) recount(counts, ranked);
  const inOrder = byDocument(ranked);
  const shown = isMany ? inOrder : inOrder.slice(from, from + DOCUMENTS);
  const ids = shown.map(({ id }) => id);
  const [hits, titles] = await Promise.all([
    tellHits(queries, library.query, shown, document === undefined ? HITS : HITS_OF_ONE),
    titlesOf(queries, ids),
  ]);
  const found = new Set([
    ...counts.keys(),
    ...[...ranked, ...rankedNamed].map(({ documentId }) => documentId),
  ]);
  return {
    documents: shown.map(({ id }) => ({
      id,
      title: titles.get(id) ?? '',
      pages: counts.get(id) ?? 0,
      hits: hits.get(id) ?? [],
    })),
    documentCount: found.size,
    pageCount: sum(counts.values()),
    isAbout: isMany && library.isChecked,
    neighbours: await neighboursOf(queries, library, found.size > 0),
  };
}

/** The documents in which it is looked; undefined for all. Throws Problem `folder-not-found`. */
async function scopeOf(
  queries: Queries,
  identity: Identity,
  document: string | undefined,
  folder: string | undefined,
): Promise<readonly string[] | undefined> {
  if (document !== undefined) return [document];
  if (folder === undefined) return undefined;
  await checkRight(queries, identity, 'folder', folder, 'see');
  return documentsIn(queries, folder);
}

const sum = (numbers: Iterable<number>): number => [...numbers].reduce((a, b) => a + b, 0);

/** The words that were taken for others; those that may have been meant where nothing was found. */
async function neighboursOf(
  queries: Queries,
  { terms, query }: LibraryQuery,
  hasFound: boolean,
): Promise<FindResult['neighbours']> {
  const found = await Promise.all(
    terms.map(async ({ near }, i) => {
      const typed = query.terms[i];
      const words = near.length > 0 || hasFound ? near : await neighbours(queries, typed);
      return words.slice(0, 3).map((word) => ({ typed, word }));
    }),
  );
  return found.flat();
}

/**
 * The order of documents where there are too many pages to rank them all: first those in which something is named
 * so, then those with most pages.
 */
function likeliest(counts: ReadonlyMap<string, number>, named: readonly Ranked[]): string[] {
  const most = [...counts].sort(([, a], [, b]) => b - a).map(([id]) => id);
  return [...new Set([...named.map(({ documentId }) => documentId), ...most])];
}

function rankedPage(page: CandidatePage, query: FindQuery, weights: readonly number[]): Ranked[] {
  const text = page.text.searchable(query.options.keepsCase);
  const score =
    page.layer === 'text'
      ? scorePage(text, query, weights)
      : scoreNamed('address', text, query, weights);
  if (score === undefined) return [];
  const { documentId, pageId } = page;
  return [{ documentId, pageId, score, kind: page.layer, text: page.text, at: page }];
}

function rankedEntry(
  entry: CandidateEntry,
  query: FindQuery,
  weights: readonly number[],
): Ranked[] {
  const text = new FoldedText(entry.text);
  const named = text.searchable(query.options.keepsCase);
  const score = scoreNamed(entry.kind, named, query, weights);
  if (score === undefined) return [];
  const { documentId, kind } = entry;
  return [{ documentId, pageId: entry.place?.pageId, score, kind, text, entry }];
}

/** Pages were looked at, and not all of them have what is looked for. */
function recount(counts: Map<string, number>, ranked: readonly Ranked[]): void {
  counts.clear();
  for (const { documentId, kind } of ranked)
    if (kind === 'text') counts.set(documentId, (counts.get(documentId) ?? 0) + 1);
}

/**
 * Best documents first, and in each the best hits. What is said of a page in several ways counts together: a page
 * whose words match and to which an entry of the outline leads is better than either.
 */
function byDocument(ranked: readonly Ranked[]): RankedDocument[] {
  const pages = new Map<string, number>();
  const keyOf = ({ documentId, pageId, kind }: Ranked): string => `${documentId} ${pageId ?? kind}`;
  for (const hit of ranked) pages.set(keyOf(hit), (pages.get(keyOf(hit)) ?? 0) + hit.score);
  const documents = new Map<string, Ranked[]>();
  for (const hit of ranked) {
    const whole = { ...hit, score: pages.get(keyOf(hit))! + hit.score / 1000 };
    const group = documents.get(hit.documentId);
    if (group) group.push(whole);
    else documents.set(hit.documentId, [whole]);
  }
  return [...documents]
    .map(([id, hits]) => {
      hits.sort((a, b) => b.score - a.score);
      return { id, hits, score: hits[0].score };
    })
    .sort((a, b) => b.score - a.score);
}

async function tellHits(
  queries: Queries,
  query: FindQuery,
  shown: readonly RankedDocument[],
  most: number,
): Promise<Map<string, Hit[]>> {
  const chosen = shown.map(({ id, hits }) => ({ id, hits: hits.slice(0, most) }));
  const all = chosen.flatMap(({ hits }) => hits);
  const [pages, words] = await Promise.all([
    foundPages(
      queries,
      all.flatMap(({ pageId }) => pageId ?? []),
    ),
    wordsOn(
      queries,
      all.flatMap(({ at }) => at ?? []),
    ),
  ]);
  const tell = (hit: Ranked): Hit => ({
    kind: hit.kind,
    page: hit.pageId === undefined ? null : (pages.get(hit.pageId) ?? null),
    ...matchIn(hit, query, hit.at && words.get(layerKey(hit.at))),
  });
  return new Map(chosen.map(({ id, hits }) => [id, hits.map(tell)]));
}

/** Where the terms stand closest, or else where the rarest one first does, and what stands around it. */
function matchIn(
  { text, entry }: Ranked,
  query: FindQuery,
  words: Omit<PageWords, 'text'> | undefined,
): Pick<Hit, 'before' | 'match' | 'after' | 'boxes'> {
  const folded = text.searchable(query.options.keepsCase);
  const { from, source } = folded;
  const page = { text: folded.text, source, from, starts: words?.starts ?? new Int32Array() };
  const places = termPlaces(page, query)!;
  const together = closest(places);
  const rarest = places.reduce((a, b) => (b.length < a.length ? b : a));
  const shown = together.end - together.start <= TOGETHER ? together : rarest[0];
  const { words: touched, ...around } = matchAt(page, shown);
  const boxes = words ? boxesOfWords(touched, words.boxes) : boxAt(entry);
  return { ...around, boxes };
}

/** A place that is known only as a point, as a box without size. */
function boxAt(entry: CandidateEntry | undefined): Box[] {
  const place = entry?.place;
  if (!place || place.y === undefined) return [];
  const x = place.x ?? 0;
  return [{ x0: x, y0: place.y, x1: x, y1: place.y }];
}
