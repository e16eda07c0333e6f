import { idsFor, pageOrders } from '../document/index';
import { toPoints, type Paper } from '../paper/index';
import type { ImportedPage } from './import';
import { NewPdf, PdfDict, bytesOf, name } from './objects/index';

/** Distances between lines, in mm. */
const LINES = 8;
const SQUARES = 5;
/** What is left free at each edge where lines would be cut off, in mm. */
const MARGIN = 12;
/** Thin, and of a blue that is lighter than any ink. */
const WIDTH = 0.5;
const COLOR = '0.72 0.79 0.88';

/** A PDF of one sheet of paper; the same paper gives the same bytes. */
export function paperPdf(paper: Paper): Uint8Array {
  const pdf = new NewPdf();
  const [catalog, tree] = [pdf.reserve(), pdf.reserve()];
  const contents = pdf.addStream(new PdfDict(), bytesOf(ruling(paper)));
  const page = pdf.add(
    PdfDict.of({
      Type: name('Page'),
      Parent: tree,
      MediaBox: [0, 0, rounded(paper.width), rounded(paper.height)],
      Resources: new PdfDict(),
      Contents: contents,
    }),
  );
  pdf.set(tree, PdfDict.of({ Type: name('Pages'), Kids: [page], Count: 1 }));
  pdf.set(catalog, PdfDict.of({ Type: name('Catalog'), Pages: tree }));
  return pdf.bytes(catalog);
}

/** The pages of a notebook: its sheet, so many times. */
export function notebookPages(
  documentId: string,
  sheet: ImportedPage,
  sheets: number,
): ImportedPage[] {
  const ids = idsFor(documentId);
  return pageOrders([], 0, sheets).map((order) => ({ ...sheet, id: ids('page'), order }));
}

/** The lines as a content stream (ISO 32000-1, 8.5.2). */
function ruling({ ruling: kind, width, height }: Paper): string {
  const [down, across] = [
    kind === 'blank' ? [] : offsets(height, kind === 'lined' ? LINES : SQUARES),
    kind === 'squared' ? offsets(width, SQUARES) : [],
  ];
  const [left, right] = kind === 'squared' ? [across[0], across.at(-1)] : [0, width];
  const [low, high] = [down[0], down.at(-1)];
  const lines = [
    ...down.map((y) => `${rounded(left ?? 0)} ${y} m ${rounded(right ?? 0)} ${y} l`),
    ...across.map((x) => `${x} ${rounded(low)} m ${x} ${rounded(high ?? 0)} l`),
  ];
  return lines.length > 0 ? `${WIDTH} w ${COLOR} RG\n${lines.join('\n')}\nS\n` : '';
}

/** Lines so many mm apart, in the middle of a length (points), with a margin at both ends. */
function offsets(length: number, apart: number): number[] {
  const step = toPoints(apart);
  const room = length - 2 * toPoints(MARGIN);
  const count = Math.max(1, Math.floor(room / step));
  const first = (length - count * step) / 2;
  return Array.from({ length: count + 1 }, (_, i) => rounded(first + i * step));
}

const rounded = (value: number): number => Math.round(value * 1000) / 1000;
