import {
  Numbering,
  faceOf,
  markerOf,
  type Body,
  type Face,
  type Look,
  type Paragraph,
} from '../typed/index';
import { visualOrder } from './directions';
import type { Engine } from './engine';
import type { Item } from './items';
import { fill, tabStops, type Extent, type TabStop } from './lines';
import { drawnSize, ShapedParagraph } from './shaped-paragraph';
import type { GlyphRun, Line, TextLayout } from './text-layout';

/** Distance of tab stops where none are set, and what a level of indent is: multiples of the text's size. */
const TAB = 3;
const INDENT = 1.75;
/** Between what marks a paragraph of a list and its words. */
const MARKER_GAP = 0.5;

interface LaidParagraph {
  readonly lines: readonly Omit<Line, 'paragraph'>[];
  readonly height: number;
  /** Its lines where they stood last: most of a long text stays where it is while one types. */
  placed?: { readonly paragraph: number; readonly y: number; readonly lines: readonly Line[] };
}

/** What the text looks like that has no look of its own, and that as text, to tell whether it is another. */
interface Base {
  readonly look: Look;
  readonly key: string;
}

/**
 * Lays typed text out. What was worked out of a paragraph is kept as long as that lives, so that what changes is laid out
 * anew and nothing else.
 */
export class Typesetter {
  private readonly shaped = new WeakMap<Paragraph, { base: string; shaped: ShapedParagraph }>();
  private readonly natural = new WeakMap<ShapedParagraph, number>();
  private readonly laid = new WeakMap<ShapedParagraph, { key: string; laid: LaidParagraph }>();

  /** `engine` must have the faces of all that is laid out (`facesIn`). */
  constructor(readonly engine: Engine) {}

  /** Lays a body out in lines that are so wide; as wide as its paragraphs are where nothing is said. */
  layout({ look, paragraphs }: Body, width?: number): TextLayout {
    const numbering = new Numbering();
    const base = { look, key: JSON.stringify(look) };
    const measured =
      width ?? paragraphs.reduce((most, one) => Math.max(most, this.naturalWidth(one, base)), 0);
    const lines: Line[] = [];
    let y = 0;
    paragraphs.forEach((paragraph, i) => {
      const laid = this.laidOut(paragraph, base, numbering.next(paragraph), measured);
      // Nothing stands above the first, so that it lies where the text begins.
      if (i > 0) y += paragraph.before ?? 0;
      for (const line of placed(laid, i, y)) lines.push(line);
      y += laid.height;
      if (i < paragraphs.length - 1) y += paragraph.after ?? 0;
    });
    return { lines, width: measured, height: y };
  }

  /** How wide a paragraph is where no line has to end. */
  private naturalWidth(paragraph: Paragraph, base: Base): number {
    const shaped = this.shapedOf(paragraph, base);
    let width = this.natural.get(shaped);
    if (width === undefined) {
      const extents = fill(shaped, Infinity, tabsOf(paragraph, base.look));
      width = edgeOf(paragraph, base.look) + Math.max(...extents.map((extent) => extent.width));
      this.natural.set(shaped, width);
    }
    return width;
  }

  private laidOut(
    paragraph: Paragraph,
    base: Base,
    number: number | undefined,
    width: number,
  ): LaidParagraph {
    const shaped = this.shapedOf(paragraph, base);
    const key = `${width} ${number}`;
    const before = this.laid.get(shaped);
    if (before?.key === key) return before.laid;
    const laid = this.layParagraph(shaped, paragraph, base, number, width);
    this.laid.set(shaped, { key, laid });
    return laid;
  }

  private layParagraph(
    shaped: ShapedParagraph,
    paragraph: Paragraph,
    base: Base,
    number: number | undefined,
    width: number,
  ): LaidParagraph {
    const { look } = base;
    // Where there is no room for the indent, half of it is left for words.
    const wanted = edgeOf(paragraph, look);
    const hasRoom = this.naturalWidth(paragraph, base) <= width;
    const edge = hasRoom ? wanted : Math.min(wanted, width / 2);
    const room = Math.max(look.size, width - edge);
    const tabs = tabsOf(paragraph, look);
    const extents = fill(shaped, room, tabs);
    const lines: Omit<Line, 'paragraph'>[] = [];
    let top = 0;
    for (const extent of extents) {
      const line = this.line(shaped, paragraph, look, extent, { edge, room, top, tabs });
      const isFirst = lines.length === 0;
      const isFromRight = shaped.itemized.directions.base === 1;
      const marker =
        isFirst && paragraph.list
          ? this.marker(paragraph, look, number, line.baseline, {
              at: isFromRight ? width - edge : edge,
              isFromRight,
            })
          : undefined;
      lines.push({ ...line, marker });
      top += line.height;
    }
    return { lines, height: top };
  }

