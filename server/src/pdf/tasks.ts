import { appendFileSync, copyFileSync, writeFileSync } from 'node:fs';
import { deflateSync } from 'node:zlib';
import type { AttachmentFile } from '@stylet/core/api';
import { storableText } from '@stylet/core/bounds';
import { idsFor, paintingOrder, type Picture } from '@stylet/core/document';
import type { Box } from '@stylet/core/geometry';
import {
  PdfFile,
  PdfRef,
  PdfSyntaxError,
  WrittenAnnotations,
  alone,
  bytesBehind,
  bytesInMemory,
  exportUpdate,
  contentStreams,
  embeddedPicture,
  joinBytes,
  joinPages,
  onePagePdf,
  pagesIn,
  readAttachments,
  readSignatures,
  readPages,
  takeIn,
  type Attachment,
  type EmbeddedPicture,
  type ExportLandmarks,
  type ExportHow,
  type ExportPage,
  type TakenIn,
  type TypeTools,
} from '@stylet/core/pdf';
import { Problem } from '@stylet/core/problems';
import { workerData } from 'piscina';
import { connect } from '../db/database';
import { logTrouble } from '../work/log';
import { task } from '../work/task';
import { AnnotationShelf, type Shelved } from '../export/annotation-shelf';
import { breachBy, type Breach } from '../export/breach';
import { leftOut, type LeftOut } from '../export/left-out';
import { MadeBefore } from '../export/made-before';
import { PictureShelf } from '../pictures/picture-shelf';
import { factsOf, writeParts, type ImportedFacts } from '../sources/imported';
import { typeToolsOf } from '../type/type-tools';
import { retype as retypeText, textIn, type RetypeTask } from '../typed/retype';
import { typeset as typesetText, type TypesetTask } from '../typed/typeset';
import { FileBytes } from './file-bytes';
import { inflate } from './inflate';
import { OpenFiles, type OpenFile, type SourcePath } from './open-files';

/** What reading a file came to. */
export type ReadResult =
  | { readonly outcome: 'read'; readonly facts: ImportedFacts; readonly isTidied: boolean }
  | Exclude<TakenIn, { outcome: 'read' }>;

export interface ReadTask {
  readonly path: string;
  /** The document it is brought in for, whose id gives those of what is in it. */
  readonly documentId: string;
  readonly now: string;
  /** Whether it is a copy that a program has mended. */
  readonly isMended: boolean;
  /** Where what was read is written, see `readParts`. */
  readonly parts: string;
  /** Where the file is written as it can be worked on, if it has to be made so. */
  readonly tidied: string;
}

export interface AttachmentsTask {
  readonly path: string;
}

/** A file inside another one, by its place among these. */
export interface AttachmentTask extends AttachmentsTask {
  readonly index: number;
  readonly to: string;
}

export interface ExportTask {
  readonly documentId: string;
  /** The files of the document's pages, and its own. */
  readonly files: readonly SourcePath[];
  readonly how: ExportHow;
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
  /** What becomes of the signatures of the files it is made of. */
  readonly breach: Breach;
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
  readonly fontsFolder: string;
}

/** Reads a PDF for import. */
function readPdf({ path, documentId, now, isMended, parts, tidied }: ReadTask): ReadResult {
  const bytes = new FileBytes(path);
  try {
    const ids = idsFor(documentId);
    const taken = takeIn(bytes, { inflate, isMended, now, ids, isOurs: isOfDisk });
    if (taken.outcome !== 'read') return taken;
    const isTidied = taken.tail.length > 0;
    if (isTidied) writeTidied(path, tidied, taken.tail);
    writeParts(parts, taken.pdf);
    return { outcome: 'read', facts: factsOf(taken.pdf), isTidied };
  } finally {
    bytes.close();
  }
}

function writeTidied(path: string, to: string, tail: Uint8Array): void {
  copyFileSync(path, to);
  appendFileSync(to, tail);
}

/** Whether an error says that something could not be written: no fault of the file's. */
const isOfDisk = (error: unknown): boolean =>
  /^(ENOSPC|EDQUOT|EIO|EROFS)$/.test((error as NodeJS.ErrnoException).code ?? '');

