import {
  pageOrders,
  type Annotation,
  type Ids,
  type Landmark,
  type Notice,
} from '../document/index';
import { heightOf, widthOf } from '../geometry/index';
import { marksOf, readAnnotations } from './annotations/read';
import { isPortfolio, readAttachments } from './attachments';
import { Destinations } from './destinations';
import { readLabels } from './labels';
import { PdfRef, PdfSyntaxError, textOf, type PdfFile } from './objects/index';
import { readSource, type TextInFile } from './typed-pages/source';
import { readKeywords } from './landmarks/keywords';
import { landmarksOf } from './landmarks/read';
import { readOutline } from './outline';
import { LIMITS, PdfLimitError } from './limits';
import type { PdfPage, Rotation } from './pages';
import { readSignatures } from './signatures';
import { Cleaning } from './storable';
import { withUniqueIds } from './unique-ids';

/** A page as a document keeps it; width and height in points, before rotation. */
export interface ImportedPage {
  readonly id: string;
  readonly index: number;
  readonly order: string;
  /** What the file calls it; null where it has no labels. */
  readonly label: string | null;
  readonly hasMarks: boolean;
  readonly width: number;
  readonly height: number;
  readonly rotation: Rotation;
}

/** What is read from a PDF when it is brought in. */
export interface ImportedPdf {
  readonly title: string | undefined;
  readonly pages: readonly ImportedPage[];
  readonly landmarks: readonly Landmark[];
  readonly annotations: readonly Annotation[];
  /** Its text, where its pages are typed and that can be read back. */
  readonly typed: TextInFile | undefined;
  /** What there is to say about it. */
  readonly notices: readonly Notice[];
}

/** How a PDF is brought in. */
export interface Importing {
  /** An ISO 8601 instant, for what has no date in the file. */
  readonly now: string;
  /** Ids for what has none. */
  readonly ids: Ids;
}

/**
 * Reads everything but the pages' contents, made to fit what can be kept. Throws PdfSyntaxError where the file is
 * damaged, and PdfLimitError where it has more of something than is taken in.
 */
export function importPdf(
  file: PdfFile,
  inFile: readonly PdfPage[],
  { now, ids }: Importing,
): ImportedPdf {
  const clean = new Cleaning();
  const pages = readImportedPages(file, inFile, clean, ids);
  const destinations = new Destinations(file, inFile);
  const pageIds = pages.map(({ id }) => id);
  const reading = { now, clean, ids };
  const landmarks = [
    ...landmarksOf(file, readOutline(file, destinations), pageIds, reading),
    ...inFile.flatMap((page, i) => readKeywords(file, page, pageIds[i])),
  ];
  const annotations = readAll(file, inFile, pageIds, reading).map((annotation) =>
    led(annotation, file, destinations, pages),
  );
  const info = file.dict(file.trailer.get('Info'));
  const title = clean.text(textOf(file.resolve(info?.get('Title') ?? null)).trim(), LONGEST_TITLE);
  return {
    title: title === '' ? undefined : title,
    pages,
    ...withUniqueIds(annotations, landmarks, ids),
    typed: readSource(file, inFile),
    notices: noticesOf(file, inFile, clean),
  };
}

const LONGEST_TITLE = 300;
const LONGEST_LABEL = 500;

function readImportedPages(
  file: PdfFile,
  inFile: readonly PdfPage[],
  clean: Cleaning,
  ids: Ids,
): ImportedPage[] {
  const labels =
    file.catalog.get('PageLabels') === null ? undefined : readLabels(file, inFile.length);
  const orders = pageOrders([], 0, inFile.length);
  for (const page of inFile) checkContents(file, page.dict.get('Contents'));
  return inFile.map((page, index) => ({
    id: ids('page'),
    index,
    order: orders[index],
    label: labels ? clean.text(labels[index], LONGEST_LABEL) : null,
    hasMarks: marksOf(file, page).length > 0,
    width: widthOf(page.box),
    height: heightOf(page.box),
    rotation: page.rotation,
  }));
}

function readAll(
  file: PdfFile,
  inFile: readonly PdfPage[],
  pageIds: readonly string[],
  reading: Importing & { readonly clean: Cleaning },
): Annotation[] {
  const all: Annotation[] = [];
  inFile.forEach((page, i) => {
    for (const annotation of readAnnotations(file, page, { ...reading, pageId: pageIds[i] }))
      all.push(annotation);
    if (all.length > LIMITS.annotations) throw new PdfLimitError('annotations');
  });
  return all;
}

function noticesOf(file: PdfFile, inFile: readonly PdfPage[], clean: Cleaning): Notice[] {
  const { count: signatures, level } = readSignatures(file);
  const files = readAttachments(file, inFile).length;
  const notices: Notice[] = [
    { kind: 'signed', count: signatures, ...(level === undefined ? {} : { level }) },
    { kind: isPortfolio(file) ? 'portfolio' : 'files-inside', count: files },
    { kind: 'cleaned', count: clean.cleaned },
    { kind: 'unreadable', count: clean.unreadable },
  ];
  return notices.filter(({ count }) => count > 0);
}

/** A link to a place leads where the file has it lead: its pages have other ids in each document. */
function led(
  annotation: Annotation,
  file: PdfFile,
  destinations: Destinations,
  pages: readonly ImportedPage[],
): Annotation {
  if (annotation.kind !== 'link' || !annotation.origin) return annotation;
  const { target } = annotation;
  if (!('place' in target || 'nowhere' in target)) return annotation;
  const { object, generation } = annotation.origin;
  const dict = file.dict(new PdfRef(object, generation));
  const to = dict && destinations.of(dict);
  if (!to) return annotation;
  const { pageIndex, ...at } = to;
  return { ...annotation, target: { place: { pageId: pages[pageIndex].id, ...at } } };
}

/** A page whose contents cannot be found is damage that shows; better repaired than drawn blank. */
function checkContents(file: PdfFile, contents: Parameters<PdfFile['resolve']>[0]): void {
  const resolved = file.resolve(contents);
  for (const stream of Array.isArray(resolved) ? resolved : [resolved]) {
    const found = file.resolve(stream);
    if (found !== null && !(typeof found === 'object' && 'raw' in found))
      throw new PdfSyntaxError('the contents of a page are missing');
  }
}
