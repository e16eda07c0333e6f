import type { PictureFacts, SnipRequest } from '@stylet/core/api';
import { intersect } from '@stylet/core/geometry';
import { Problem } from '@stylet/core/problems';
import { and, eq } from 'drizzle-orm';
import type { Identity } from '../access/identity';
import { pages } from '../db/schema';
import type { Services } from '../services';
import { storePicture, type PictureTools } from './store';

/**
 * Makes a picture of part of a page: a PDF of one page, drawn as the page is. Throws Problem
 * `document-not-found`, `operation-invalid` or `snip-outside`.
 */
export async function snip(
  services: PictureTools & Pick<Services, 'exporter'>,
  identity: Identity,
  documentId: string,
  { pageId, region, annotations }: SnipRequest,
  awaited?: AbortSignal,
): Promise<PictureFacts> {
  const { database, exporter, spool } = services;
  const [page] = await database
    .select()
    .from(pages)
    .where(and(eq(pages.documentId, documentId), eq(pages.id, pageId), eq(pages.removed, false)));
  if (!page) throw new Problem('operation-invalid', `The document has no page ${pageId}.`);
  const part = intersect(region, { x0: 0, y0: 0, x1: page.width, y1: page.height });
  if (!part || part.x1 <= part.x0 || part.y1 <= part.y0)
    throw new Problem('snip-outside', 'It lies beside the page.');
  const file = await exporter.snip(documentId, { pageId, region: part, annotations }, awaited);
  try {
    return await storePicture(services, identity, file);
  } finally {
    await spool.discard(file.path);
  }
}
