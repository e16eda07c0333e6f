import {
  inPaintingOrder,
  isGone,
  rootOf,
  type Annotation,
  type PageAnnotations,
} from '../../document/index';
import { PdfRef, type PdfValue } from '../objects/index';
import type { PlacedPage } from '../page-tree';
import { without } from './belonging';
import { copiedEntries } from './copied-entries';
import { flattenedEntries } from './flattened';
import { subtypeOf } from './kinds';
import { isMarkAt } from './marks';
import {
  isAmong,
  objectsOf,
  refOf,
  setLink,
  type ExportHow,
  type ExportTarget,
  type Target,
} from './target';
import { setWordLinks } from './word-links';
import { placedOn, setAnnotation } from './placed';
import { isUntouched } from './write';

/** New entries for a page's dictionary; none when it can stay as it is. */
export function annotationEntries(
  where: ExportTarget,
  page: PlacedPage,
  on: PageAnnotations,
  how: ExportHow,
): Record<string, PdfValue> {
  const target: Target = { ...where, page };
  const { file } = target;
  const isAway = (annotation: Annotation): boolean =>
    isGone(annotation) || leadsAway(annotation, target);
  const all = Object.values(on);
  // A reply has gone with what it answered.
  const isLeft = (annotation: Annotation): boolean =>
    annotation.kind === 'reply' && rootOf(on, annotation) === undefined;
  const there = all.filter((annotation) => !isAway(annotation) && !isLeft(annotation));
  const annotations = inPaintingOrder(there);
  const before = file.array(page.dict.get('Annots'));
  const gone = new Set([...objectsOf(all.filter(isAway)), ...deadLinks(target, before)]);
  if (page.isCopy) return copiedEntries(target, annotations, before, gone, how);
  const marks = new Set(before.filter((value) => isMarkAt(file, value)));
  if (annotations.length === 0 && marks.size === 0 && gone.size === 0) return {};
  if (how.mode === 'editable')
    return annotsEntry(before, [
      ...withAnnotations(target, { before, marks }, annotations, gone),
      ...setWordLinks(target, annotations, true),
    ]);
  const { annots, ...entries } = flattenedEntries(target, annotations, before, gone, how);
  return { ...annotsEntry(before, annots), ...entries };
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

function annotsEntry(before: readonly PdfValue[], after: PdfValue[]): Record<string, PdfValue> {
  const same = before.length === after.length && before.every((value, i) => value === after[i]);
  if (same) return {};
  return { Annots: after.length > 0 ? after : null };
}

/** `marks` are those of the page's annotations `before` that are the document's. */
function withAnnotations(
  target: Target,
  { before, marks }: { before: readonly PdfValue[]; marks: ReadonlySet<PdfValue> },
  annotations: readonly Annotation[],
  gone: ReadonlySet<number>,
): PdfValue[] {
  const { file } = target;
  const present = objectsOf(annotations);
  const removed = before.filter(
    (value) =>
      isAmong(value, gone) ||
      (value instanceof PdfRef && marks.has(value) && !present.has(value.object)),
  );
  const left = without(file, before, new Set(removed));
  const there =
    present.size === 0
      ? present
      : new Set(left.flatMap((value) => (value instanceof PdfRef ? value.object : [])));
  const placed = placedOn(target, annotations);
  const now = annotations.flatMap((annotation): PdfRef[] => {
    if (annotation.kind === 'link') return [setLink(target, annotation)];
    const own = refOf(annotation);
    // A reply has gone with what it answered.
    if (annotation.kind === 'foreign' && !there.has(own!.object)) return [];
    if (own && (annotation.kind === 'foreign' || isUntouched(annotation))) return [own];
    if (annotation.kind === 'foreign') return [];
    return setAnnotation(target, annotation, placed);
  });
  return present.size === 0 ? [...left, ...now] : inOrder(left, now);
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
