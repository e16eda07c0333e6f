import { deflateSync, inflateSync } from 'node:zlib';
import { paintingOrder, type Picture } from '@stylet/core/document';
import type { Box } from '@stylet/core/geometry';
import {
  PdfFile,
  PdfRef,
  PdfSyntaxError,
  WrittenAnnotations,
  bytesInMemory,
  exportUpdate,
  contentStreams,
  embeddedPicture,
  hasPdfHeader,
  importPdf,
  onePagePdf,
  readPages,
  type EmbeddedPicture,
  type ExportLandmarks,
  type ExportMode,
  type ExportPage,
  type ImportedPdf,
  type PdfPage,
} from '@stylet/core/pdf';
import { Problem } from '@stylet/core/problems';
import { move, workerData } from 'piscina';
import { connect } from '../db/database';
import { AnnotationShelf } from '../export/annotation-shelf';
import { PictureShelf } from '../pictures/picture-shelf';
import { FileBytes } from './file-bytes';
import { bytesBehind } from './joined-bytes';

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

/** Part of a page to be cut out; `region` in page space. */
export interface SnipTask {
  readonly documentId: string;
  readonly path: string;
  readonly pageId: string;
  readonly region: Box;
  readonly annotations: boolean;
}

/** Where an annotation stands in a file. */
export interface EmbeddedTask {
  readonly path: string;
  readonly object: number;
  readonly generation: number;
}

export interface Snipped {
  /** A PDF of one page. */
  readonly bytes: Uint8Array;
  /** Whether its contents are encoded in a way the core reads. */
  readonly isReadable: boolean;
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
const MOST_PICTURES = 128 * 1024 * 1024;
const quickly = (data: Uint8Array): Uint8Array => deflateSync(data, { level: 1 });

interface Shelves {
  readonly annotations: AnnotationShelf;
  readonly pictures: PictureShelf;
  readonly written: WrittenAnnotations;
}
let shelves: Shelves | undefined;

function atHand(): Shelves {
  if (shelves) return shelves;
  const database = openDatabase();
  const pictures = new PictureShelf(database, MOST_PICTURES);
  const written = new WrittenAnnotations(quickly, (digest) => pictures.get(digest), MOST_WRITTEN);
  shelves = { annotations: new AnnotationShelf(database, MOST_OPEN), pictures, written };
  return shelves;
}

/** The bytes that turn a file into its export. Runs in a worker thread. */
export async function exportBytes(task: ExportTask): Promise<Uint8Array> {
  const { pages, landmarks } = await atHand().annotations.documentOf(task.documentId);
  // A part of the document is to be looked at: nobody follows its outline.
  const shown = task.pages === undefined ? landmarks : undefined;
  const bytes = await updateFor(task.path, pages.slice(0, task.pages), task.mode, shown);
  return move(bytes as never) as unknown as Uint8Array;
}

async function updateFor(
  path: string,
  pages: readonly ExportPage[],
  mode: ExportMode,
  landmarks?: ExportLandmarks,
): Promise<Uint8Array> {
  const { pictures, written } = atHand();
  const source = openFile(path);
  const release = await pictures.prepare(mode === 'none' ? [] : pages.flatMap(digestsOn));
  try {
    return exportUpdate(source.file, source.pages, pages, mode, landmarks, written);
  } finally {
    release();
  }
}

const digestsOn = ({ annotations }: ExportPage): string[] =>
  paintingOrder(annotations)
    .filter((annotation): annotation is Picture => annotation.kind === 'picture')
    .map(({ digest }) => digest);

/** Part of a page as a file of its own. Runs in a worker thread. */
export async function snip(task: SnipTask): Promise<Snipped> {
  const { pages } = await atHand().annotations.documentOf(task.documentId);
  const page = pages.find(({ id }) => id === task.pageId);
  if (!page) throw new Problem('operation-invalid', `The document has no page ${task.pageId}.`);
  const mode = task.annotations ? 'flattened' : 'none';
  const tail = await updateFor(task.path, [page], mode);
  const file = new PdfFile(bytesBehind(openFile(task.path).bytes, tail), inflateSync);
  const bytes = onePagePdf(file, readPages(file)[0], task.region, quickly);
  return { bytes, isReadable: canBeRead(bytes) };
}

function canBeRead(bytes: Uint8Array): boolean {
  const file = new PdfFile(bytesInMemory(bytes), inflateSync);
  const [page] = readPages(file);
  try {
    for (const stream of contentStreams(file, page)) file.decode(stream);
    return true;
  } catch (error) {
    if (error instanceof PdfSyntaxError) return false;
    throw error;
  }
}

/** The picture in an annotation of a file that Stylet has written. Runs in a worker thread. */
export function embedded({ path, object, generation }: EmbeddedTask): EmbeddedPicture | undefined {
  const bytes = new FileBytes(path);
  try {
    const file = new PdfFile(bytes, inflateSync);
    const annotation = file.dict(new PdfRef(object, generation));
    return annotation && embeddedPicture(file, annotation, quickly);
  } finally {
    bytes.close();
  }
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
