import type { Annotation, Note } from '../../document/index';
import type { Box } from '../../geometry/index';
import { PdfDict, name, type PdfRef } from '../objects/index';
import { pageToUser, readBox } from '../pages';
import type { Linked } from './linked';
import { refOf, type Target } from './target';
import { rectOf, rectangle, type OwnAnnotation } from './write';

/** How large the window of a note is in other programs, and how far beside its page, in points. */
const WINDOW = { width: 200, height: 120, off: 8 };
/** Replies that go round lead nowhere. */
const DEEPEST = 1000;

/** The annotations of a page by their ids, and the objects they are in the file. */
export type PlacedOn = ReadonlyMap<
  string,
  { readonly annotation: Annotation; readonly ref: PdfRef }
>;

/** Known before they are written: replies name what they answer. */
export function placedOn({ before, update }: Target, annotations: readonly Annotation[]): PlacedOn {
  return new Map(
    annotations.flatMap((annotation) => {
      if (annotation.kind === 'link') return [];
      const ref = refOf(annotation) ?? before.refFor(update, annotation.id);
      return [[annotation.id, { annotation, ref }]];
    }),
  );
}

/** Writes an annotation over what the file has of it; what stands on the page for it. */
export function setAnnotation(
  target: Target,
  annotation: OwnAnnotation,
  placed: PlacedOn,
  over = refOf(annotation),
): PdfRef[] {
  const { ref } = placed.get(annotation.id)!;
  const before = over && target.file.dict(over);
  const linked = linkedTo(target, annotation, placed, before);
  writeOver(target, annotation, ref, linked, before);
  return [ref, ...linked.beside];
}

/** Writes an annotation as an object, over entries that were there. */
export function writeOver(
  target: Target,
  annotation: OwnAnnotation,
  ref: PdfRef,
  linked: Linked,
  before: PdfDict | undefined,
): void {
  const page = { ref: target.page.ref, toUser: pageToUser(target.page.box) };
  target.written.setAnnotation(target, ref, annotation, page, linked, before);
}

/** What goes with an annotation that is written over `before`. */
export function linkedTo(
  target: Target,
  annotation: OwnAnnotation,
  placed: PlacedOn,
  before: PdfDict | undefined,
): Linked {
  if (annotation.kind === 'note')
    return withWindow(target, annotation, placed.get(annotation.id)!.ref, before);
  if (annotation.kind !== 'reply') return { entries: {}, beside: [] };
  const parent = placed.get(annotation.to)?.ref;
  return {
    // Table 170: the two belong together.
    entries: parent ? { IRT: parent, RT: name('R') } : { IRT: null, RT: null },
    beside: [],
    near: placeOf(target, annotation.to, placed),
  };
}

/** A note with its pop-up window (12.5.6.14), unless it has one. */
function withWindow(
  { update, page, before: last }: Target,
  { id, at }: Note,
  ref: PdfRef,
  before: PdfDict | undefined,
): Linked {
  if (before && before.get('Popup') !== null) return { entries: {}, beside: [] };
  const popup = last.refFor(update, `window ${id}`);
  const left = page.box.x1 + WINDOW.off;
  const top = page.box.y1 - at.y;
  update.set(
    popup,
    PdfDict.of({
      Type: name('Annot'),
      Subtype: name('Popup'),
      Rect: rectangle({ x0: left, y0: top - WINDOW.height, x1: left + WINDOW.width, y1: top }),
      Parent: ref,
      Open: false,
      F: 28, // Print, NoZoom, NoRotate: table 165.
      P: page.ref,
    }),
  );
  return { entries: { Popup: popup }, beside: [popup] };
}

/** Where something that is replied to lies, in default user space. */
function placeOf({ file, page }: Target, id: string, placed: PlacedOn): Box | undefined {
  let at = placed.get(id)?.annotation;
  for (let depth = 0; at?.kind === 'reply' && depth < DEEPEST; depth++)
    at = placed.get(at.to)?.annotation;
  if (!at || at.kind === 'reply' || at.kind === 'link') return undefined;
  if (at.kind !== 'foreign') return rectOf(at, pageToUser(page.box));
  const ref = refOf(at);
  return ref && readBox(file, file.dict(ref)?.get('Rect') ?? null);
}
