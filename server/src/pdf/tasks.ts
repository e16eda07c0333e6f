import { deflateSync, inflateSync } from 'node:zlib';
import {
  DrawingCache,
  PdfFile,
  exportUpdate,
  hasPdfHeader,
  importPdf,
  readPages,
  type ExportMode,
  type ExportPage,
  type ImportedPdf,
  type PdfPage,
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
    const file = new PdfFile(bytes, inflateSync);
    if (file.isEncrypted) return { outcome: 'encrypted' };
    return { outcome: 'read', pdf: importPdf(file, now) };
  } catch (error) {
    // Whatever a broken file makes the reader trip over, repairing it comes next.
    return { outcome: 'damaged', reason: error instanceof Error ? error.message : String(error) };
  } finally {
    bytes.close();
  }
}

/** A file kept open between exports, and its pages. */
interface OpenFile {
  readonly bytes: FileBytes;
  readonly file: PdfFile;
  readonly pages: readonly PdfPage[];
}

/** Sources never change and are named by their digests, so what was read of one stays right. */
const open = new Map<string, OpenFile>();
const MOST_OPEN = 3;
const drawings = new DrawingCache(64 * 1024 * 1024);

/** The bytes that turn a file into its export. Runs in a worker thread. */
export function exportBytes({ path, pages, mode }: ExportTask): Uint8Array {
  const source = openFile(path);
  const deflate = (data: Uint8Array): Uint8Array => deflateSync(data, { level: 1 });
  return exportUpdate(source.file, source.pages, pages, mode, { deflate, drawings });
}

function openFile(path: string): OpenFile {
  const known = open.get(path);
  if (known) return known;
  if (open.size >= MOST_OPEN) {
    const [[oldest, { bytes }]] = open;
    bytes.close();
    open.delete(oldest);
  }
  const bytes = new FileBytes(path);
  const file = new PdfFile(bytes, inflateSync);
  const opened = { bytes, file, pages: readPages(file) };
  open.set(path, opened);
  return opened;
}
