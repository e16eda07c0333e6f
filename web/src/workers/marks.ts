import type { PDFDocumentProxy, PDFPageProxy } from 'pdfjs-dist';
import { annotationsOf } from './annotations';

/** Kinds of annotation that are part of the page for Stylet: always drawn from the file. */
const PART_OF_PAGE = new Set(['Link', 'Widget', 'Popup']);

/**
 * Keeps pdf.js from drawing the marks of a page that Stylet draws itself or that were removed.
 * `shown` are the object numbers of those that are still drawn from the file.
 */
export async function hideMarks(
  document: PDFDocumentProxy,
  page: PDFPageProxy,
  shown: readonly number[],
): Promise<void> {
  const visible = new Set(shown);
  const storage = document.annotationStorage;
  for (const { id, subtype } of await annotationsOf(document, page)) {
    const object = /^(\d+)R/.exec(id)?.[1];
    if (object === undefined || PART_OF_PAGE.has(subtype)) continue;
    if (visible.has(Number(object))) storage.remove(id);
    else storage.setValue(id, { noView: true });
  }
}
