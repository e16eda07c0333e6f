import {
  isGone,
  paintingOrder,
  type Annotation,
  type Keyword,
  type Link,
  type Landmarks,
  type PageAnnotations,
} from '../document/index';
import { keywordEntries } from './landmarks/keywords';
import { writeOutline } from './landmarks/write-outline';
import { drawForm, normalAppearance, placement } from './annotations/flatten';
import { isMark } from './annotations/kinds';
import { isUntouched, writeLink } from './annotations/write';
import { WrittenAnnotations } from './annotations/written';
import {
  PdfDict,
  PdfRef,
  PdfUpdate,
  bytesOf,
  deflateHere,
  type PdfFile,
  type PdfValue,
} from './objects/index';
import { pageToUser, type PdfPage } from './pages';

/** What becomes of annotations: kept editable, drawn into the page, or left out. */
export const exportModes = ['editable', 'flattened', 'none'] as const;
export type ExportMode = (typeof exportModes)[number];

/** A page to export: where it is in the file, and the annotations that stand on it now. */
export interface ExportPage {
  readonly id: string;
  readonly index: number;
  readonly annotations: PageAnnotations;
}

/** What a document's landmarks are; `isOutlineChanged` since they were read from the file. */
export interface ExportLandmarks {
  readonly landmarks: Landmarks;
  readonly isOutlineChanged: boolean;
}

/**
 * The bytes to append to the file so that it carries the given annotations and landmarks: an incremental
 * update (ISO 32000-1, 7.5.6). `inFile` are the file's pages. An outline that was not changed, links,
 * labels and destinations are not touched. `written` may know annotations from exports before.
 */
export function exportUpdate(
  file: PdfFile,
  inFile: readonly PdfPage[],
  pages: readonly ExportPage[],
  mode: ExportMode,
  { landmarks, isOutlineChanged }: ExportLandmarks = noLandmarks,
  written = new WrittenAnnotations(deflateHere, () => undefined),
): Uint8Array {
  const update = new PdfUpdate(file, written.deflate);
  const keywords = keywordsByPage(landmarks);
  const indexes = new Map(pages.map(({ id, index }) => [id, index]));
  for (const { id, index, annotations } of pages) {
    const page = inFile[index];
    if (!page) throw new RangeError(`the file has no page ${index}`);
    const changes = {
      ...changesTo({ file, update, page, written, inFile, pages: indexes }, annotations, mode),
      ...keywordEntries(file, page, id, keywords.get(id) ?? []),
    };
    if (Object.keys(changes).length > 0) update.set(page.ref, page.dict.with(changes));
  }
  if (isOutlineChanged) {
    writeOutline(file, update, landmarks, inFile, indexes);
  }
  return update.bytes();
}

const noLandmarks: ExportLandmarks = { landmarks: {}, isOutlineChanged: false };

function keywordsByPage(landmarks: Landmarks): Map<string, Keyword[]> {
  const byPage = new Map<string, Keyword[]>();
  for (const landmark of Object.values(landmarks)) {
    if (landmark.kind !== 'keyword') continue;
    const { pageId } = landmark.place;
    byPage.set(pageId, [...(byPage.get(pageId) ?? []), landmark]);
  }
  return byPage;
}

interface Target {
  readonly file: PdfFile;
  readonly update: PdfUpdate;
  readonly page: PdfPage;
  readonly written: WrittenAnnotations;
  readonly inFile: readonly PdfPage[];
  readonly pages: ReadonlyMap<string, number>;
}

/** New entries for a page's dictionary; none when it can stay as it is. */
function changesTo(
  target: Target,
  page: PageAnnotations,
  mode: ExportMode,
): Record<string, PdfValue> {
  const { file } = target;
  const annotations = paintingOrder(page);
  const before = file.array(target.page.dict.get('Annots'));
  const gone = objectsOf(Object.values(page).filter(isGone));
  const { kept, marks } = sortOut(file, before);
  if (annotations.length === 0 && marks.length === 0 && gone.size === 0) return {};
  if (mode !== 'editable') {
    // Links are no marks: they lead on, whatever becomes of those.
    const links = annotations.filter((annotation) => annotation.kind === 'link');
    const rewritten = objectsOf(links);
    const others = kept.filter((value) => !isAmong(value, rewritten) && !isAmong(value, gone));
    const annots = annotsEntry(before, [...others, ...links.map((link) => setLink(target, link))]);
    return mode === 'none' ? annots : { ...annots, ...flattened(target, annotations) };
  }
  return annotsEntry(before, withAnnotations(target, before, annotations, gone));
}

/** The numbers of the objects that annotations are in the file. */
const objectsOf = (annotations: readonly Annotation[]): ReadonlySet<number> =>
  new Set(annotations.flatMap(({ origin }) => origin?.object ?? []));

const isAmong = (value: PdfValue, objects: ReadonlySet<number>): boolean =>
  value instanceof PdfRef && objects.has(value.object);

/** What is no mark stays (links, fields); the windows of marks go with them. */
function sortOut(
  file: PdfFile,
  annots: readonly PdfValue[],
): { kept: PdfValue[]; marks: PdfValue[] } {
  const marks = annots.filter((value) => isMarkAt(file, value));
  return { kept: without(file, annots, marks), marks };
}

