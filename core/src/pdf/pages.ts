import { intersect, type Box, type Matrix } from '../geometry/index';
import { LIMITS, PdfLimitError } from './limits';
import {
  PdfDict,
  PdfRef,
  PdfSyntaxError,
  nameText,
  numberOr,
  type PdfFile,
  type PdfValue,
} from './objects/index';

/** Clockwise turn at which a page is shown, in degrees. */
export type Rotation = 0 | 90 | 180 | 270;

/** A page as it stands in a file. */
export interface PdfPage {
  readonly ref: PdfRef;
  readonly dict: PdfDict;
  /** The visible box, CropBox ∩ MediaBox (ISO 32000-1, 14.11.2), in default user space. */
  readonly box: Box;
  readonly rotation: Rotation;
  /** The inherited or own resources. */
  readonly resources: PdfValue;
  /** All attributes it inherits or has itself, of those that can be inherited. */
  readonly attributes: PdfDict;
}

/** How far from its origin a page may lie, and how long its sides may be, in points; annex C.2 has 14,400 for these. */
const FARTHEST = 1_000_000;
const LONGEST_SIDE = 100_000;

/** Entries that pages inherit from the nodes above them (table 30). */
export const inheritable = ['MediaBox', 'CropBox', 'Rotate', 'Resources'] as const;

const LETTER: Box = { x0: 0, y0: 0, x1: 612, y1: 792 };

/**
 * All pages in order, with inherited attributes (7.7.3.4). Throws PdfSyntaxError for a broken tree, and
 * PdfLimitError for more pages than are taken.
 */
export function readPages(file: PdfFile): PdfPage[] {
  const pages: PdfPage[] = [];
  const visited = new Set<number>();
  const stack: { ref: PdfValue; inherited: PdfDict }[] = [
    { ref: file.catalog.get('Pages'), inherited: new PdfDict() },
  ];
  while (stack.length > 0) {
    const { ref, inherited } = stack.pop()!;
    if (!(ref instanceof PdfRef)) throw new PdfSyntaxError('a page is not an indirect object');
    if (visited.has(ref.object)) throw new PdfSyntaxError('the page tree goes round in a circle');
    visited.add(ref.object);
    const node = file.resolve(ref);
    if (!(node instanceof PdfDict))
      throw new PdfSyntaxError(`page object ${ref.object} is missing`);
    const attributes = inherit(node, inherited);
    if (node.get('Kids') !== null && nameText(file.resolve(node.get('Type'))) !== 'Page') {
      const kids = file.array(node.get('Kids'));
      for (let i = kids.length - 1; i >= 0; i--)
        stack.push({ ref: kids[i], inherited: attributes });
    } else {
      if (pages.length >= LIMITS.pages) throw new PdfLimitError('pages');
      pages.push({
        ref,
        dict: node,
        box: visibleBox(file, attributes),
        rotation: rotationOf(file.resolve(attributes.get('Rotate'))),
        resources: attributes.get('Resources'),
        attributes,
      });
    }
  }
  return pages;
}

/** From page space (origin at the visible box's top left, y down) to default user space. */
export function pageToUser(box: Box): Matrix {
  return [1, 0, 0, -1, box.x0, box.y1];
}

/** From default user space to page space. */
export function userToPage(box: Box): Matrix {
  return [1, 0, 0, -1, -box.x0, box.y1];
}

/** A rectangle (7.9.5) with its corners put in order, or undefined when it is none. */
export function readBox(file: PdfFile, value: PdfValue): Box | undefined {
  const numbers = file.array(value).map((item) => numberOr(file.resolve(item)));
  if (numbers.length < 4 || numbers.slice(0, 4).some((n) => n === undefined)) return undefined;
  const [a, b, c, d] = numbers as number[];
  return { x0: Math.min(a, c), y0: Math.min(b, d), x1: Math.max(a, c), y1: Math.max(b, d) };
}

function inherit(node: PdfDict, from: PdfDict): PdfDict {
  const entries = new Map(from.entries);
  for (const key of inheritable) {
    const own = node.get(key);
    if (own !== null) entries.set(key, own);
  }
  return new PdfDict(entries);
}

function visibleBox(file: PdfFile, attributes: PdfDict): Box {
  const usable = (box: Box | undefined): box is Box =>
    box !== undefined && box.x1 > box.x0 && box.y1 > box.y0;
  const media = bounded(readBox(file, attributes.get('MediaBox')));
  const sheet = usable(media) ? media : LETTER;
  const crop = readBox(file, attributes.get('CropBox'));
  const visible = crop && intersect(crop, sheet);
  return usable(visible) ? visible : sheet;
}

/** As much of a box as can be a page. */
function bounded(box: Box | undefined): Box | undefined {
  if (!box) return undefined;
  const within = (value: number): number => Math.min(FARTHEST, Math.max(-FARTHEST, value));
  const [x0, y0] = [within(box.x0), within(box.y0)];
  return {
    x0,
    y0,
    x1: Math.min(within(box.x1), x0 + LONGEST_SIDE),
    y1: Math.min(within(box.y1), y0 + LONGEST_SIDE),
  };
}

function rotationOf(value: PdfValue): Rotation {
  const turns = Math.round((numberOr(value) ?? 0) / 90);
  return ((((turns % 4) + 4) % 4) * 90) as Rotation;
}
