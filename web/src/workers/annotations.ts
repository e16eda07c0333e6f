import type { PDFDocumentProxy, PDFPageProxy } from 'pdfjs-dist';

/** What pdf.js says of an annotation of a file. */
export interface AnnotationData {
  readonly id: string;
  readonly subtype: string;
  readonly rect: number[];
  readonly dest?: string | unknown[] | null;
  readonly url?: string;
}

/**
 * The annotations of one page. A page's own `getAnnotations` reads all text of the page as soon as there is a link on
 * it, to tell which words lie under that; asked for by type, they come without.
 */
export async function annotationsOf(
  document: PDFDocumentProxy,
  page: PDFPageProxy,
  types?: ReadonlySet<number>,
): Promise<readonly AnnotationData[]> {
  const others = new Set(Array.from({ length: document.numPages }, (_, index) => index));
  others.delete(page.pageNumber - 1);
  // Without types all are given, whatever the declaration says; a file without a catalog has none.
  const found = await document.getAnnotationsByType(types as Set<number>, others);
  return (found as AnnotationData[] | null) ?? [];
}