  private shapedOf(paragraph: Paragraph, { look, key }: Base): ShapedParagraph {
    const before = this.shaped.get(paragraph);
    if (before && before.base === key) return before.shaped;
    const shaped = new ShapedParagraph(this.engine, paragraph, look);
    this.shaped.set(paragraph, { base: key, shaped });
    return shaped;
  }

  private line(
    shaped: ShapedParagraph,
    paragraph: Paragraph,
    base: Look,
    extent: Extent,
    { edge, room, top, tabs }: { edge: number; room: number; top: number; tabs: TabStop },
  ): Omit<Line, 'paragraph'> {
    const { directions, text } = shaped.itemized;
    const isFromRight = directions.base === 1;
    const parts = partsOf(shaped, extent);
    const looks = parts.length > 0 ? parts.map((part) => shaped.items[part.item]) : undefined;
    const heights = this.heights(looks ?? [{ look: base, face: faceOfLook(base) }]);
    const natural = heights.ascent + heights.descent + heights.gap;
    const height = natural * (paragraph.lines ?? 1);
    const baseline = top + (height - heights.ascent - heights.descent) / 2 + heights.ascent;
    const spare = room - extent.width;
    const spaces = countSpaces(text, extent);
    const isStretched = paragraph.align === 'justify' && !extent.isLast && spaces > 0;
    const stretch = isStretched ? spare / spaces : 0;
    const share = isStretched ? 0 : shareBefore(paragraph.align, isFromRight);
    // Indents are on the side where lines begin.
    const x = (isFromRight ? 0 : edge) + spare * share;
    const runs: GlyphRun[] = [];
    let at = x;
    for (const i of visualOrder(parts.map(({ level }) => level))) {
      const { item, from, to, level } = parts[i];
      const { look, face, isTab, formula: source } = shaped.items[item];
      const { size, up } = drawnSize(look);
      const glyphs = shaped.part(item, from, to);
      const formula = source === undefined ? undefined : this.engine.formula(source);
      let width = isTab ? tabs(at - x) - (at - x) : (formula?.width ?? sum(glyphs.advances)) * size;
      if (stretch > 0)
        width += stretch * countSpaces(text, { from, end: Math.min(to, extent.end) });
      const run = { face, look, size, shaped: glyphs, x: at, y: baseline - up, width, stretch };
      const place = { isRightToLeft: level % 2 === 1, from, to, text: text.slice(from, to) };
      runs.push({ ...run, ...place, ...(formula ? { formula } : {}) });
      at += width;
    }
    // Spaces at the end of a line that runs from the right stand at its left, over the edge.
    const hanging = isFromRight ? runs.filter(({ from }) => from >= extent.end) : [];
    const over = hanging.reduce((all, { width }) => all + width, 0);
    return {
      from: extent.from,
      to: extent.to,
      x,
      width: isStretched ? room : extent.width,
      top,
      height,
      baseline,
      runs: over > 0 ? runs.map((run) => ({ ...run, x: run.x - over })) : runs,
      marker: undefined,
    };
  }

  /** What marks a paragraph of a list, in the room before its first line, which begins at `at`. */
  private marker(
    paragraph: Paragraph,
    base: Look,
    number: number | undefined,
    baseline: number,
    { at, isFromRight }: { at: number; isFromRight: boolean },
  ): Line['marker'] {
    const text = markerOf(paragraph, number);
    const look = { ...base, ...paragraph.runs[0]?.look, underline: false, strike: false };
    const shaped = new ShapedParagraph(this.engine, { runs: [{ text }] }, look);
    const gap = MARKER_GAP * base.size;
    let x = isFromRight ? at + gap : at - gap - shaped.width(0, text.length);
    const runs = shaped.items.map(({ face, look: own, level, from, to }, i): GlyphRun => {
      const glyphs = shaped.shaped[i];
      const run = { face, look: own, size: own.size, shaped: glyphs, x, y: baseline };
      const wide = sum(glyphs.advances) * own.size;
      x += wide;
      const words = text.slice(from, to);
      return {
        ...run,
        width: wide,
        stretch: 0,
        isRightToLeft: level % 2 === 1,
        from,
        to,
        text: words,
      };
    });
    return { text, runs };
  }

