import type { Annotation, Link } from '../../document/index';
import type { Destinations } from '../destinations';
import type { ExportBefore } from '../export-before';
import type { PlacedById } from '../landmarks/write-outline';
import { PdfDict, PdfRef, type PdfFile, type PdfUpdate, type PdfValue } from '../objects/index';
import type { PlacedPage } from '../page-tree';
import { pageToUser } from '../pages';
import { overBefore } from './over-before';
import { isUntouched, writeLink } from './write';
import type { WrittenAnnotations } from './written';

/** What becomes of annotations: kept editable, drawn into the page, or left out. */
export const exportModes = ['editable', 'flattened', 'none'] as const;
export type ExportMode = (typeof exportModes)[number];

/** How annotations are handed over. */
export interface ExportHow {
  readonly mode: ExportMode;
  /** Of those that are drawn into the page: whether what people remarked stays as notes that can be read. */
  readonly keepsNotes: boolean;
}

/** What is known of the file that is written. */
export interface ExportTarget {
  readonly file: PdfFile;
  readonly update: PdfUpdate;
  readonly written: WrittenAnnotations;
  readonly before: ExportBefore;
  readonly placed: PlacedById;
  /** Where links of the file lead, if some may lead to pages that are not there any more. */
  readonly leading:
    { readonly destinations: Destinations; readonly gone: ReadonlySet<number> } | undefined;
}

export interface Target extends ExportTarget {
  readonly page: PlacedPage;
}

/** The numbers of the objects that annotations are in the file. */
export const objectsOf = (annotations: readonly Annotation[]): ReadonlySet<number> =>
  new Set(annotations.flatMap(({ origin }) => origin?.object ?? []));

export const isAmong = (value: PdfValue, objects: ReadonlySet<number>): boolean =>
  value instanceof PdfRef && objects.has(value.object);

/** The object an annotation is in the file. */
export const refOf = ({ origin }: Annotation): PdfRef | undefined =>
  origin && new PdfRef(origin.object, origin.generation);

/** Writes a link, unless the file has it as it is; where it stands. */
export function setLink(target: Target, link: Link): PdfRef {
  const own = refOf(link);
  const ref = own ?? target.update.reserve();
  if (!isUntouched(link)) writeLinkAs(target, link, ref, own && target.file.dict(own));
  return ref;
}

/** Writes a link as an object, over what the file has of it. */
export function writeLinkAs(
  { file, update, page, placed }: Target,
  link: Link,
  ref: PdfRef,
  before: PdfDict | undefined,
): void {
  const written = writeLink(link, pageToUser(page.box), placed);
  const cleared = (before ?? new PdfDict()).with({ Dest: null, A: null, PA: null });
  // A link that the file came with keeps its looks.
  const entries = before
    ? {
        ...overBefore(file, before, written),
        Border: before.get('Border'),
        H: before.get('H'),
        ...(before.get('QuadPoints') === null && isOneRect(written) ? { QuadPoints: null } : {}),
      }
    : written;
  update.set(ref, cleared.with({ ...entries, P: page.ref }));
}

/** Whether a link's areas are just its rectangle, which then need not be said twice. */
function isOneRect(entries: Readonly<Record<string, PdfValue>>): boolean {
  const [rect, areas] = [entries['Rect'], entries['QuadPoints']] as number[][];
  const [x0, y0, x1, y1] = rect;
  return [x0, y1, x1, y1, x0, y0, x1, y0].every((n, i) => Math.abs(n - areas[i]) < 0.02);
}
