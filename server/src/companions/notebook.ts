import { Readable } from 'node:stream';
import type { NotebookWanted } from '@stylet/core/api';
import { newId } from '@stylet/core/document';
import { notebookPages, paperPdf } from '@stylet/core/pdf';
import { hasCome, storeDocument, storeDocumentPages } from '../documents/bring-in';
import type { Identity } from '../access/identity';
import { takePdf, type FileTools } from '../sources/take-pdf';
import { keepCompanion } from './store';

/**
 * Makes a document of sheets of paper, kept beside another one if it is to be; its id. Asked for once more with its id it is
 * as it was. Throws Problem `document-exists` for an id that another has.
 */
export async function makeNotebook(
  tools: FileTools,
  identity: Identity,
  { id: given, title, paper, sheets, beside }: NotebookWanted,
): Promise<string> {
  const id = given ?? newId();
  const stream = Readable.from([Buffer.from(paperPdf(paper))]);
  const coming = { documentId: id, stream, checkComplete: () => undefined };
  await takePdf(tools, identity, coming, async (queries, taken) => {
    if (given !== undefined && (await hasCome(queries, identity, id, taken))) return;
    const pages = notebookPages(id, taken.facts.firstPage!, sheets);
    await storeDocument(queries, identity, id, title, { ...taken, parts: async function* () {} });
    await storeDocumentPages(queries, id, taken.working.file.digest, pages);
    if (beside !== undefined) await keepCompanion(queries, beside, id);
  });
  return id;
}
