import {
  isMarkup,
  scaleOf,
  type Annotation,
  type Ink,
  type Link,
  type Markup,
  type Note,
  type Picture,
  type Reply,
  type ShapeAnnotation,
  type TextBox,
} from '../../document/index';
import {
  boundsOf,
  compose,
  grow,
  straightened,
  transform,
  unite,
  type Box,
  type Matrix,
  type Point,
} from '../../geometry/index';
import { encodeSamples, polygonBounds, samplesFromBase64, type Samples } from '../../ink/index';
import { coveredBy, paint, rgbOf, type PaintCommand } from '../../paint/index';
import { UNIT, contentOf, type Content } from '../content-stream';
import { PdfDict, name, pdfDate, textString, type PdfValue } from '../objects/index';
import { flagsOf } from './entries';
import { OWN_KEY } from './kinds';
import { ownCopyEntry, type Prints } from './own-copy';
import type { PlacedById } from '../landmarks/write-outline';
import { linkEntries, linkRect } from './link-entries';
import { noteEntries } from './note-entries';
import { shapeEntries } from './shape-entries';
import { textEntries } from './text-entries';
import type { TypeTools } from '../type/index';

/** Annotations that Stylet draws itself. */
export type OwnAnnotation = Ink | ShapeAnnotation | Markup | Picture | TextBox | Note | Reply;
/** Annotations that Stylet writes. */
export type WritableAnnotation = OwnAnnotation | Link;

export const SUBTYPES = {
  highlight: 'Highlight',
  underline: 'Underline',
  strikeout: 'StrikeOut',
} as const;

/** An annotation as it stands in a file, but for the references to its page and its appearance. */
export interface WrittenAnnotation {
  /** The standard entries of its dictionary (ISO 32000-1, 12.5), without those two. */
  readonly standard: Record<string, PdfValue>;
  /** What its appearance draws, in default user space, and the box around that. */
  readonly content: Content;
  readonly box: Box;
}

/**
 * Writes an annotation for pages whose space `toUser` maps to their default user space; `tools` are needed for text,
 * `near` is where something lies that shows nothing.
 */
export function writeAnnotation(
  annotation: OwnAnnotation,
  toUser: Matrix,
  tools?: TypeTools,
  near?: Box,
): WrittenAnnotation {
  const commands = paint(annotation, 'whole');
  const box = near ?? boxAround(annotation, commands, toUser);
  const content = contentOf(commands, toUser, { x: box.x0, y: box.y0 }, tools);
  return { content, box, standard: standardEntries(annotation, toUser, box) };
}

/** The standard entries that an annotation is written with, where nothing is asked of how it is drawn. */
export const standardOf = (annotation: OwnAnnotation, toUser: Matrix): Record<string, PdfValue> =>
  standardEntries(annotation, toUser, boxAround(annotation, paint(annotation, 'whole'), toUser));

/** The rectangle of an annotation, in default user space. */
export const rectOf = (annotation: OwnAnnotation, toUser: Matrix): Box =>
  boxAround(annotation, paint(annotation, 'whole'), toUser);

const standardEntries = (
  annotation: OwnAnnotation,
  toUser: Matrix,
  box: Box,
): Record<string, PdfValue> =>
  present({
    ...commonEntries(annotation, box),
    C: 'color' in annotation ? [...rgbOf(annotation.color)] : undefined,
    CA: annotation.opacity,
    ...subtypeEntries(annotation, toUser, box),
  });

/** A link as a dictionary, without the reference to its page: it has no appearance. */
export function writeLink(
  link: Link,
  toUser: Matrix,
  placed: PlacedById,
): Record<string, PdfValue> {
  const box = linkRect(link, toUser);
  return {
    ...commonEntries(link, box),
    ...linkEntries(link, toUser, placed),
    [OWN_KEY]: ownCopy(link, toUser),
  };
}

/** Entries that all annotations have (table 164). */
function commonEntries(annotation: WritableAnnotation, box: Box): Record<string, PdfValue> {
  return {
    Type: name('Annot'),
    Rect: rectangle(box),
    NM: textString(annotation.id),
    M: pdfDate(annotation.modified),
    CreationDate: pdfDate(annotation.created),
    T: textString(annotation.author),
    F: flagsOf(annotation),
  };
}

/** The copy that is kept with an annotation; `toUser` from the space it is in. */
export function ownCopy(annotation: WritableAnnotation, toUser: Matrix, prints?: Prints): PdfDict {
  const { pageId: _page, order: _order, origin: _origin, ...fields } = annotation;
  const samples = 'samples' in fields ? fields.samples : undefined;
  return ownCopyEntry(
    { ...fields, samples: undefined },
    samples === undefined ? undefined : encodeSamples(samplesFromBase64(samples)),
    // Page space has its origin where the page's own has these coordinates.
    [toUser[4], toUser[5]],
    prints,
  );
}

/** The entries there are. */
const present = (entries: Record<string, PdfValue | undefined>): Record<string, PdfValue> =>
  Object.fromEntries(
    Object.entries(entries).filter((entry): entry is [string, PdfValue] => entry[1] !== undefined),
  );

