import { scaleOf, type Ink, type Markup, type Picture } from '../../document/index';
import {
  compose,
  distanceToSegment,
  identity,
  transform,
  type Matrix,
  type Point,
} from '../../geometry/index';
import { samplesFromBase64, samplesOf, samplesToBase64 } from '../../ink/index';
import {
  bytesOf,
  instantOf,
  numberOr,
  textOf,
  type PdfDict,
  type PdfFile,
  type PdfValue,
} from '../objects/index';
import { pageToUser, readBox, userToPage, type PdfPage } from '../pages';
import type { Cleaning } from '../storable';
import { mapBetween } from './affine';
import { boxMap, lineWidth, quadsOf, type Comparison } from './comparison';
import { colorOf, isHidden, isLocked, numbersOf, pointsOf, standardText } from './entries';
import { isPrintOf, lookOf, saysSame } from './fingerprint';
import { subtypeOf } from './kinds';
import { linkAsTheFileHasIt } from './link-wins';
import { noteAsTheFileHasIt, replyAsTheFileHasIt } from './note-wins';
import { movedBy, type Own, type OwnCopy } from './own-copy';
import { shapeAsTheFileHasIt } from './shape-wins';
import { textAsTheFileHasIt } from './text-wins';
import { SUBTYPES, standardOf } from './write';

/**
 * An annotation that Stylet wrote, with what other programs have changed since: where a standard entry says
 * something else than the copy that was kept, it wins. Undefined for what cannot be said in Stylet's fields, so that
 * it has to be taken as the other program's.
 */
export function asTheFileHasIt(
  file: PdfFile,
  page: PdfPage,
  dict: PdfDict,
  { annotation, prints }: OwnCopy,
  clean: Cleaning,
): Own | undefined {
  if (annotation.kind === 'link') return linkAsTheFileHasIt(file, page, dict, annotation, clean);
  const look = lookOf(file, dict);
  const isLookKept = prints === undefined || (look !== undefined && isPrintOf(prints.look, look));
  if (isLookKept && prints && isPrintOf(prints.entries, bytesOf(standardText(dict))))
    return annotation;
  const [toUser, toPage] = [pageToUser(page.box), userToPage(page.box)];
  const standard = standardOf(annotation, toUser);
  // The rectangle as it was written is compared with: this version might work out another one.
  const written = prints ? { ...standard, Rect: [...prints.rect] } : standard;
  const differs = (key: string): boolean =>
    !saysSame(file, dict.get(key), written[key] ?? null, COLORS.has(key) ? FINE : undefined);
  const comparison = {
    file,
    annotation,
    dict,
    written,
    toPage,
    toUser,
    clean,
    differs,
    movedWithLook:
      prints && isLookKept ? movedRect(file, dict, written, toUser, toPage) : undefined,
  };
  const common = commonFields(comparison, prints !== undefined);
  const own = byKind(comparison);
  if (!own) return undefined;
  const isChanged = common.isChanged || own !== annotation;
  // Somebody has given it another look and nothing else: that look is what is meant.
  if (!isChanged && !isLookKept && dict.get('AP') !== null) return undefined;
  return isChanged ? ({ ...own, ...common.fields } as Own) : annotation;
}

/** Entries whose numbers are shares of 1, and how near two of them are the same. */
const COLORS = new Set(['C', 'CA', 'IC']);
const FINE = 0.002;

/** Whether its words have looks, of which /Contents tells only the words. */
const isTyped = ({ kind }: Own): boolean =>
  kind === 'textBox' || kind === 'note' || kind === 'reply';

/** What all kinds have. Older files say nothing of locks in their flags. */
function commonFields(
  { file, annotation, dict, differs, clean }: Comparison,
  saysLocks: boolean,
): { fields: object; isChanged: boolean } {
  const fields: Record<string, unknown> = {};
  if (differs('T')) fields['author'] = clean.text(textOf(file.resolve(dict.get('T'))), 200);
  if (differs('CA'))
    fields['opacity'] = Math.min(1, Math.max(0, numberOr(file.resolve(dict.get('CA'))) ?? 1));
  // Of text, /C is what lies behind it.
  if ('color' in annotation && annotation.kind !== 'textBox' && differs('C')) {
    const color = colorOf(file, dict);
    // Table 164: no components, no colour.
    if (color) fields['color'] = color;
    else fields['opacity'] = 0;
  }
  if (differs('Contents') && !isTyped(annotation))
    fields['remark' in annotation ? 'remark' : 'contents'] = clean.text(
      textOf(file.resolve(dict.get('Contents'))),
      100_000,
    );
  if (differs('CreationDate')) {
    const created = instantOf(file.resolve(dict.get('CreationDate')));
    if (created) fields['created'] = created;
  }
  if (isHidden(file, dict) !== (annotation.hidden ?? false))
    fields['hidden'] = isHidden(file, dict);
  if (saysLocks && isLocked(file, dict) !== (annotation.locked ?? false))
    fields['locked'] = isLocked(file, dict);
  const isDated = differs('M');
  const modified = isDated ? instantOf(file.resolve(dict.get('M'))) : undefined;
  if (modified) fields['modified'] = modified;
  return { fields, isChanged: isDated || Object.keys(fields).length > 0 };
}

