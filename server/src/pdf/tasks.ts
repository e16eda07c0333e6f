import { deflateSync, inflateSync } from 'node:zlib';
import { paintingOrder, type Picture } from '@stylet/core/document';
import type { Box } from '@stylet/core/geometry';
import {
  PdfFile,
  PdfRef,
  PdfSyntaxError,
  WrittenAnnotations,
  alone,
  bytesInMemory,
  exportUpdate,
  contentStreams,
  embeddedPicture,
  hasPdfHeader,
  importPdf,
  joinBytes,
  joinPages,
  onePagePdf,
  pagesIn,
  readPages,
  type EmbeddedPicture,
  type ExportLandmarks,
  type ExportMode,
  type ExportPage,
  type ImportedPdf,
} from '@stylet/core/pdf';
import { Problem } from '@stylet/core/problems';
import { move, transferableSymbol, valueSymbol, workerData } from 'piscina';
import { connect } from '../db/database';
import { AnnotationShelf } from '../export/annotation-shelf';
import { PictureShelf } from '../pictures/picture-shelf';
import { FileBytes } from './file-bytes';
import { bytesBehind } from './joined-bytes';
import { OpenFiles, type OpenFile, type SourcePath } from './open-files';

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
  /** The files of the document's pages, and its own. */
  readonly files: readonly SourcePath[];
  readonly mode: ExportMode;
  /** Only what concerns the first so many pages; all of them where it is left out. */
  readonly pages?: number;
}

/** What turns a file into an export: what is appended to it. */
export interface ExportedBytes {
  /** The digest of the file. */
  readonly base: string;
  readonly tail: Uint8Array;
  /** Whether pages of other files have come to it. */
  readonly isJoined: boolean;
}

/** Part of a page to be cut out; `region` in page space. */
export interface SnipTask {
  readonly documentId: string;
  readonly files: readonly SourcePath[];
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

/** Files a thread keeps at hand. */
const MOST_OPEN = 3;
const open = new OpenFiles(MOST_OPEN);
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

/** The bytes that turn a file into an export. Runs in a worker thread. */
export async function exportBytes(task: ExportTask): Promise<ExportedBytes> {
  const { own, pages, landmarks } = await atHand().annotations.documentOf(task.documentId);
  const some = pages.slice(0, task.pages);
  // A part of the document is to be looked at: nobody follows its outline.
  const isPart = task.pages !== undefined;
  const base = isPart && some.length > 0 ? some[0].source : own;
  const made = await updateFor({ ...task, base, own }, some, isPart ? undefined : landmarks);
  const { tail, isJoined } = made;
  const exported: ExportedBytes = { base, tail, isJoined };
  // The bytes are handed over, not copied.
  return move({ [valueSymbol]: exported, [transferableSymbol]: tail.buffer } as never) as never;
}

interface Made {
  readonly file: OpenFile;
  readonly tail: Uint8Array;
  readonly isJoined: boolean;
}

/** What is to be appended to the file `base`, so that it has just these pages. */
async function updateFor(
  { files, mode, base, own }: Pick<ExportTask, 'files' | 'mode'> & { base: string; own: string },
  pages: readonly ExportPage[],
  landmarks?: ExportLandmarks,
): Promise<Made> {
  const { pictures, written } = atHand();
  const used = new Set([base, ...pages.map(({ source }) => source)]);
  const opened = open.get(files.filter(({ digest }) => used.has(digest)));
  const file = opened.find(({ digest }) => digest === base)!;
  const release = await pictures.prepare(mode === 'none' ? [] : pages.flatMap(digestsOn));
  try {
    const others = opened.filter((other) => other !== file);
    if (others.length === 0) {
      const inFile = pagesIn(alone(base), base, own, pages);
      const tail = exportUpdate(file.file, file.pages, inFile, mode, landmarks, written);
      return { file, tail, isJoined: false };
    }
    const joined = joinPages(file, others, pages, quickly);
    const whole = new PdfFile(bytesBehind(file.bytes, joined.update), inflateSync);
    const inWhole = pagesIn(joined, base, own, pages);
    const more = exportUpdate(whole, readPages(whole), inWhole, mode, landmarks, written);
    return { file, tail: joinBytes([joined.update, more]), isJoined: true };
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
  const { own, pages } = await atHand().annotations.documentOf(task.documentId);
  const page = pages.find(({ id }) => id === task.pageId);
  if (!page) throw new Problem('operation-invalid', `The document has no page ${task.pageId}.`);
  const mode = task.annotations ? 'flattened' : 'none';
  const made = await updateFor({ ...task, mode, base: page.source, own }, [page]);
  const file = new PdfFile(bytesBehind(made.file.bytes, made.tail), inflateSync);
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
