import type { PDFPageProxy } from 'pdfjs-dist';

/** Kinds of annotation that are part of the page for Stylet: always drawn from the file. */
const PART_OF_PAGE = new Set(['Link', 'Widget', 'Popup']);

interface Storage {
  setValue(key: string, value: object): void;
  remove(key: string): void;
}

/**
 * Keeps pdf.js from drawing the marks of a page that Stylet draws itself or that were removed.
 * `shown` are the object numbers of those that are still drawn from the file.
 */
export async function hideMarks(
  storage: Storage,
  page: PDFPageProxy,
  shown: readonly number[],
): Promise<void> {
  const visible = new Set(shown);
  const annotations = (await page.getAnnotations({ intent: 'any' })) as {
    id: string;
    subtype: string;
  }[];
  for (const { id, subtype } of annotations) {
    const object = /^(\d+)R/.exec(id)?.[1];
    if (object === undefined || PART_OF_PAGE.has(subtype)) continue;
    if (visible.has(Number(object))) storage.remove(id);
    else storage.setValue(id, { noView: true });
  }
}