  private heights(parts: readonly Pick<Item, 'look' | 'face' | 'formula'>[]) {
    const all = parts.map(({ look, face, formula }) => {
      const { ascent, descent, gap } = this.engine.metrics(face.id);
      const letters = {
        ascent: ascent * look.size,
        descent: descent * look.size,
        gap: gap * look.size,
      };
      if (formula === undefined) return letters;
      const own = this.engine.formula(formula);
      const { size, up } = drawnSize(look);
      // A formula that is higher than its line leaves the room between lines free.
      return {
        ascent: Math.max(letters.ascent, own.ascent * size + up),
        descent: Math.max(letters.descent, own.descent * size - up),
        gap: letters.gap,
      };
    });
    return {
      ascent: Math.max(...all.map(({ ascent }) => ascent)),
      descent: Math.max(...all.map(({ descent }) => descent)),
      gap: Math.max(...all.map(({ gap }) => gap)),
    };
  }
}

/** How far from its edge a paragraph begins, and where its tabs lead. */
const edgeOf = ({ indent = 0, list }: Paragraph, { size }: Look): number =>
  (indent + (list ? 1 : 0)) * INDENT * size;
const tabsOf = ({ tabs = [] }: Paragraph, { size }: Look): TabStop => tabStops(tabs, TAB * size);

const faceOfLook = ({ font, bold, italic }: Look): Face =>
  faceOf(font, bold ?? false, italic ?? false);

interface Part {
  readonly item: number;
  readonly from: number;
  readonly to: number;
  readonly level: number;
}

/** The parts of items on a line, as they are read; spaces at its end go with the paragraph's direction (UAX #9, L1). */
function partsOf({ items, itemized }: ShapedParagraph, { from, end, to }: Extent): Part[] {
  const parts: Part[] = [];
  const add = (item: number, a: number, b: number, level: number): void => {
    if (b > a) parts.push({ item, from: a, to: b, level });
  };
  items.forEach((item, i) => {
    if (item.to <= from || item.from >= to) return;
    const [a, b] = [Math.max(item.from, from), Math.min(item.to, to)];
    add(i, a, Math.min(b, end), item.level);
    add(i, Math.max(a, end), b, itemized.directions.base);
  });
  return parts;
}

/** The share of what is left of a line that stands at its left. */
function shareBefore(align: Paragraph['align'], isFromRight: boolean): number {
  if (align === 'center') return 0.5;
  return (align === 'end') === isFromRight ? 0 : 1;
}

/** The lines of a paragraph as the so-manieth, from a height on. */
function placed(laid: LaidParagraph, paragraph: number, y: number): readonly Line[] {
  if (laid.placed?.paragraph !== paragraph || laid.placed.y !== y)
    laid.placed = {
      paragraph,
      y,
      lines: laid.lines.map((line) => ({ ...moved(line, y), paragraph })),
    };
  return laid.placed.lines;
}

const moved = (line: Omit<Line, 'paragraph'>, down: number): Omit<Line, 'paragraph'> => {
  if (down === 0) return line;
  const lower = (run: GlyphRun): GlyphRun => ({ ...run, y: run.y + down });
  return {
    ...line,
    top: line.top + down,
    baseline: line.baseline + down,
    runs: line.runs.map(lower),
    marker: line.marker && { ...line.marker, runs: line.marker.runs.map(lower) },
  };
};

function countSpaces(text: string, { from, end }: Pick<Extent, 'from' | 'end'>): number {
  let spaces = 0;
  for (let i = from; i < end; i++) if (text[i] === ' ') spaces++;
  return spaces;
}

function sum(values: Float64Array): number {
  let all = 0;
  for (let i = 0; i < values.length; i++) all += values[i];
  return all;
}
