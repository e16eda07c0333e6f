import type { Look, Paragraph } from '../typed/index';
import { breaksOf, type BreakAt } from './breaks';
import type { Engine, Shaped } from './engine';
import { itemize, type Item, type Itemized } from './items';

/** What raised and lowered letters are like: shares of the size (common practice, no source). */
const SCRIPTS = {
  super: { size: 0.62, up: 0.36 },
  sub: { size: 0.62, up: -0.16 },
};

/** The size that letters of a look are drawn in, and how far above the line, in points. */
export function drawnSize({ size, script }: Look): { readonly size: number; readonly up: number } {
  if (!script) return { size, up: 0 };
  return { size: size * SCRIPTS[script].size, up: size * SCRIPTS[script].up };
}

/** A paragraph whose letters have become glyphs, before it is known how wide its lines are. */
export class ShapedParagraph {
  readonly itemized: Itemized;
  readonly shaped: readonly Shaped[];
  readonly breaks: readonly BreakAt[];
  /** The widths of all that stands before each UTF-16 unit, in points; tabs have none. */
  private readonly sums: Float64Array;
  readonly hasTabs: boolean;

  constructor(
    private readonly engine: Engine,
    paragraph: Paragraph,
    base: Look,
  ) {
    this.itemized = itemize(paragraph, base);
    const { text, items } = this.itemized;
    this.shaped = items.map((item) => this.shape(item, item.from, item.to));
    this.breaks = text === '' ? [] : breaksOf(text);
    this.hasTabs = items.some(({ isTab }) => isTab);
    this.sums = new Float64Array(text.length + 1);
    items.forEach(({ look, isTab, formula, from }, i) => {
      if (isTab) return;
      if (formula !== undefined) {
        this.sums[from + 1] += engine.formula(formula).width * drawnSize(look).size;
        return;
      }
      const { clusters, advances } = this.shaped[i];
      const { size } = drawnSize(look);
      for (let glyph = 0; glyph < clusters.length; glyph++)
        this.sums[clusters[glyph] + 1] += advances[glyph] * size;
    });
    for (let i = 1; i <= text.length; i++) this.sums[i] += this.sums[i - 1];
  }

  get text(): string {
    return this.itemized.text;
  }

  get items(): readonly Item[] {
    return this.itemized.items;
  }

  /** How wide a part is that has no tabs in it, in points. */
  width(from: number, to: number): number {
    return this.sums[to] - this.sums[from];
  }

  /** Where a line has to end that begins somewhere and has so much room, letter by letter: after one of them at the least. */
  fitting(from: number, room: number): number {
    let to = from + 1;
    while (to < this.text.length && this.width(from, to + 1) <= room) to++;
    return this.letterStart(to, from);
  }

  /** The glyphs of a part of an item: some of those it has, or shaped anew where parting changes them. */
  part(index: number, from: number, to: number): Shaped {
    const item = this.items[index];
    const whole = this.shaped[index];
    if (from === item.from && to === item.to) return whole;
    if (!this.isSafe(whole, item, from) || !this.isSafe(whole, item, to))
      return this.shape(item, from, to);
    const { clusters } = whole;
    let first = 0;
    while (first < clusters.length && (clusters[first] < from || clusters[first] >= to)) first++;
    let end = first;
    while (end < clusters.length && clusters[end] >= from && clusters[end] < to) end++;
    return {
      glyphs: whole.glyphs.subarray(first, end),
      clusters: clusters.subarray(first, end),
      advances: whole.advances.subarray(first, end),
      right: whole.right.subarray(first, end),
      up: whole.up.subarray(first, end),
      isSafe: whole.isSafe.subarray(first, end),
    };
  }

  private shape(item: Item, from: number, to: number): Shaped {
    if (item.isTab || item.formula !== undefined) return NOTHING;
    const { face, level, script } = item;
    const piece = { face: face.id, from, to, isRightToLeft: level % 2 === 1, script };
    return this.engine.shape(this.text, piece);
  }

  /** Whether glyphs stay as they are where an item is parted before a UTF-16 unit. */
  private isSafe({ clusters, isSafe }: Shaped, item: Item, at: number): boolean {
    if (at === item.from || at === item.to) return true;
    const glyph = clusters.indexOf(at);
    return glyph >= 0 && isSafe[glyph] === 1;
  }

  /** The beginning of the letter (with its marks) that a UTF-16 unit is in; the end of the first one after `after` if there is none between. */
  private letterStart(at: number, after: number): number {
    if (at >= this.text.length) return this.text.length;
    const letters = [...graphemes.segment(this.text.slice(after, at + 32))];
    const ends = letters.map(({ index, segment }) => after + index + segment.length);
    return ends.findLast((end) => end <= at) ?? ends[0];
  }
}

const graphemes = new Intl.Segmenter('und', { granularity: 'grapheme' });

const NOTHING: Shaped = {
  glyphs: new Uint16Array(0),
  clusters: new Uint32Array(0),
  advances: new Float64Array(0),
  right: new Float64Array(0),
  up: new Float64Array(0),
  isSafe: new Uint8Array(0),
};
