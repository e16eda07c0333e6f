import { paintingOrder, type Annotation, type Picture } from '@stylet/core/document';
import type { Box } from '@stylet/core/geometry';
import {
  PdfFile,
  PdfSyntaxError,
  WrittenAnnotations,
  alone,
  bytesBehind,
  bytesInMemory,
  contentStreams,
  drawingPdf,
  exportUpdate,
  joinBytes,
  joinPages,
  onePagePdf,
  pagesIn,
  readPages,
  readSignatures,
  sheetPdf,
  type ExportHow,
  type ExportLandmarks,
  type ExportPage,
  type TypeTools,
} from '@stylet/core/pdf';
import { Problem } from '@stylet/core/problems';
import type { Stamp } from '@stylet/core/stamps';
import { workerData } from 'piscina';
import { connect } from '../db/database';
import { AnnotationShelf, type Shelved } from '../export/annotation-shelf';
import { breachBy, type Breach } from '../export/breach';
import { leftOut, type LeftOut } from '../export/left-out';
import { MadeBefore } from '../export/made-before';
import { PictureShelf } from '../pictures/picture-shelf';
import { readyForFormulas } from '../type/formulas';
import { typeToolsOf } from '../type/type-tools';
import { retype as retypeText, type RetypeTask } from '../typed/retype';
import { typeset as typesetText, type TypesetTask } from '../typed/typeset';
import { logTrouble } from '../work/log';
import { task } from '../work/task';
import { asProblem } from './as-problem';
import { quickly, thoroughly } from './deflate';
import { inflate } from './inflate';
import { OpenFiles, type OpenFile, type SourcePath } from './open-files';

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

/** Files a thread keeps at hand. */
const MOST_OPEN = 3;
const open = new OpenFiles(MOST_OPEN);
const MOST_WRITTEN = 64 * 1024 * 1024;
const MOST_PICTURES = 128 * 1024 * 1024;

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
  const { pictures, written, tools } = await atHand();
  if (how.mode !== 'none')
    await readyForFormulas(
      tools.typesetter.engine,
      pages.flatMap(({ annotations }) => typedOn(annotations)),
    );
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

/** The paragraphs of boxes on a page. */
const typedOn = (annotations: ExportPage['annotations']) =>
  Object.values(annotations).flatMap((one) => (one.kind === 'textBox' ? one.paragraphs : []));

const digestsOn = ({ annotations }: Pick<ExportPage, 'annotations'>): string[] =>
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

export interface DrawingTask {
  readonly annotations: readonly Annotation[];
}

/** Annotations as a PDF of one page that is just as large, on no paper. */
async function makeDrawing({ annotations }: DrawingTask): Promise<Uint8Array> {
  const { pictures, written, tools } = await atHand();
  const record = Object.fromEntries(annotations.map((one) => [one.id, one]));
  await readyForFormulas(tools.typesetter.engine, typedOn(record));
  const release = await pictures.prepare(digestsOn({ annotations: record }));
  try {
    return drawingPdf(annotations, written, inflate);
  } catch (error) {
    if (error instanceof RangeError) throw new Problem('drawing-empty', 'Nothing of it shows.');
    throw error;
  } finally {
    release();
  }
}

export interface SheetTask {
  readonly title: string;
  readonly stamps: readonly Pick<Stamp, 'digest' | 'name' | 'crop' | 'size'>[];
}

/** A sheet of stamps as a PDF, a page each. */
async function makeSheet({ title, stamps }: SheetTask): Promise<Uint8Array> {
  const { pictures } = await atHand();
  const release = await pictures.prepare(stamps.map(({ digest }) => digest));
  try {
    const written = stamps.map((stamp) => ({ ...stamp, picture: pictures.get(stamp.digest)! }));
    return sheetPdf(title, written, thoroughly);
  } catch (error) {
    throw asProblem(error);
  } finally {
    release();
  }
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

function openDatabase() {
  const { databaseUrl } = workerData as ThreadData;
  return connect(databaseUrl, logTrouble, 1).database;
}

/* What worker threads run that write files. */
export const snip = task(cutSnip);
export const retype = task(async (one: RetypeTask) => {
  const { annotations, pictures, tools } = await atHand();
  const state = await annotations.stateOf(one.documentId);
  return retypeText(one, state, tools, pictures, quickly);
});
export const typeset = task(async (one: TypesetTask) => {
  const { pictures, tools } = await atHand();
  return typesetText(one, tools, pictures, quickly);
});
export const drawing = task(makeDrawing);
export const sheet = task(makeSheet);
export const look = task(lookAtExport);
// The bytes are handed over, not copied.
export const exportBytes = task(makeExport, ({ tail }) => [tail.buffer]);
