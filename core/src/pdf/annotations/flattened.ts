import {
  isShown,
  wordsOf,
  type Annotation,
  type Foreign,
  type Link,
  type Note,
  type Reply,
} from '../../document/index';
import type { Matrix } from '../../geometry/index';
import {
  PdfDict,
  PdfRef,
  PdfStream,
  bytesOf,
  name,
  textString,
  type PdfFile,
  type PdfValue,
} from '../objects/index';
import { pageToUser, readBox } from '../pages';
import { isReply, without } from './belonging';
import { drawForm, normalAppearance, placement } from './flatten';
import { subtypeOf } from './kinds';
import { madeLook } from './made-look';
import { isMarkAt } from './marks';
import { keptContents } from './own-copy';
import { placedOn, setAnnotation, type PlacedOn } from './placed';
import { isAmong, refOf, setLink, type ExportHow, type Target } from './target';
import { setWordLinks } from './word-links';
import { isUntouched, rectOf, rectangle } from './write';

/** Those that cannot be drawn: they have a file or a sound in them. */
const CARRIES = new Set(['FileAttachment', 'Sound']);
/** The sides of the mark of a note, in points. */
const NOTE_SIZE = 20;

/**
 * A page's entries when its annotations are drawn into it, or left out: `annots` are those that stay. Links lead on,
 * whatever becomes of marks; what cannot be drawn stays.
 */
export function flattenedEntries(
  target: Target,
  annotations: readonly Annotation[],
  before: readonly PdfValue[],
  gone: ReadonlySet<number>,
  { mode, keepsNotes }: ExportHow,
): Record<string, PdfValue> & { readonly annots: PdfValue[] } {
  const { file } = target;
  const isDrawn = mode === 'flattened';
  const staying: PdfRef[] = [];
  const placed = placedOn(target, annotations);
  const answered = new Set(annotations.flatMap((one) => (one.kind === 'reply' ? one.to : [])));
  for (const annotation of annotations) {
    if (annotation.kind === 'link') staying.push(setLink(target, annotation));
    else if (isDrawn && staysItself(file, annotation, keepsNotes)) staying.push(refOf(annotation)!);
    else if (!isDrawn || !keepsNotes) continue;
    else if (annotation.kind === 'note' || annotation.kind === 'reply')
      staying.push(...keptNote(target, annotation, placed));
    else staying.push(...noteFor(target, annotation, placed, answered.has(annotation.id)));
  }
  const stay = new Set(staying.map(({ object }) => object));
  const going = before.filter(
    (value) => isAmong(value, gone) || (isMarkAt(file, value) && !isAmong(value, stay)),
  );
  const left = without(file, before, new Set(going));
  const there = new Set(left.flatMap((value) => (value instanceof PdfRef ? value.object : [])));
  return {
    annots: [
      ...left,
      ...staying.filter(({ object }) => !there.has(object)),
      ...(isDrawn ? setWordLinks(target, annotations, false) : []),
    ],
    ...(isDrawn
      ? drawnInto(
          target,
          annotations.filter((one) => !keepsNotes || one.kind !== 'note'),
        )
      : {}),
  };
}

/** A note or a reply as an annotation: what it is in the file, unless it has changed. */
function keptNote(target: Target, annotation: Note | Reply, placed: PlacedOn): PdfRef[] {
  if (!isShown(annotation)) return [];
  const own = refOf(annotation);
  return own && isUntouched(annotation) ? [own] : setAnnotation(target, annotation, placed);
}

/** Whether an annotation of the file stays one: notes with their replies, and what has a file in it. */
function staysItself(file: PdfFile, annotation: Annotation, keepsNotes: boolean): boolean {
  if (annotation.kind !== 'foreign' || !isShown(annotation)) return false;
  const dict = file.dict(refOf(annotation)!);
  if (!dict) return false;
  return CARRIES.has(annotation.subtype) || (keepsNotes && isNote(file, annotation, dict));
}

const isNote = (file: PdfFile, { subtype }: Foreign, dict: PdfDict): boolean =>
  subtype === 'Text' || isReply(file, dict);

/** What somebody remarked on an annotation, or nothing: words that were marked are no remark. */
export function remarkOn(file: PdfFile, annotation: Annotation): string {
  if (annotation.kind === 'link' || !isShown(annotation)) return '';
  const ref = refOf(annotation);
  const dict = ref && file.dict(ref);
  if (annotation.kind === 'foreign')
    return annotation.subtype === 'FreeText' ? '' : annotation.contents;
  // What is typed is drawn, and can be read there.
  if (annotation.kind === 'textBox') return '';
  if (annotation.kind === 'note' || annotation.kind === 'reply') return wordsOf(annotation);
  if (annotation.kind === 'ink' || annotation.kind === 'shape') return annotation.contents ?? '';
  const kept = dict && keptContents(file, dict);
  const isAsMarked = kept === undefined || kept === annotation.contents || !isUntouched(annotation);
  return isAsMarked ? '' : annotation.contents;
}

