import { boundsOf, transform, type Matrix } from '@stylet/core/geometry';
import { AnnotationType, type PDFDocumentProxy, type PDFPageProxy } from 'pdfjs-dist';
import { annotationsOf } from './annotations';
import type { PageLink } from './protocol';

const LINKS = new Set([AnnotationType.LINK]);

/** The links of one page that lead somewhere; addresses only of the kinds that are safe to open. */
export async function readLinks(
  document: PDFDocumentProxy,
  page: PDFPageProxy,
  toPage: Matrix,
): Promise<PageLink[]> {
  const links: PageLink[] = [];
  for (const { id, rect, dest, url } of await annotationsOf(document, page, LINKS)) {
    const [x0, y0, x1, y1] = rect;
    const box = boundsOf([
      transform(toPage, { x: x0, y: y0 }),
      transform(toPage, { x: x1, y: y1 }),
    ])!;
    const origin = originOf(id);
    if (url !== undefined && /^(https?|mailto):/i.test(url)) {
      links.push({ box, target: { kind: 'address', url }, ...origin });
    } else if (dest) {
      const target = await resolve(document, dest);
      if (target) links.push({ box, target, ...origin });
    }
  }
  return links;
}

async function resolve(
  document: PDFDocumentProxy,
  dest: string | unknown[],
): Promise<PageLink['target'] | undefined> {
  const explicit = typeof dest === 'string' ? await document.getDestination(dest) : dest;
  if (!explicit) return undefined;
  const [ref, kind, ...parms] = explicit as [unknown, { name: string }, ...(number | null)[]];
  const page = typeof ref === 'number' ? ref : await document.getPageIndex(ref as never);
  const { view } = await document.getPage(page + 1);
  const left = kind.name === 'XYZ' ? parms[0] : null;
  const top =
    kind.name === 'XYZ'
      ? parms[1]
      : kind.name.startsWith('FitH') || kind.name === 'FitBH'
        ? parms[0]
        : null;
  return {
    kind: 'page',
    page,
    ...(typeof left === 'number' ? { x: left - view[0] } : {}),
    ...(typeof top === 'number' ? { y: view[3] - top } : {}),
  };
}

/** pdf.js names annotations by their objects, “12R”, with the generation after it unless that is 0. */
function originOf(id: string): Pick<PageLink, 'origin'> {
  const found = /^(\d+)R(\d*)$/.exec(id);
  return found ? { origin: { object: Number(found[1]), generation: Number(found[2] || 0) } } : {};
}
