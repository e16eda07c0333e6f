import type { Annotation } from '../../document/index';
import type { PdfRef } from '../objects/index';
import { nameText, type PdfDict, type PdfFile, type PdfValue } from '../objects/index';
import { repliesTo, without } from './belonging';
import { drawnInto } from './flattened';
import { subtypeOf } from './kinds';
import { isMarkAt } from './marks';
import { linkedTo, writeOver, type PlacedOn } from './placed';
import { isAmong, objectsOf, refOf, writeLinkAs, type ExportHow, type Target } from './target';
import { setWordLinks } from './word-links';
import { isUntouched } from './write';

/** A copy of a page has annotations of its own: no object stands on two pages. */
export function copiedEntries(
  target: Target,
  annotations: readonly Annotation[],
  before: readonly PdfValue[],
  gone: ReadonlySet<number>,
  how: ExportHow,
): Record<string, PdfValue> {
  const { file, page, update } = target;
  const known = objectsOf(annotations);
  const isWritten = (annotation: Annotation): boolean =>
    how.mode === 'editable' || annotation.kind === 'link';
  const marks = new Set(before.filter((value) => isMarkAt(file, value)));
  const others = without(file, before, marks).filter(
    (value) => !isAmong(value, gone) && !isAmong(value, known) && canBeTwice(file, value),
  );
  // Known before they are written: replies name what they answer.
  const copies = new Map<number, PdfRef>();
  const placed: PlacedOn = new Map(
    annotations.filter(isWritten).map((annotation) => {
      const ref = update.reserve();
      if (annotation.origin) copies.set(annotation.origin.object, ref);
      return [annotation.id, { annotation, ref }];
    }),
  );
  const all = [
    ...others.map((value) => update.add(ontoPage(file.dict(value)!, page.ref, copies))),
    ...[...placed.values()].flatMap(({ annotation, ref }) => [
      ref,
      ...writeCopy(target, annotation, ref, { copies, placed }),
    ]),
    ...(how.mode === 'none' ? [] : setWordLinks(target, annotations, how.mode === 'editable')),
  ];
  return {
    Annots: all.length > 0 ? all : null,
    StructParents: null,
    B: null,
    ...(how.mode === 'flattened' ? drawnInto(target, annotations) : {}),
  };
}

/** Writes an annotation as an object; what else stands on the page for it. */
function writeCopy(
  target: Target,
  annotation: Annotation,
  ref: PdfRef,
  { copies, placed }: { readonly copies: ReadonlyMap<number, PdfRef>; readonly placed: PlacedOn },
): readonly PdfRef[] {
  const { file, update, page } = target;
  const own = refOf(annotation);
  const before = own && file.dict(own);
  if (before && (annotation.kind === 'foreign' || isUntouched(annotation)))
    update.set(ref, ontoPage(before, page.ref, copies));
  else if (annotation.kind === 'link') writeLinkAs(target, annotation, ref, before);
  else if (annotation.kind !== 'foreign') {
    const over = before && ontoPage(before, page.ref, copies);
    const linked = linkedTo(target, annotation, placed, over);
    writeOver(target, annotation, ref, linked, over);
    return linked.beside;
  }
  return [];
}

/** Windows belong to marks, which are written anew; a signature holds once (12.7.4.5). */
function canBeTwice(file: PdfFile, value: PdfValue): boolean {
  const dict = file.dict(value);
  if (!dict || subtypeOf(file, dict) === 'Popup') return false;
  return subtypeOf(file, dict) !== 'Widget' || fieldType(file, dict) !== 'Sig';
}

/** The type of the field a widget belongs to, its own or inherited (12.7.3.1). */
export function fieldType(file: PdfFile, widget: PdfDict): string | undefined {
  const passed = new Set<PdfDict>();
  for (let at: PdfDict | undefined = widget; at && !passed.has(at);) {
    passed.add(at);
    const type = nameText(file.resolve(at.get('FT')));
    if (type !== undefined) return type;
    at = file.dict(at.get('Parent'));
  }
  return undefined;
}

/**
 * An annotation's dictionary on another page, out of the structure and fields that know the first one. What it
 * answers is on the copy as well.
 */
function ontoPage(dict: PdfDict, page: PdfRef, copies: ReadonlyMap<number, PdfRef>): PdfDict {
  const parent = repliesTo(dict);
  const answered = parent === undefined ? undefined : copies.get(parent);
  return dict.with({
    P: page,
    StructParent: null,
    Popup: null,
    Parent: null,
    ...(parent === undefined ? {} : { IRT: answered ?? null, ...(answered ? {} : { RT: null }) }),
  });
}