/** Does something with the files inside a file. */
function withAttachments<T>(
  path: string,
  work: (attachments: readonly Attachment[], file: PdfFile) => T,
): T {
  const bytes = new FileBytes(path);
  try {
    const file = new PdfFile(bytes, inflate);
    return work(readAttachments(file, readPages(file)), file);
  } catch (error) {
    throw asProblem(error);
  } finally {
    bytes.close();
  }
}

const listAttachments = ({ path }: AttachmentsTask): AttachmentFile[] =>
  withAttachments(path, (attachments) =>
    attachments.map(({ name, description, size = null }, index) => ({
      index,
      name: storableText(name, 500),
      description: storableText(description, 2000),
      size,
    })),
  );

/** Writes a file that is inside another one; its name, or undefined where there is none. */
const writeAttachment = ({ path, index, to }: AttachmentTask): string | undefined =>
  withAttachments(path, (attachments, file) => {
    const found = attachments.at(index);
    if (found) writeFileSync(to, file.decode(found.stream));
    return found && storableText(found.name, 500);
  });

/** What a file has that nobody has looked at before may be damaged all the same. */
function asProblem(error: unknown): unknown {
  return error instanceof PdfSyntaxError || error instanceof RangeError
    ? new Problem('pdf-part-damaged', `What was found: ${error.message}.`)
    : error;
}

/** Files a thread keeps at hand. */
const MOST_OPEN = 3;
const open = new OpenFiles(MOST_OPEN);
const MOST_WRITTEN = 64 * 1024 * 1024;
const MOST_PICTURES = 128 * 1024 * 1024;
const quickly = (data: Uint8Array): Uint8Array => deflateSync(data, { level: 3 });
const thoroughly = (data: Uint8Array): Uint8Array => deflateSync(data, { level: 9 });

interface Shelves {
  readonly annotations: AnnotationShelf;
  readonly pictures: PictureShelf;
  readonly written: WrittenAnnotations;
  readonly tools: TypeTools;
}
let shelves: Promise<Shelves> | undefined;

const atHand = (): Promise<Shelves> => (shelves ??= makeShelves());

async function makeShelves(): Promise<Shelves> {
  const database = openDatabase();
  const pictures = new PictureShelf(database, MOST_PICTURES);
  const tools = await typeToolsOf((workerData as ThreadData).fontsFolder);
  const written = new WrittenAnnotations(
    quickly,
    (digest) => pictures.get(digest),
    MOST_WRITTEN,
    thoroughly,
    tools,
  );
  return { annotations: new AnnotationShelf(database, MOST_OPEN), pictures, written, tools };
}

const madeBefore = new MadeBefore<Shelved, ExportedBytes>();

/** The bytes that turn a file into an export. */
async function makeExport(task: ExportTask): Promise<ExportedBytes> {
  const document = await (await atHand()).annotations.documentOf(task.documentId);
  const { own, pages, landmarks } = document;
  if (task.pages === undefined)
    return madeBefore.of(document, task.how, () => exportOf(task, own, own, pages, landmarks));
  // The first pages alone are for a cover, which needs no outline.
  const some = pages.slice(0, task.pages);
  return exportOf(task, own, some.length > 0 ? some[0].source : own, some);
}

async function exportOf(
  task: ExportTask,
  own: string,
  base: string,
  pages: readonly ExportPage[],
  landmarks?: ExportLandmarks,
): Promise<ExportedBytes> {
  const { tail, isJoined, breach } = await updateFor({ ...task, base, own }, pages, landmarks);
  return { base, tail, isJoined, breach };
}

/** What an export would leave out or break. */
async function lookAtExport(task: ExportTask): Promise<LeftOut & Breach> {
  const { own, pages } = await (await atHand()).annotations.documentOf(task.documentId);
  const files = open.get(task.files);
  const fileOf = (source: string): PdfFile | undefined =>
    files.find(({ digest }) => digest === source)?.file;
  const isSigned = files.some(({ file }) => readSignatures(file).count > 0);
  const whole = { signatures: 0, isLost: false, isBreach: false };
  const breach = isSigned ? (await makeExport(task)).breach : whole;
  return { ...leftOut(pages, own, fileOf, task.how), ...breach };
}

interface Made {
  readonly file: OpenFile;
  readonly tail: Uint8Array;
  readonly isJoined: boolean;
  readonly breach: Breach;
}