function isMarkAt(file: PdfFile, value: PdfValue): boolean {
  const dict = file.dict(value);
  return dict !== undefined && isMark(file, dict);
}

/** The annotations but for some marks and the pop-up windows that belong to those. */
function without(
  file: PdfFile,
  annots: readonly PdfValue[],
  marks: readonly PdfValue[],
): PdfValue[] {
  const gone = new Set(marks);
  const windows = new Set(
    marks.flatMap((mark) => {
      const popup = file.dict(mark)?.get('Popup');
      return popup instanceof PdfRef ? [popup.object] : [];
    }),
  );
  return annots.filter(
    (value) => !gone.has(value) && !(value instanceof PdfRef && windows.has(value.object)),
  );
}

function annotsEntry(before: readonly PdfValue[], after: PdfValue[]): Record<string, PdfValue> {
  const same = before.length === after.length && before.every((value, i) => value === after[i]);
  if (same) return {};
  return { Annots: after.length > 0 ? after : null };
}

/** Writes a link, unless the file has it as it is; where it stands. */
function setLink({ file, update, page, inFile, pages }: Target, link: Link): PdfRef {
  const { origin } = link;
  const ref = origin ? new PdfRef(origin.object, origin.generation) : update.reserve();
  if (isUntouched(link)) return ref;
  const entries = writeLink(link, pageToUser(page.box), { inFile, pages });
  const before = origin && file.dict(ref);
  // A link that the file came with keeps its looks.
  const looks: Record<string, PdfValue> = before
    ? { Border: before.get('Border'), H: before.get('H') }
    : {};
  const cleared = (before ?? new PdfDict()).with({ Dest: null, A: null, PA: null });
  update.set(ref, cleared.with({ ...entries, ...looks, P: page.ref }));
  return ref;
}

function withAnnotations(
  target: Target,
  before: readonly PdfValue[],
  annotations: readonly Annotation[],
  gone: ReadonlySet<number>,
): PdfValue[] {
  const { file, update, page, written } = target;
  const present = objectsOf(annotations);
  const removed = before.filter(
    (value) =>
      isAmong(value, gone) ||
      (value instanceof PdfRef && isMarkAt(file, value) && !present.has(value.object)),
  );
  const toUser = pageToUser(page.box);
  const marks = annotations.map((annotation) => {
    if (annotation.kind === 'link') return setLink(target, annotation);
    const { origin } = annotation;
    const ref = origin ? new PdfRef(origin.object, origin.generation) : update.reserve();
    if (annotation.kind === 'foreign' || isUntouched(annotation)) return ref;
    const old = origin ? file.dict(ref) : undefined;
    written.setAnnotation(update, ref, annotation, { ref: page.ref, toUser }, old);
    return ref;
  });
  return inOrder(without(file, before, removed), marks);
}

/** The annotations with the page's marks in painting order, in the places where marks were and after. */
function inOrder(before: readonly PdfValue[], marks: readonly PdfRef[]): PdfValue[] {
  const known = new Map(
    before.flatMap((value) => (value instanceof PdfRef ? [[value.object, value]] : [])),
  );
  const ordered = marks.map((mark) => known.get(mark.object) ?? mark);
  const places = new Set(ordered);
  const rest = ordered.values();
  const there = before.map((value) =>
    value instanceof PdfRef && places.has(value) ? rest.next().value! : value,
  );
  return [...there, ...rest];
}

/** Draws the annotations behind what the page already draws (8.10, 14.11.3 leave order to us). */
function flattened(
  { file, update, page, written }: Target,
  annotations: readonly Annotation[],
): Record<string, PdfValue> {
  const forms = new Map<string, PdfValue>();
  const lines: string[] = [];
  const draw = (
    form: PdfRef,
    matrix: readonly [number, number, number, number, number, number],
  ) => {
    const resource = `Stylet${forms.size}`;
    forms.set(resource, form);
    lines.push(drawForm(resource, matrix));
  };
  for (const annotation of annotations) {
    if (annotation.kind === 'link') continue;
    if (annotation.kind === 'foreign') {
      const dict = file.dict(new PdfRef(annotation.origin.object, annotation.origin.generation));
      const form = dict && normalAppearance(file, dict);
      const matrix = form && placement(file, dict, file.dict(form)!);
      if (matrix) draw(form, matrix);
    } else {
      draw(written.addForm(update, annotation, pageToUser(page.box)), [1, 0, 0, 1, 0, 0]);
    }
  }
  if (lines.length === 0) return {};
  const contents = page.dict.get('Contents');
  const streams = Array.isArray(file.resolve(contents)) ? file.array(contents) : [contents];
  const open = update.addStream(new PdfDict(), bytesOf('q\n'));
  // The page's own content may leave the graphics state changed; it is closed off first.
  const close = update.addStream(new PdfDict(), bytesOf(`\nQ\n${lines.join('\n')}\n`));
  const resources = file.dict(page.resources) ?? new PdfDict();
  const objects = file.dict(resources.get('XObject')) ?? new PdfDict();
  return {
    Contents: [open, ...streams.filter((s) => s !== null), close],
    Resources: resources.with({ XObject: objects.with(Object.fromEntries(forms)) }),
  };
}
