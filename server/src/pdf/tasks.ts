import { deflateSync } from 'node:zlib';
import {
  PdfFile,
  exportUpdate,
  hasPdfHeader,
  importPdf,
  type ExportMode,
  type ExportPage,
  type ImportedPdf,
} from '@stylet/core/pdf';
import { FileBytes } from './file-bytes';

/** What reading a file came to. `damaged` carries what was found wrong. */
export type ReadResult =
  | { readonly outcome: 'read'; readonly pdf: ImportedPdf }
  | { readonly outcome: 'not-pdf' }
  | { readonly outcome: 'encrypted' }
  | { readonly outcome: 'damaged'; readonly reason: string };

export interface ReadTask {
  readonly path: string;
  readonly now: string;
}

export interface ExportTask {
  readonly path: string;
  readonly pages: readonly ExportPage[];
  readonly mode: ExportMode;
}

/** Reads a PDF for import. Runs in a worker thread. */
export function read({ path, now }: ReadTask): ReadResult {
  const bytes = new FileBytes(path);
  try {
    if (!hasPdfHeader(bytes)) return { outcome: 'not-pdf' };
    const file = new PdfFile(bytes);
    if (file.isEncrypted) return { outcome: 'encrypted' };
    return { outcome: 'read', pdf: importPdf(file, now) };
  } catch (error) {
    // Whatever a broken file makes the reader trip over, repairing it comes next.
    return { outcome: 'damaged', reason: error instanceof Error ? error.message : String(error) };
  } finally {
    bytes.close();
  }
}

/** The bytes that turn a file into its export. Runs in a worker thread. */
export function exportBytes({ path, pages, mode }: ExportTask): Uint8Array {
  const bytes = new FileBytes(path);
  try {
    const deflate = (data: Uint8Array): Uint8Array => deflateSync(data, { level: 1 });
    return exportUpdate(new PdfFile(bytes), pages, mode, deflate);
  } finally {
    bytes.close();
  }
}
