import { Readable } from 'node:stream';
import type { NotebookWanted } from '@stylet/core/api';
import { newId, pageOrders } from '@stylet/core/document';
import { paperPdf } from '@stylet/core/pdf';
import { storeDocument } from '../documents/bring-in';
import { takePdf, type FileTools } from '../sources/take-pdf';
import { keepCompanion } from './store';

/** Makes a document of sheets of paper, kept beside another one if it is to be; its id. */
export async function makeNotebook(
  tools: FileTools,
  { title, paper, sheets, beside }: NotebookWanted,
): Promise<string> {
  const id = newId();
  const bytes = Readable.from([Buffer.from(paperPdf(paper))]);
  await takePdf(
    tools,
    bytes,
    () => undefined,
    async (queries, original, working) => {
      const [sheet] = working.pdf.pages;
      const pages = pageOrders([], 0, sheets).map((order) => ({ ...sheet, id: newId(), order }));
      const notebook = { ...working, pdf: { ...working.pdf, pages } };
      await storeDocument(queries, id, title, original, notebook);
      if (beside !== undefined) await keepCompanion(queries, beside, id);
    },
  );
  return id;
}