/** What is to be appended to the file `base`, so that it has just these pages. */
async function updateFor(
  { files, how, base, own }: Pick<ExportTask, 'files' | 'how'> & { base: string; own: string },
  pages: readonly ExportPage[],
  landmarks?: ExportLandmarks,
): Promise<Made> {
  const { pictures, written } = await atHand();
  const used = new Set([base, ...pages.map(({ source }) => source)]);
  const opened = open.get(files.filter(({ digest }) => used.has(digest)));
  const file = opened.find(({ digest }) => digest === base)!;
  const release = await pictures.prepare(how.mode === 'none' ? [] : pages.flatMap(digestsOn));
  try {
    const others = opened.filter((other) => other !== file);
    if (others.length === 0) {
      const inFile = pagesIn(alone(base), base, own, pages);
      const made = exportUpdate(file.file, file.pages, inFile, how, landmarks, written);
      const breach = breachBy([file.file], made.touches);
      return { file, tail: made.bytes, isJoined: false, breach };
    }
    const joined = joinPages(file, others, pages, quickly);
    const whole = new PdfFile(bytesBehind(file.bytes, joined.update), inflate);
    const inWhole = pagesIn(joined, base, own, pages);
    const more = exportUpdate(whole, readPages(whole), inWhole, how, landmarks, written);
    const tail = joinBytes([joined.update, more.bytes]);
    const all = [file, ...others].map((one) => one.file);
    return { file, tail, isJoined: true, breach: breachBy(all, 'pages') };
  } catch (error) {
    throw asProblem(error);
  } finally {
    release();
  }
}

const digestsOn = ({ annotations }: ExportPage): string[] =>
  paintingOrder(annotations)
    .filter((annotation): annotation is Picture => annotation.kind === 'picture')
    .map(({ digest }) => digest);

/** Part of a page as a file of its own. */
async function cutSnip(task: SnipTask): Promise<Snipped> {
  const { own, pages } = await (await atHand()).annotations.documentOf(task.documentId);
  const page = pages.find(({ id }) => id === task.pageId);
  if (!page) throw new Problem('operation-invalid', `The document has no page ${task.pageId}.`);
  const mode = task.annotations ? 'flattened' : 'none';
  const how = { mode, keepsNotes: false } as const;
  const made = await updateFor({ ...task, how, base: page.source, own }, [page]);
  const file = new PdfFile(bytesBehind(made.file.bytes, made.tail), inflate);
  const bytes = onePagePdf(file, readPages(file)[0], task.region, quickly);
  return { bytes, isReadable: canBeRead(bytes) };
}

function canBeRead(bytes: Uint8Array): boolean {
  const file = new PdfFile(bytesInMemory(bytes), inflate);
  const [page] = readPages(file);
  try {
    for (const stream of contentStreams(file, page)) file.decode(stream);
    return true;
  } catch (error) {
    if (error instanceof PdfSyntaxError) return false;
    throw error;
  }
}

/** The picture in an annotation of a file that Stylet has written. */
function takeEmbedded({ path, object, generation }: EmbeddedTask): EmbeddedPicture | undefined {
  const bytes = new FileBytes(path);
  try {
    const file = new PdfFile(bytes, inflate);
    const annotation = file.dict(new PdfRef(object, generation));
    return annotation && embeddedPicture(file, annotation, quickly);
  } finally {
    bytes.close();
  }
}

function openDatabase() {
  const { databaseUrl } = workerData as ThreadData;
  return connect(databaseUrl, logTrouble, 1).database;
}

/* What worker threads run. */
export const read = task(readPdf);
export const attachments = task(listAttachments);
export const attachment = task(writeAttachment);
export const embedded = task(takeEmbedded);
export const snip = task(cutSnip);
export const text = task(textIn);
export const retype = task(async (one: RetypeTask) => {
  const { annotations, tools } = await atHand();
  return retypeText(one, await annotations.stateOf(one.documentId), tools, quickly);
});
export const typeset = task(async (one: TypesetTask) =>
  typesetText(one, (await atHand()).tools, quickly),
);
export const look = task(lookAtExport);
// The bytes are handed over, not copied.
export const exportBytes = task(makeExport, ({ tail }) => [tail.buffer]);
