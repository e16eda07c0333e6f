import { writeFile } from 'node:fs/promises';
import type { Readable } from 'node:stream';
import type { PictureFacts } from '@stylet/core/api';
import { storableText } from '@stylet/core/bounds';
import type { Annotation } from '@stylet/core/document';
import { Problem } from '@stylet/core/problems';
import { STAMP_BOUNDS, type SheetPage, type SheetPages } from '@stylet/core/stamps';
import { and, eq, sql } from 'drizzle-orm';
import { filesUnseen } from '../access/access';
import type { Identity } from '../access/identity';
import { stampSheets } from '../db/schema';
import { rewritten } from '../pdf/rewrite';
import { storePicture, type PictureTools } from '../pictures/store';
import type { Spool } from '../sources/spool';
import { listStamps, sheetNotFound } from './store';

/** What one sheet may take of memory and room, in bytes of all its pages together. */
const LARGEST_SHEET = 100 * 1024 * 1024;

/** Makes a picture of annotations. Throws Problem `drawing-empty` and `picture-not-found`. */
export async function makeDrawing(
  tools: PictureTools,
  identity: Identity,
  annotations: readonly Annotation[],
  awaited?: AbortSignal,
): Promise<PictureFacts> {
  const digests = annotations.flatMap((one) => (one.kind === 'picture' ? [one.digest] : []));
  const [unseen] = await filesUnseen(tools.database, identity, digests);
  if (unseen) throw new Problem('picture-not-found', `There is none with the digest ${unseen}.`);
  return storeBytes(tools, identity, await tools.pool.drawing({ annotations }, awaited));
}

async function storeBytes(
  tools: PictureTools,
  identity: Identity,
  bytes: Uint8Array,
): Promise<PictureFacts> {
  const path = tools.spool.workPath('.pdf');
  await writeFile(path, bytes);
  const file = await tools.spool.adopt(path);
  try {
    return await storePicture(tools, identity, file);
  } finally {
    await tools.spool.discard(file.path);
  }
}

/** A sheet as a PDF, a stamp a page. Throws Problem `stamp-sheet-not-found`. */
export async function writeSheet(
  { database, pool }: PictureTools,
  identity: Identity,
  id: string,
  awaited?: AbortSignal,
): Promise<{ readonly title: string; readonly bytes: Uint8Array }> {
  const [sheet] = await database
    .select({ name: stampSheets.name })
    .from(stampSheets)
    .where(
      and(
        eq(stampSheets.id, id),
        eq(stampSheets.owner, identity.account),
        sql`${stampSheets.removed} is null`,
      ),
    );
  if (!sheet) throw sheetNotFound(id);
  const { stamps } = await listStamps(database, identity);
  const own = stamps.filter((stamp) => stamp.sheet === id);
  const written = own.map(({ digest, name, crop, size }) => ({
    digest,
    name,
    size,
    ...(crop ? { crop } : {}),
  }));
  return {
    title: sheet.name,
    bytes: await pool.sheet({ title: sheet.name, stamps: written }, awaited),
  };
}

/**
 * The pages of a PDF as pictures, of which stamps can be made. Throws Problem for what is no PDF, is locked, or has more pages
 * than a sheet.
 */
export async function takeSheet(
  tools: PictureTools,
  identity: Identity,
  stream: Readable,
  checkComplete: () => void,
  awaited?: AbortSignal,
): Promise<SheetPages> {
  return tools.spool.withWork(async (spool: Spool) => {
    const sent = await spool.take(stream);
    checkComplete();
    const { path } = await rewritten(
      sent.path,
      spool,
      awaited,
      (errors) => new Problem('pdf-damaged', `What was found: ${errors}`),
    );
    const sheet = await tools.pool.sheetPages({ path, most: STAMP_BOUNDS.atOnce }, awaited);
    if (sheet.outcome === 'not-pdf')
      throw new Problem('file-not-pdf', 'It does not start as a PDF does.');
    if (sheet.outcome !== 'read')
      throw new Problem('pdf-damaged', 'reason' in sheet ? `What was found: ${sheet.reason}.` : '');
    const bytes = sheet.pages.reduce((sum, page) => sum + page.bytes.length, 0);
    if (sheet.isMore || bytes > LARGEST_SHEET)
      throw new Problem(
        'sheet-too-large',
        `A sheet has ${STAMP_BOUNDS.atOnce} pages at the most, of ${LARGEST_SHEET / 1048576} MB together.`,
      );
    const pages: SheetPage[] = [];
    for (const page of sheet.pages)
      pages.push({
        ...(await storeBytes({ ...tools, spool }, identity, page.bytes)),
        name: storableText(page.name, 120),
      });
    const title = sheet.title?.trim();
    return { ...(title ? { title: storableText(title, 300) } : {}), pages };
  });
}