function byKind(comparison: Comparison): Own | undefined {
  const { annotation } = comparison;
  switch (annotation.kind) {
    case 'ink':
      return inkAsTheFileHasIt({ ...comparison, annotation });
    case 'shape':
      return shapeAsTheFileHasIt({ ...comparison, annotation });
    case 'picture':
      return pictureAsTheFileHasIt({ ...comparison, annotation });
    case 'textBox':
      return textAsTheFileHasIt({ ...comparison, annotation });
    case 'note':
      return noteAsTheFileHasIt({ ...comparison, annotation });
    case 'reply':
      return replyAsTheFileHasIt({ ...comparison, annotation });
    case 'highlight':
    case 'underline':
    case 'strikeout':
      return markupAsTheFileHasIt({ ...comparison, annotation });
    case 'link':
      return annotation;
  }
}

/** Where the rectangle of an annotation went, in page space. */
function movedRect(
  file: PdfFile,
  dict: PdfDict,
  written: Readonly<Record<string, PdfValue>>,
  toUser: Matrix,
  toPage: Matrix,
): Matrix | undefined {
  const [before, now] = [readBox(file, written['Rect']), readBox(file, dict.get('Rect'))];
  if (!before || !now || saysSame(file, dict.get('Rect'), written['Rect'])) return undefined;
  const map = boxMap(before, now);
  return map && compose(toUser, compose(map, toPage));
}

/** Ink keeps its pressure where its way is the same, moved, turned or enlarged. */
function inkAsTheFileHasIt(comparison: Comparison<Ink>): Ink | undefined {
  const { file, annotation, dict, written, toPage, differs, movedWithLook } = comparison;
  if (differs('Subtype')) return undefined;
  let ink = annotation;
  if (differs('InkList')) {
    const lists = file.array(dict.get('InkList'));
    // Several strokes in one: there is no such ink here.
    if (lists.length !== 1) return undefined;
    const now = pointsOf(numbersOf(file, lists[0]), toPage);
    if (!isWayOf(annotation, now)) {
      const before = pointsOf((written['InkList'] as number[][])[0], toPage);
      const map = mapBetween(before, now);
      ink = map ? movedBy(ink, map) : drawnAnew(ink, now);
    }
  } else if (movedWithLook) ink = movedBy(ink, movedWithLook);
  if (!differs('BS')) return ink;
  const scale = ink.transform ? scaleOf(ink.transform) : 1;
  return { ...ink, width: Math.min(200, lineWidth(file, dict) / scale) };
}

/** How far a way that is written may be from the pen's, in points: versions have left out more or fewer points. */
const SAME_WAY = 0.15;

/** Whether points are the way of the pen, with fewer of them (page space). */
function isWayOf(ink: Ink, way: readonly Point[]): boolean {
  const map: Matrix = ink.transform ?? identity;
  const { x, y } = samplesFromBase64(ink.samples);
  const own = Array.from(x, (value, i) => transform(map, { x: value, y: y[i] }));
  return areNear(way, own) && areNear(own, way);
}

const areNear = (points: readonly Point[], line: readonly Point[]): boolean =>
  line.length > 0 &&
  points.every((p) => line.some((a, i) => distanceToSegment(p, a, line[i + 1] ?? a) <= SAME_WAY));

/** Ink along another way: nothing is known of its pressure. */
function drawnAnew({ transform: _, ...ink }: Ink, way: readonly Point[]): Ink {
  const samples = samplesOf(
    way.map(({ x, y }, i) => ({ x, y, pressure: 0.5, tiltX: 0, tiltY: 0, time: 8 * i })),
  );
  return { ...ink, smoothing: 0, samples: samplesToBase64(samples) };
}

function pictureAsTheFileHasIt({
  annotation,
  differs,
  movedWithLook,
}: Comparison<Picture>): Picture | undefined {
  if (differs('Subtype')) return undefined;
  return movedWithLook ? movedBy(annotation, movedWithLook) : annotation;
}

function markupAsTheFileHasIt(comparison: Comparison<Markup>): Markup | undefined {
  const { file, annotation, dict, toPage, differs, movedWithLook } = comparison;
  const subtype = subtypeOf(file, dict);
  const kind = (['highlight', 'underline', 'strikeout'] as const).find(
    (one) => SUBTYPES[one] === subtype,
  );
  if (!kind) return undefined;
  const mark = kind === annotation.kind ? annotation : { ...annotation, kind };
  if (differs('QuadPoints')) {
    const quads = quadsOf(numbersOf(file, dict.get('QuadPoints')), toPage);
    return quads.length > 0 ? { ...mark, quads } : undefined;
  }
  return movedWithLook ? movedBy(mark, movedWithLook) : mark;
}
