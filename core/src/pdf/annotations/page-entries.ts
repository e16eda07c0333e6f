import {
  isGone,
  paintingOrder,
  type Annotation,
  type Link,
  type PageAnnotations,
} from '../../document/index';
import type { Destinations } from '../destinations';
import type { PlacedById } from '../landmarks/write-outline';
import {
  PdfDict,
  PdfRef,
  bytesOf,
  type PdfFile,
  type PdfUpdate,
  type PdfValue,
} from '../objects/index';
import type { PlacedPage } from '../page-tree';
import { pageToUser } from '../pages';
import { drawForm, normalAppearance, placement } from './flatten';
import { isMark, subtypeOf } from './kinds';
import { isUntouched, writeLink } from './write';
import type { WrittenAnnotations } from './written';

/** What becomes of annotations: kept editable, drawn into the page, or left out. */
export const exportModes = ['editable', 'flattened', 'none'] as const;
export type ExportMode = (typeof exportModes)[number];

/** What is known of the file that is written. */
export interface ExportTarget {
  readonly file: PdfFile;
  readonly update: PdfUpdate;
  readonly written: WrittenAnnotations;
  readonly placed: PlacedById;
  /** Where links of the file lead, if some may lead to pages that are not there any more. */
  readonly leading:
    { readonly destinations: Destinations; readonly gone: ReadonlySet<number> } | undefined;
}

interface Target extends ExportTarget {
  readonly page: PlacedPage;
}

/** New entries for a page's dictionary; none when it can stay as it is. */
export function annotationEntries(
  where: ExportTarget,
  page: PlacedPage,
  on: PageAnnotations,
  mode: ExportMode,
): Record<string, PdfValue> {
  const target: Target = { ...where, page };
  const { file } = target;
  const isAway = (annotation: Annotation): boolean =>
    isGone(annotation) || leadsAway(annotation, target);
  const annotations = paintingOrder(on).filter((annotation) => !isAway(annotation));
  const before = file.array(page.dict.get('Annots'));
  const gone = new Set([
    ...objectsOf(Object.values(on).filter(isAway)),
    ...deadLinks(target, before),
  ]);
  const { kept, marks } = sortOut(file, before);
  if (page.isCopy) return copiedEntries(target, annotations, kept, gone, mode);
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

/** Whether a link leads to a page that is not there any more. */
const leadsAway = (annotation: Annotation, { placed }: Target): boolean =>
  annotation.kind === 'link' &&
  'place' in annotation.target &&
  !placed.has(annotation.target.place.pageId);

/** The objects of the file's links to pages that are not there any more. */
function deadLinks({ file, leading }: Target, annots: readonly PdfValue[]): number[] {
  if (!leading) return [];
  return annots.flatMap((value) => {
    const dict = value instanceof PdfRef ? file.dict(value) : undefined;
    if (!dict || subtypeOf(file, dict) !== 'Link') return [];
    const to = leading.destinations.of(dict);
    return to && leading.gone.has(to.pageIndex) ? [(value as PdfRef).object] : [];
  });
}

/** A copy of a page has annotations of its own: no object stands on two pages. */
function copiedEntries(
  target: Target,
  annotations: readonly Annotation[],
  kept: readonly PdfValue[],
  gone: ReadonlySet<number>,
  mode: ExportMode,
): Record<string, PdfValue> {
  const { file, update, page } = target;
  const known = objectsOf(annotations);
  const others = kept
    .filter((value) => !isAmong(value, gone) && !isAmong(value, known))
    .flatMap((value) => copyOnto(target, value) ?? []);
  const isWritten = (annotation: Annotation): boolean =>
    mode === 'editable' || annotation.kind === 'link';
  const marks = annotations.filter(isWritten).map((annotation) => {
    const { origin } = annotation;
    const before = origin && file.dict(new PdfRef(origin.object, origin.generation));
    if (before && (annotation.kind === 'foreign' || isUntouched(annotation)))
      return update.add(ontoPage(before, page.ref));
    const ref = update.reserve();
    if (annotation.kind === 'link') writeLinkAs(target, annotation, ref, before);
    else if (annotation.kind !== 'foreign')
      target.written.setAnnotation(update, ref, annotation, {
        ref: page.ref,
        toUser: pageToUser(page.box),
      });
    return ref;
  });
  const all = [...others, ...marks];
  return {
    Annots: all.length > 0 ? all : null,
    StructParents: null,
    B: null,
    ...(mode === 'flattened' ? flattened(target, annotations) : {}),
  };
}

function copyOnto({ file, update, page }: Target, value: PdfValue): PdfRef | undefined {
  const dict = file.dict(value);
  // A window belongs to a mark, which is written anew.
  if (!dict || subtypeOf(file, dict) === 'Popup') return undefined;
  return update.add(ontoPage(dict, page.ref));
}

/** An annotation's dictionary on another page, out of the structure and fields that know the first one. */
const ontoPage = (dict: PdfDict, page: PdfRef): PdfDict =>
  dict.with({ P: page, StructParent: null, Popup: null, Parent: null });

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
function setLink(target: Target, link: Link): PdfRef {
  const { origin } = link;
  const ref = origin ? new PdfRef(origin.object, origin.generation) : target.update.reserve();
  if (isUntouched(link)) return ref;
  writeLinkAs(target, link, ref, origin && target.file.dict(ref));
  return ref;
}

function writeLinkAs(
  { update, page, placed }: Target,
  link: Link,
  ref: PdfRef,
  before: PdfDict | undefined,
): void {
  const entries = writeLink(link, pageToUser(page.box), placed);
  // A link that the file came with keeps its looks.
  const looks: Record<string, PdfValue> = before
    ? { Border: before.get('Border'), H: before.get('H') }
    : {};
  const cleared = (before ?? new PdfDict()).with({ Dest: null, A: null, PA: null });
  update.set(ref, cleared.with({ ...entries, ...looks, P: page.ref }));
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