function subtypeEntries(
  annotation: OwnAnnotation,
  toUser: Matrix,
  box: Box,
): Record<string, PdfValue | undefined> {
  switch (annotation.kind) {
    case 'ink':
      return { ...inkEntries(annotation, toUser), ...remarkOn(annotation) };
    case 'shape':
      return { ...shapeEntries(annotation, toUser, box), ...remarkOn(annotation) };
    case 'picture':
      // 12.5.6.12; the name of the icon says that it is none of the standard's.
      return {
        Subtype: name('Stamp'),
        Name: name('Picture'),
        Contents: textString(annotation.contents),
      };
    case 'textBox':
      return textEntries(annotation, toUser, box);
    case 'note':
    case 'reply':
      return noteEntries(annotation);
    case 'highlight':
    case 'underline':
    case 'strikeout':
      return markupEntries(annotation, toUser);
  }
}

const remarkOn = ({ contents }: Ink | ShapeAnnotation): Record<string, PdfValue> =>
  contents ? { Contents: textString(contents) } : {};

/** The box around what is painted, in default user space. */
function boxAround(
  annotation: OwnAnnotation,
  commands: readonly PaintCommand[],
  toUser: Matrix,
): Box {
  const bounds = commands.map((command) => polygonBounds(coveredBy(command)));
  const covered = boundsOf(
    bounds.flatMap((b) =>
      b ? [userPoint(toUser, b.x0, b.y0), userPoint(toUser, b.x1, b.y1)] : [],
    ),
  );
  // Table 179: the areas of marks on text lie in the rectangle, also where nothing is drawn.
  const areas = isMarkup(annotation) ? boundsOf(cornersOf(annotation, toUser)) : undefined;
  const drawn = covered && areas ? unite(covered, areas) : (covered ?? areas);
  return inWholeUnits(grow(drawn ?? { x0: 0, y0: 0, x1: 0, y1: 0 }, 1));
}

/** A box enlarged to a corner that is written as it is, and to whole units of what is drawn from there. */
function inWholeUnits(box: Box): Box {
  const [x0, y0] = [Math.floor(box.x0 * 100) / 100, Math.floor(box.y0 * 100) / 100];
  const whole = (length: number): number => Math.ceil(length / UNIT) * UNIT;
  return { x0, y0, x1: x0 + whole(box.x1 - x0), y1: y0 + whole(box.y1 - y0) };
}

function inkEntries(ink: Ink, toUser: Matrix): Record<string, PdfValue> {
  return {
    Subtype: name('Ink'),
    InkList: [
      inkList(
        samplesFromBase64(ink.samples),
        ink.transform ? compose(ink.transform, toUser) : toUser,
      ),
    ],
    BS: PdfDict.of({
      Type: name('Border'),
      W: round(ink.width * (ink.transform ? scaleOf(ink.transform) : 1)),
      S: name('S'),
    }),
  };
}

/** How far, in points, the way that is written for other programs may be from the pen's. */
const WAY_TOLERANCE = 0.08;
/** Its coordinates are whole numbers of this many points. */
const WAY_UNIT = 0.05;

/** The way of the pen, x and y in turn (12.5.6.13). */
function inkList(samples: Samples, toUser: Matrix): number[] {
  const way = new Float64Array(2 * samples.length);
  for (let i = 0; i < samples.length; i++) {
    const p = userPoint(toUser, samples.x[i], samples.y[i]);
    way[2 * i] = p.x;
    way[2 * i + 1] = p.y;
  }
  return straightened(way, WAY_TOLERANCE).map((value) =>
    round(Math.round(value / WAY_UNIT) * WAY_UNIT),
  );
}

/**
 * Text markup (12.5.6.10). The corners go in reading order, top before bottom: what viewers
 * draw, though the clause's figure says otherwise (common practice, no source).
 */
function markupEntries(markup: Markup, toUser: Matrix): Record<string, PdfValue> {
  return {
    Subtype: name(SUBTYPES[markup.kind]),
    QuadPoints: cornersOf(markup, toUser).flatMap(({ x, y }) => [round(x), round(y)]),
    Contents: textString(markup.remark ?? markup.contents),
  };
}

const cornersOf = ({ quads }: Markup, toUser: Matrix): Point[] =>
  quads.flatMap((quad) => [0, 2, 4, 6].map((i) => userPoint(toUser, quad[i], quad[i + 1])));

/** Whether the annotation is still as it was imported, so that the file's own object stands. */
export function isUntouched(annotation: Annotation): boolean {
  return annotation.origin !== undefined && annotation.origin.modified === annotation.modified;
}

const round = (value: number): number => Math.round(value * 100) / 100;
const userPoint = (toUser: Matrix, x: number, y: number): Point => transform(toUser, { x, y });
/** A box as an array (7.9.5). */
export const rectangle = (box: Box): number[] => [box.x0, box.y0, box.x1, box.y1].map(round);
