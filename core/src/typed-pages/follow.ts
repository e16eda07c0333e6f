import {
  isMarkup,
  transformedFields,
  changed,
  type Annotation,
  type Markup,
  type Quad,
} from '../document/index';
import type { Box, Point } from '../geometry/index';
import type { PlacedPicture, TypedPages } from './page-of-text';
import { lineAt, lineOf, offsetAt, pictureAt, textAt, xOf, type PlaceInText } from './places';
import type { TypedText } from './text';

/** A text and its pages. */
export interface LaidText {
  readonly text: TypedText;
  readonly pages: TypedPages;
}

/** Where something is on pages of text: the page, counted from 0, and a point of it. */
export interface OnPage {
  readonly page: number;
  readonly at: Point;
}

/** Has what lies on typed pages go where the words go that it was put on. */
export class Following {
  private readonly blocks: ReadonlyMap<string, number>;

  constructor(
    private readonly before: LaidText,
    private readonly after: LaidText,
  ) {
    this.blocks = new Map(after.text.blocks.flatMap(({ id }, i) => (id ? [[id, i]] : [])));
  }

  /** Where a point goes; what is beside the words goes up and down with them only. Undefined where there are no words. */
  moved({ page, at }: OnPage): OnPage | undefined {
    const sheet = this.before.pages.pages.at(page);
    const picture = sheet && pictureAt(sheet, at);
    if (picture) return this.withPicture(picture, at);
    const near = sheet && lineAt(sheet, at);
    if (!near) return undefined;
    const { portion, line } = near;
    const isBeside = at.x < portion.x + line.x || at.x > portion.x + line.x + line.width;
    const offset = isBeside ? line.from : offsetAt(line, at.x - portion.x);
    const now = this.placeOf({ owner: portion.owner, offset });
    const found = now && lineOf(this.after.pages, now);
    if (!found) return undefined;
    const right = isBeside
      ? 0
      : found.portion.x + xOf(found.line, now.offset) - (portion.x + xOf(line, offset));
    const down = found.portion.y + found.line.top - (portion.y + line.top);
    return { page: found.page, at: { x: at.x + right, y: at.y + down } };
  }

  /** What lies on a picture goes where that goes. */
  private withPicture({ block, box }: PlacedPicture, { x, y }: Point): OnPage | undefined {
    const now = this.blockNow(block);
    for (const [page, { pictures }] of this.after.pages.pages.entries())
      for (const { block: other, box: to } of pictures) {
        if (other !== now) continue;
        const scale = (to.x1 - to.x0) / (box.x1 - box.x0);
        return { page, at: { x: to.x0 + (x - box.x0) * scale, y: to.y0 + (y - box.y0) * scale } };
      }
    return undefined;
  }

  /** An annotation where it goes, `box` being what it covers; undefined where it stays as it is. */
  annotation(
    annotation: Annotation,
    page: number,
    box: Box,
  ): { readonly page: number; readonly annotation: Annotation } | undefined {
    if (isMarkup(annotation)) {
      const marked = this.mark(annotation, page);
      if (marked) return marked;
    }
    const at = { x: (box.x0 + box.x1) / 2, y: (box.y0 + box.y1) / 2 };
    const to = this.moved({ page, at });
    if (!to) return undefined;
    const [right, down] = [to.at.x - at.x, to.at.y - at.y];
    if (to.page === page && Math.abs(right) + Math.abs(down) < NEARLY) return undefined;
    const fields = transformedFields(annotation, [1, 0, 0, 1, right, down]);
    return fields && { page: to.page, annotation: changed(annotation, fields) };
  }

  /** A mark lies on the same words, on however many lines these are now; on those of one page. */
  private mark(
    mark: Markup,
    page: number,
  ): { readonly page: number; readonly annotation: Annotation } | undefined {
    const [first, last] = [mark.quads[0], mark.quads[mark.quads.length - 1]];
    const from = this.onLine(page, { x: first[0], y: (first[1] + first[5]) / 2 });
    const to = this.onLine(page, { x: last[2], y: (last[3] + last[7]) / 2 });
    if (!from || !to) return undefined;
    const [start, end] = [this.placeOf(from), this.placeOf(to)];
    if (!start || !end || start.owner.block !== end.owner.block || end.offset <= start.offset)
      return undefined;
    const found = lineOf(this.after.pages, start);
    if (!found) return undefined;
    const quads = quadsOn(found.page, this.after.pages, start, end.offset);
    if (quads.length === 0 || (found.page === page && isSame(quads, mark.quads))) return undefined;
    return { page: found.page, annotation: changed(mark, { quads }) };
  }

  private onLine(page: number, at: Point): PlaceInText | undefined {
    const near = lineAt(this.before.pages.pages[page], at);
    return (
      near && { owner: near.portion.owner, offset: offsetAt(near.line, at.x - near.portion.x) }
    );
  }

  private blockNow(block: number): number | undefined {
    const { id } = this.before.text.blocks[block];
    return id === undefined ? undefined : this.blocks.get(id);
  }

  /** A place of the text as it was, in the text as it is. */
  private placeOf({ owner, offset }: PlaceInText): PlaceInText | undefined {
    const was = this.before.text.blocks[owner.block];
    const block = this.blockNow(owner.block);
    if (block === undefined) return undefined;
    const is = this.after.text.blocks[block];
    if (was.kind !== is.kind) return undefined;
    return {
      owner: { ...owner, block },
      offset:
        was === is
          ? offset
          : shifted(
              textAt(this.before.text.blocks, owner),
              textAt(this.after.text.blocks, { ...owner, block }),
              offset,
            ),
    };
  }
}

const NEARLY = 0.01;

const isSame = (a: readonly Quad[], b: readonly Quad[]): boolean =>
  a.length === b.length &&
  a.every((quad, i) => quad.every((value, j) => Math.abs(value - b[i][j]) < NEARLY));

/** The lines of a page between two places of a paragraph, as quadrilaterals. */
function quadsOn(
  page: number,
  { pages }: TypedPages,
  { owner, offset: from }: PlaceInText,
  to: number,
): Quad[] {
  const quads: Quad[] = [];
  for (const portion of pages[page].portions) {
    if (portion.owner?.block !== owner.block || portion.owner.row !== owner.row) continue;
    for (const line of portion.lines) {
      const [start, end] = [Math.max(from, line.from), Math.min(to, line.to)];
      if (start >= end) continue;
      const [left, right] = [xOf(line, start), xOf(line, end)].sort((a, b) => a - b);
      const [x0, x1] = [portion.x + left, portion.x + Math.min(right, line.x + line.width)];
      const [y0, y1] = [portion.y + line.top, portion.y + line.top + line.height];
      if (x1 > x0) quads.push([x0, y0, x1, y0, x0, y1, x1, y1]);
    }
  }
  return quads;
}

/** Where a place of a text is after what stands between its unchanged beginning and end has become something else. */
export function shifted(before: string, after: string, offset: number): number {
  const most = Math.min(before.length, after.length);
  let head = 0;
  while (head < most && before[head] === after[head]) head++;
  let tail = 0;
  while (tail < most - head && before[before.length - 1 - tail] === after[after.length - 1 - tail])
    tail++;
  if (offset <= head) return offset;
  if (offset >= before.length - tail) return after.length - (before.length - offset);
  return Math.min(offset, after.length - tail);
}
