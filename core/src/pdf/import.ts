import { newId, pageOrders, type Annotation, type Landmark } from '../document/index';
import { heightOf, widthOf } from '../geometry/index';
import { marksOf, readAnnotations } from './annotations/read';
import { Destinations } from './destinations';
import { readLabels } from './labels';
import { PdfRef, PdfSyntaxError, textOf, type PdfFile } from './objects/index';
import { readKeywords } from './landmarks/keywords';
import { landmarksOf } from './landmarks/read';
import { readOutline } from './outline';
import { readPages, type Rotation } from './pages';

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
}

/** Reads everything but the pages' contents. Throws PdfSyntaxError where the file is damaged. */
export function importPdf(file: PdfFile, now: string): ImportedPdf {
  const pages = readPages(file);
  const labels = readLabels(file, pages.length);
  const hasLabels = file.catalog.get('PageLabels') !== null;
  const orders = pageOrders([], 0, pages.length);
  const imported = pages.map((page, index) => ({
    id: newId(),
    index,
    order: orders[index],
    label: hasLabels ? labels[index] : null,
    hasMarks: marksOf(file, page).length > 0,
    width: widthOf(page.box),
    height: heightOf(page.box),
    rotation: page.rotation,
  }));
  for (const page of pages) checkContents(file, page.dict.get('Contents'));
  const destinations = new Destinations(file, pages);
  const info = file.dict(file.trailer.get('Info'));
  const title = textOf(file.resolve(info?.get('Title') ?? null)).trim();
  return {
    title: title === '' ? undefined : title,
    pages: imported,
    landmarks: [
      ...landmarksOf(
        file,
        readOutline(file, destinations),
        imported.map(({ id }) => id),
        now,
      ),
      ...pages.flatMap((page, i) => readKeywords(file, page, imported[i].id)),
    ],
    annotations: pages
      .flatMap((page, i) => readAnnotations(file, page, imported[i].id, now))
      .map((annotation) => led(annotation, file, destinations, imported)),
  };
}

/** A link to a place leads where the file has it lead: its pages have other ids in each document. */
function led(
  annotation: Annotation,
  file: PdfFile,
  destinations: Destinations,
  pages: readonly ImportedPage[],
): Annotation {
  if (annotation.kind !== 'link' || !('place' in annotation.target) || !annotation.origin)
    return annotation;
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
