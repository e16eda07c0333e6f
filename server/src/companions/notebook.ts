import { Readable } from 'node:stream';
import type { NotebookWanted } from '@stylet/core/api';
import { newId, pageOrders } from '@stylet/core/document';
import { paperPdf } from '@stylet/core/pdf';
import { storeDocument, storeDocumentPages } from '../documents/bring-in';
import type { Identity } from '../access/identity';
import { takePdf, type FileTools } from '../sources/take-pdf';
import { keepCompanion } from './store';

/** Makes a document of sheets of paper, kept beside another one if it is to be; its id. */
export async function makeNotebook(
  tools: FileTools,
  identity: Identity,
  { title, paper, sheets, beside }: NotebookWanted,
): Promise<string> {
  const id = newId();
  const stream = Readable.from([Buffer.from(paperPdf(paper))]);
  const coming = { stream, checkComplete: () => undefined };
  await takePdf(tools, identity, coming, async (queries, taken) => {
    const sheet = taken.facts.firstPage!;
    const pages = pageOrders([], 0, sheets).map((order) => ({ ...sheet, id: newId(), order }));
    await storeDocument(queries, identity, id, title, { ...taken, parts: async function* () {} });
    await storeDocumentPages(queries, id, taken.working.file.digest, pages);
    if (beside !== undefined) await keepCompanion(queries, beside, id);
  });
  return id;
}
