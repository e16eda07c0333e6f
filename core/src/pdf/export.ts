import {
  presentLandmarks,
  type Keyword,
  type Landmarks,
  type Page,
  type PageAnnotations,
} from '../document/index';
import { annotationEntries } from './annotations/page-entries';
import type { ExportHow, ExportTarget } from './annotations/target';
import { WrittenAnnotations } from './annotations/written';
import { Destinations } from './destinations';
import { ExportBefore } from './export-before';
import { labelTree, readLabels } from './labels';
import { keywordEntries } from './landmarks/keywords';
import { writeOutline } from './landmarks/write-outline';
import type { PdfRef } from './objects/index';
import { PdfDict, PdfUpdate, deflateHere, type PdfFile, type PdfValue } from './objects/index';
import { placePages, writeTree, type PlacedPage } from './page-tree';
import type { PdfPage } from './pages';

export { exportModes, type ExportHow, type ExportMode } from './annotations/target';

/** A page to export, and the annotations that stand on it now. */
export interface ExportPage extends Pick<
  Page,
  'id' | 'source' | 'sourceIndex' | 'rotation' | 'label'
> {
  readonly annotations: PageAnnotations;
}

/** What a document's landmarks are; `isOutlineChanged` since they were read from the file. */
export interface ExportLandmarks {
  readonly landmarks: Landmarks;
  readonly isOutlineChanged: boolean;
}

/** What turns a file into an export. */
export interface ExportedUpdate {
  /** To be appended to it; empty where it stays as it is. */
  readonly bytes: Uint8Array;
  /** What of the file is not as it was: nothing; annotations alone; its pages, or what is found by. */
  readonly touches: 'nothing' | 'annotations' | 'pages';
}

/**
 * What to append to the file so that it has just these pages in this order, with the given annotations
 * and landmarks: an incremental update (ISO 32000-1, 7.5.6). `inFile` are the file's pages. What is as it was
 * in the file is not touched. Without landmarks, outline and labels stay as they are. Throws RangeError for
 * a page the file does not have. `written` may know annotations from exports before.
 */
export function exportUpdate(
  file: PdfFile,
  inFile: readonly PdfPage[],
  pages: readonly ExportPage[],
  how: ExportHow,
  landmarks?: ExportLandmarks,
  written = new WrittenAnnotations(deflateHere, () => undefined),
): ExportedUpdate {
  // Only whole, editable exports keep what was made for the next one: others are seldom asked for again.
  const isKept = landmarks !== undefined && how.mode === 'editable';
  const before = isKept ? written.before(file) : new ExportBefore();
  const update = new PdfUpdate(file, written.deflate, before.packs);
  before.begin(update);
  written.begin(update, before);
  const placed = placePages(update, inFile, pages);
  const byId = new Map(pages.map(({ id }, i) => [id, placed[i]]));
  const destinations = new Destinations(file, inFile);
  const gone = pagesLeftOut(inFile, pages);
  const target: ExportTarget = {
    file,
    update,
    written,
    before,
    placed: byId,
    leading: gone.size > 0 ? { destinations, gone } : undefined,
  };
  const tree = writeTree(file, update, inFile, placed);
  const keywords = keywordsByPage(landmarks?.landmarks ?? {});
  let isMore = tree.size > 0 || update.size > 0;
  pages.forEach(({ id, rotation, annotations }, i) => {
    const page = placed[i];
    const stands = tree.get(page.ref.object);
    const named = keywords.get(id);
    const rest = [page.dict, page.ref.object, rotation, stands, named, target.leading];
    const isTouched = before.pageOf(update, id, { annotations, rest }, () => {
      const changes = {
        ...(rotation === page.rotation ? {} : { Rotate: rotation }),
        ...annotationEntries(target, page, annotations, how),
        ...keywordEntries(file, page, id, named ?? []),
      };
      if (stands || page.isCopy || Object.keys(changes).length > 0)
        update.set(page.ref, before.page(page.dict, { ...stands, ...changes }));
      return {
        isMore: page.isCopy || Object.keys(changes).some((key) => key !== 'Annots'),
        isLasting: written.areAlone(Object.values(annotations)),
      };
    });
    if (isTouched) isMore = true;
  });
  before.keepOnly(new Set(byId.keys()));
  const catalog = {
    ...openActionEntries(file, destinations, gone),
    ...(landmarks ? findingEntries(target, inFile, pages, landmarks, gone.size > 0) : {}),
  };
  if (Object.keys(catalog).length > 0) {
    isMore = true;
    update.set(file.trailer.get('Root') as PdfRef, file.catalog.with(catalog));
  }
  written.finish(update);
  const touches = isMore ? 'pages' : update.size > 0 ? 'annotations' : 'nothing';
  return { bytes: update.bytes(), touches };
}

/** What the catalogue has of outline and labels (7.7.2), where that is different now. */
function findingEntries(
  { file, update, placed }: ExportTarget,
  inFile: readonly PdfPage[],
  pages: readonly ExportPage[],
  { landmarks, isOutlineChanged }: ExportLandmarks,
  isShorter: boolean,
): Record<string, PdfValue> {
  const there = presentLandmarks(
    landmarks,
    Object.fromEntries(pages.map((page) => [page.id, page])),
  );
  const outline =
    isOutlineChanged || (isShorter && file.catalog.get('Outlines') !== null)
      ? writeOutline(file, update, there, inFile, placed as ReadonlyMap<string, PlacedPage>)
      : {};
  const labels = pages.map(({ label }) => label);
  const inTree = readLabels(file, pages.length);
  if (labels.every((label, i) => label === inTree[i])) return outline;
  const isPlain = labels.every((label, i) => label === String(i + 1));
  return { ...outline, PageLabels: isPlain ? null : labelTree(labels) };
}

/** Opening the file goes to no page that is not there any more (table 28, OpenAction). */
function openActionEntries(
  file: PdfFile,
  destinations: Destinations,
  gone: ReadonlySet<number>,
): Record<string, PdfValue> {
  const action = file.catalog.get('OpenAction');
  if (action === null || gone.size === 0) return {};
  const holder = Array.isArray(file.resolve(action)) ? { Dest: action } : { A: action };
  const to = destinations.of(PdfDict.of(holder));
  return to && gone.has(to.pageIndex) ? { OpenAction: null } : {};
}

function pagesLeftOut(
  inFile: readonly PdfPage[],
  pages: readonly ExportPage[],
): ReadonlySet<number> {
  const gone = new Set(inFile.keys());
  for (const { sourceIndex } of pages) gone.delete(sourceIndex);
  return gone;
}

function keywordsByPage(landmarks: Landmarks): Map<string, Keyword[]> {
  const byPage = new Map<string, Keyword[]>();
  for (const landmark of Object.values(landmarks)) {
    if (landmark.kind !== 'keyword') continue;
    const { pageId } = landmark.place;
    byPage.set(pageId, [...(byPage.get(pageId) ?? []), landmark]);
  }
  return byPage;
}
