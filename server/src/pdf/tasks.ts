import { deflateSync, inflateSync } from 'node:zlib';
import {
  PdfFile,
  WrittenAnnotations,
  exportUpdate,
  hasPdfHeader,
  importPdf,
  readPages,
  type ExportMode,
  type ImportedPdf,
  type PdfPage,
} from '@stylet/core/pdf';
import { move, workerData } from 'piscina';
import { connect } from '../db/database';
import { AnnotationShelf } from '../export/annotation-shelf';
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
  readonly documentId: string;
  /** The document's file. */
  readonly path: string;
  readonly mode: ExportMode;
  /** Only what concerns the first so many pages; all of them where it is left out. */
  readonly pages?: number;
}

/** What a thread is started with. */
export interface ThreadData {
  readonly databaseUrl: string;
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
/** Documents a thread keeps at hand. */
const MOST_OPEN = 3;
const MOST_WRITTEN = 64 * 1024 * 1024;
const written = new WrittenAnnotations((data) => deflateSync(data, { level: 1 }), MOST_WRITTEN);
let shelf: AnnotationShelf | undefined;

/** The bytes that turn a file into its export. Runs in a worker thread. */
export async function exportBytes(task: ExportTask): Promise<Uint8Array> {
  shelf ??= new AnnotationShelf(openDatabase(), MOST_OPEN);
  const pages = await shelf.pagesOf(task.documentId);
  const source = openFile(task.path);
  const concerned = pages.slice(0, task.pages);
  const bytes = exportUpdate(source.file, source.pages, concerned, task.mode, written);
  return move(bytes as never) as unknown as Uint8Array;
}

function openDatabase() {
  const { databaseUrl } = workerData as ThreadData;
  return connect(databaseUrl, (message) => console.error(message), 1).database;
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
