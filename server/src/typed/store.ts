import { createReadStream } from 'node:fs';
import type { TextChange, TextChanged } from '@stylet/core/api';
import { newId, type Effect, type Operation } from '@stylet/core/document';
import { Problem } from '@stylet/core/problems';
import { picturesIn, type TypedText } from '@stylet/core/typed-pages';
import { eq } from 'drizzle-orm';
import type { Identity } from '../access/identity';
import type { Queries } from '../db/database';
import { documents, sourcePages } from '../db/schema';
import { performWithin, type Performed } from '../documents/operations';
import { notFound, sourceOf } from '../documents/queries';
import { seenPictures } from '../pictures/seen';
import type { Services } from '../services';
import { takePdf, type FileTools } from '../sources/take-pdf';
import { removeUnused } from '../trash/store';

type Tools = FileTools & Pick<Services, 'performer'>;

/** The text of a document, and the file it is in. Throws Problem `document-not-found` and `text-not-found`. */
export async function textOf(
  { database, pool, spool }: Pick<Services, 'database' | 'pool' | 'spool'>,
  id: string,
  awaited?: AbortSignal,
): Promise<{ readonly source: string; readonly text: TypedText }> {
  await typedSource(database, id);
  const { digest, size } = await sourceOf(database, id, 'exported');
  const path = await spool.fetch(database, digest, size);
  const text = await pool.text({ path }, awaited);
  if (!text) throw withoutText(id);
  return { source: digest, text };
}

/**
 * Sets the text of a document again, with all that lies on its pages. Throws Problem `document-not-found`,
 * `text-not-found`, and `text-changed` where it is not `base` any more.
 */
export async function setText(
  tools: Tools,
  identity: Identity,
  id: string,
  { base, text, author }: TextChange,
  awaited?: AbortSignal,
): Promise<TextChanged> {
  const { database, pool, performer } = tools;
  return tools.spool.withWork(async (spool) => {
    checkBase(await typedSource(database, id), base);
    await checkPictures(database, identity, text);
    const { size, title } = await sourceOf(database, id, 'exported');
    const path = await spool.fetch(database, base, size);
    const to = spool.workPath('.pdf');
    const now = new Date().toISOString();
    const task = { documentId: id, path, from: base, text, title, now, to };
    const effects = await pool.retype(task, awaited);
    const coming = { documentId: newId(), stream: createReadStream(to), awaited };
    let fresh: Performed['fresh'] = [];
    const changed = await takePdf(
      { ...tools, spool },
      identity,
      { ...coming, checkComplete: () => undefined },
      async (queries, { working: { file } }) => {
        checkBase(await typedSource(queries, id, true), base);
        const marked = await withMarks(queries, file.digest, effects);
        const operations = marked.map((effect) => operationOf(id, effect, author, now));
        const performed = await performWithin(queries, identity, id, operations);
        fresh = performed.fresh;
        await putSource(queries, id, file.digest, base);
        return { source: file.digest, revision: performed.result.revision };
      },
    );
    performer.told(id, fresh);
    return changed;
  });
}

/** The file of a document's typed pages; `isKept` until the transaction ends. */
async function typedSource(queries: Queries, id: string, isKept = false): Promise<string> {
  const asked = queries
    .select({ typed: documents.typed })
    .from(documents)
    .where(eq(documents.id, id));
  const [row] = await (isKept ? asked.for('update') : asked);
  if (!row) throw notFound(id);
  if (row.typed === null) throw withoutText(id);
  return row.typed;
}

/** Nobody shows in a text of theirs what they have not been given. Throws Problem `picture-not-found`. */
async function checkPictures(
  queries: Queries,
  identity: Identity,
  { blocks }: TypedText,
): Promise<void> {
  const digests = picturesIn(blocks).map(({ digest }) => digest);
  const seen = await seenPictures(queries, identity, digests);
  const missing = digests.find((digest) => !seen.has(digest));
  if (missing) throw new Problem('picture-not-found', `There is none with the digest ${missing}.`);
}

function checkBase(now: string, base: string): void {
  if (now !== base) throw new Problem('text-changed', 'Somebody has gone on with it meanwhile.');
}

const withoutText = (id: string): Problem =>
  new Problem('text-not-found', `${id} has no typed pages.`);

/** Pages as their file has them, which says whether marks are on them. */
async function withMarks(
  queries: Queries,
  source: string,
  effects: readonly Effect[],
): Promise<Effect[]> {
  const rows = await queries
    .select({ index: sourcePages.sourceIndex, hasMarks: sourcePages.hasMarks })
    .from(sourcePages)
    .where(eq(sourcePages.source, source));
  const marks = new Map(rows.map(({ index, hasMarks }) => [index, hasMarks]));
  return effects.map((effect) =>
    effect.type === 'page.add'
      ? {
          ...effect,
          page: { ...effect.page, hasMarks: marks.get(effect.page.sourceIndex) ?? false },
        }
      : effect,
  );
}

const operationOf = (
  documentId: string,
  effect: Effect,
  author: string,
  at: string,
): Operation => ({ id: newId(), documentId, author, at, baseRevision: 0, effect });

/** The file before the last one goes: windows that are just following may still read that. */
async function putSource(
  queries: Queries,
  id: string,
  source: string,
  base: string,
): Promise<void> {
  const [before] = await queries
    .select({ typedBefore: documents.typedBefore })
    .from(documents)
    .where(eq(documents.id, id));
  await queries
    .update(documents)
    .set({ typed: source, typedBefore: base })
    .where(eq(documents.id, id));
  if (before?.typedBefore && before.typedBefore !== source)
    await removeUnused(queries, [before.typedBefore]);
}