/**
 * A note with what was remarked on something that is drawn into the page, as the same object: replies refer to it. What has
 * replies only has one with its words.
 */
function noteFor(
  target: Target,
  annotation: Exclude<Annotation, Link>,
  placed: PlacedOn,
  isAnswered: boolean,
): PdfRef[] {
  const { file, update, page } = target;
  const remark = remarkOn(file, annotation);
  const words = remark === '' && isAnswered ? wordsOf(annotation) : remark;
  const own = refOf(annotation);
  const dict = (own && file.dict(own)) ?? new PdfDict();
  if ((words === '' && !isAnswered) || CARRIES.has(subtypeOf(file, dict))) return [];
  const drawn =
    annotation.kind === 'foreign' ? undefined : rectOf(annotation, pageToUser(page.box));
  const box = readBox(file, dict.get('Rect')) ?? drawn ?? page.box;
  const { ref } = placed.get(annotation.id)!;
  const kept = ['NM', 'M', 'CreationDate', 'T', 'Popup', 'Subj', 'RC', 'IRT', 'RT'] as const;
  update.set(
    ref,
    PdfDict.of({
      Type: name('Annot'),
      Subtype: name('Text'),
      Name: name('Comment'),
      Rect: rectangle({
        x0: box.x1,
        y0: box.y1 - NOTE_SIZE,
        x1: box.x1 + NOTE_SIZE,
        y1: box.y1,
      }),
      ...Object.fromEntries(
        kept.flatMap((key) => (dict.get(key) === null ? [] : [[key, dict.get(key)]])),
      ),
      Contents: textString(words),
      C: [1, 0.89, 0.48],
      F: 28, // Print, NoZoom, NoRotate: table 172.
      P: page.ref,
    }),
  );
  return [ref];
}

/** Draws annotations behind what the page already draws (8.10, 14.11.3 leave order to us). */
export function drawnInto(
  target: Target,
  annotations: readonly Annotation[],
): Record<string, PdfValue> {
  const { file, update, page, written } = target;
  const forms = new Map<string, PdfValue>();
  const lines: string[] = [];
  const draw = (form: PdfRef, matrix: Matrix): void => {
    const resource = `Stylet${forms.size}`;
    forms.set(resource, form);
    lines.push(drawForm(resource, matrix));
  };
  for (const annotation of annotations) {
    if (annotation.kind === 'link' || !isShown(annotation)) continue;
    if (annotation.kind === 'foreign') drawForeign(target, annotation, draw);
    else {
      const { ref, matrix } = written.addForm(update, annotation, pageToUser(page.box));
      draw(ref, matrix);
    }
  }
  if (lines.length === 0) return {};
  const open = update.addStream(new PdfDict(), bytesOf('q\n'));
  // The page's own content may leave the graphics state changed; it is closed off first.
  const close = update.addStream(new PdfDict(), bytesOf(`\nQ\n${lines.join('\n')}\n`));
  const resources = file.dict(page.resources) ?? new PdfDict();
  const objects = file.dict(resources.get('XObject')) ?? new PdfDict();
  return {
    Contents: [open, ...contentRefs(file, page.dict.get('Contents')), close],
    Resources: resources.with({ XObject: objects.with(Object.fromEntries(forms)) }),
  };
}

/** The streams of a page's contents that are there; what a file only names would keep programs from drawing. */
function contentRefs(file: PdfFile, contents: PdfValue): PdfValue[] {
  const streams = Array.isArray(file.resolve(contents)) ? file.array(contents) : [contents];
  return streams.filter((value) => file.resolve(value) instanceof PdfStream);
}

/** By its own appearance, or one that is made for it where it has none. */
function drawForeign(
  { file, update }: Target,
  { origin, subtype }: Foreign,
  draw: (form: PdfRef, matrix: Matrix) => void,
): void {
  const dict = file.dict(new PdfRef(origin.object, origin.generation));
  if (!dict || CARRIES.has(subtype) || isReply(file, dict)) return;
  const form = normalAppearance(file, dict);
  const matrix = form && placement(file, dict, file.dict(form)!);
  if (matrix) draw(form, matrix);
  else if (!form && dict.get('AP') === null) {
    const made = madeLook(file, update, dict);
    if (made) draw(made, [1, 0, 0, 1, 0, 0]);
  }
}
