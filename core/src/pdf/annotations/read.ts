import {
  annotationSchema,
  noteLook,
  orderAbove,
  type Annotation,
  type Foreign,
  type Ids,
  type Note,
  type Reply,
} from '../../document/index';
import { boundedCoordinate } from '../../bounds/index';
import { transformBox } from '../../geometry/index';
import type { PdfDict } from '../objects/index';
import { PdfRef, instantOf, numberOr, textOf, type PdfFile } from '../objects/index';
import { readBox, userToPage, type PdfPage } from '../pages';
import { Cleaning } from '../storable';
import { colorOf, isHidden } from './entries';
import { subtypeOf } from './kinds';
import { isReply, repliesTo } from './belonging';
import { isMark } from './marks';
import { stateIn } from './note-wins';
import { ownForms } from './own-forms';
import { wordsIn } from './told-words';
import { readOwnCopy } from './own-copy';
import { asTheFileHasIt } from './standard-wins';

/** An indirect annotation on a page. */
export interface PlacedAnnotation {
  readonly ref: PdfRef;
  readonly dict: PdfDict;
}

/** The marks of a page that are objects of their own, each once, in painting order. */
export function marksOf(file: PdfFile, page: PdfPage): PlacedAnnotation[] {
  const marks = new Map<number, PlacedAnnotation>();
  for (const ref of file.array(page.dict.get('Annots'))) {
    if (!(ref instanceof PdfRef) || marks.has(ref.object)) continue;
    const dict = file.dict(ref);
    if (dict && isMark(file, dict)) marks.set(ref.object, { ref, dict });
  }
  return [...marks.values()];
}

/** Where and when annotations are read. */
interface Reading {
  readonly pageId: string;
  /** An ISO 8601 instant, for what has no date in the file. */
  readonly now: string;
  readonly clean: Cleaning;
  readonly ids: Ids;
}

/**
 * The annotations of a page. Those Stylet wrote come back as they were, with what other programs have changed of
 * them since; notes and replies of other programs are notes and replies here; what else they made comes as `foreign`, and
 * keeps its own appearance.
 */
export function readAnnotations(file: PdfFile, page: PdfPage, reading: Reading): Annotation[] {
  const annotations: Annotation[] = [];
  let order: string | undefined;
  for (const mark of marksOf(file, page)) {
    order = orderAbove(order);
    const annotation =
      readOwn(file, page, mark, order, reading) ??
      readNote(file, page, mark, order, reading) ??
      readForeign(file, page, mark, order, reading);
    // What cannot be kept stays the file's, and is said.
    if (annotationSchema.safeParse(annotation).success) annotations.push(annotation);
    else reading.clean.unreadable++;
  }
  return withReplies(file, page, annotations);
}

function readOwn(
  file: PdfFile,
  page: PdfPage,
  { ref, dict }: PlacedAnnotation,
  order: string,
  { pageId, clean }: Reading,
): Annotation | undefined {
  const copy = readOwnCopy(file, page, dict, { pageId, order });
  const now = copy && asTheFileHasIt(file, page, dict, copy, clean);
  const parsed = now && annotationSchema.safeParse(now);
  if (!parsed?.success) return undefined;
  const { object, generation } = ref;
  return { ...parsed.data, origin: { object, generation, modified: parsed.data.modified } };
}

/** A note of another program, or a reply; what it answers is found out when all of its page are known. */
function readNote(
  file: PdfFile,
  page: PdfPage,
  mark: PlacedAnnotation,
  order: string,
  reading: Reading,
): Note | Reply | undefined {
  const { dict } = mark;
  if (subtypeOf(file, dict) !== 'Text') return undefined;
  const answers = repliesTo(dict) !== undefined;
  // What is grouped with something is a part of it (table 170, RT).
  if (answers && !isReply(file, dict)) return undefined;
  const {
    contents: _,
    color: _color,
    subtype: _subtype,
    box,
    kind: _kind,
    ...common
  } = readForeign(file, page, mark, order, reading);
  const paragraphs = wordsIn(file, dict, reading.clean, noteLook);
  const state = stateIn(file, dict);
  if (answers)
    return { ...common, kind: 'reply', to: common.id, paragraphs, ...(state ? { state } : {}) };
  const at = { x: (box.x0 + box.x1) / 2, y: (box.y0 + box.y1) / 2 };
  return { ...common, kind: 'note', color: colorOf(file, dict) ?? NOTE_COLOR, at, paragraphs };
}

/** Of notes whose file says none (table 164, C). */
const NOTE_COLOR = '#ffe27a';

/** Replies with what they answer: as the file has it, whatever was kept. Those that answer nothing are notes. */
function withReplies(
  file: PdfFile,
  page: PdfPage,
  annotations: readonly Annotation[],
): Annotation[] {
  const byObject = new Map(
    annotations.map(({ id, kind, origin }) => [origin?.object, { id, kind }]),
  );
  return annotations.map((annotation) => {
    if (annotation.kind !== 'reply' || !annotation.origin) return annotation;
    const { object, generation } = annotation.origin;
    const dict = file.dict(new PdfRef(object, generation))!;
    const parent = repliesTo(dict);
    const to = parent === undefined || parent === object ? undefined : byObject.get(parent);
    if (to && to.kind !== 'link') return { ...annotation, to: to.id };
    const { to: _to, state: _state, kind: _kind, ...rest } = annotation;
    const rect = readBox(file, dict.get('Rect'));
    const box = rect ? transformBox(userToPage(page.box), rect) : { x0: 0, y0: 0, x1: 0, y1: 0 };
    const at = {
      x: boundedCoordinate((box.x0 + box.x1) / 2),
      y: boundedCoordinate((box.y0 + box.y1) / 2),
    };
    return { ...rest, kind: 'note', color: colorOf(file, dict) ?? NOTE_COLOR, at };
  });
}

function readForeign(
  file: PdfFile,
  page: PdfPage,
  { ref, dict }: PlacedAnnotation,
  order: string,
  { pageId, now, clean, ids }: Reading,
): Foreign {
  const box = readBox(file, dict.get('Rect'));
  const modified = instantOf(file.resolve(dict.get('M'))) ?? now;
  const forms = ownForms(file, page, dict, new Cleaning());
  const { x0, y0, x1, y1 } = box
    ? transformBox(userToPage(page.box), box)
    : { x0: 0, y0: 0, x1: 0, y1: 0 };
  return {
    kind: 'foreign',
    id: ids('annotation'),
    pageId,
    order,
    subtype: clean.text(subtypeOf(file, dict), 100),
    box: {
      x0: boundedCoordinate(x0),
      y0: boundedCoordinate(y0),
      x1: boundedCoordinate(x1),
      y1: boundedCoordinate(y1),
    },
    color: colorOf(file, dict) ?? '#000000',
    opacity: Math.min(1, Math.max(0, numberOr(file.resolve(dict.get('CA'))) ?? 1)),
    author: clean.text(textOf(file.resolve(dict.get('T'))), 200),
    contents: clean.text(textOf(file.resolve(dict.get('Contents'))), 100_000),
    ...(forms ? { forms } : {}),
    created: instantOf(file.resolve(dict.get('CreationDate'))) ?? modified,
    modified,
    ...(isHidden(file, dict) ? { hidden: true } : {}),
    origin: { object: ref.object, generation: ref.generation, modified },
  };
}
