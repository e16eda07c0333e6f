import * as pdfjs from 'pdfjs-dist/legacy/build/pdf.mjs';
import type { FileBytes } from '../pdf/file-bytes';

/** So much is given to pdf.js at the start. */
const FIRST = 64 * 1024;

/** A file for pdf.js, which reads of it what it needs. */
export function fileRange(bytes: FileBytes): pdfjs.PDFDataRangeTransport {
  // pdf.js keeps what it is given, so that it is given copies.
  const part = (start: number, end: number): Uint8Array => bytes.slice(start, end).slice();
  const range = new pdfjs.PDFDataRangeTransport(bytes.length, part(0, FIRST));
  range.requestDataRange = (start, end) =>
    queueMicrotask(() => range.onDataRange(start, part(start, end)));
  return range;
}
