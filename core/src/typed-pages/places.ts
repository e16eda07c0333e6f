import type { Point } from '../geometry/index';
import { textOfParagraph } from '../typed/index';
import type { GlyphRun, Line } from '../typesetting/index';
import type { Owner, PageOfText, PlacedPicture, Portion, TypedPages } from './page-of-text';
import type { Block } from './text';

/** A place between two letters of a text: of a block, or a cell of it, and how many UTF-16 units of that stand before it. */
export interface PlaceInText {
  readonly owner: Owner;
  readonly offset: number;
}

/** A line of a page. */
export interface LineOnPage {
  readonly portion: Portion & { readonly owner: Owner };
  readonly line: Line;
}

/** The lines of the text that stand on a page. */
export const linesOn = ({ portions }: PageOfText): LineOnPage[] =>
  portions.flatMap(({ owner, ...portion }) =>
    owner ? portion.lines.map((line) => ({ portion: { ...portion, owner }, line })) : [],
  );

/** Where on its line a place between letters is, in points from where the line was laid out. */
export function xOf({ runs, x, width, to }: Line, offset: number): number {
  for (const run of runs)
    if (offset >= run.from && (offset < run.to || (offset === run.to && run.to === to)))
      return run.x + within(run, offset);
  return offset <= (runs[0]?.from ?? 0) ? x : x + width;
}

/** The place between letters that is nearest to one on a line. */
export function offsetAt({ runs, from, to }: Line, x: number): number {
  let best = { offset: runs.length > 0 ? from : to, far: Infinity };
  for (const run of runs)
    for (const offset of [...new Set(run.shaped.clusters), run.to]) {
      const far = Math.abs(run.x + within(run, offset) - x);
      if (far < best.far) best = { offset, far };
    }
  return best.offset;
}

/** How far from its left a place in a run is, in points. */
function within(run: GlyphRun, offset: number): number {
  const { shaped, size, stretch, text, from, isRightToLeft } = run;
  let before = 0;
  shaped.clusters.forEach((cluster, i) => {
    if (cluster >= offset) return;
    const spaced = stretch !== 0 && text[cluster - from] === ' ' ? stretch : 0;
    before += shaped.advances[i] * size + spaced;
  });
  return isRightToLeft ? run.width - before : before;
}

/** The line of a page that is nearest to a point of it, by height first; undefined where there is none. */
export function lineAt(page: PageOfText, { x, y }: Point): LineOnPage | undefined {
  let best: { found: LineOnPage; far: number } | undefined;
  for (const found of linesOn(page)) {
    const { portion, line } = found;
    const [top, left] = [portion.y + line.top, portion.x + line.x];
    const far = 1000 * outside(y, top, top + line.height) + outside(x, left, left + line.width);
    if (!best || far < best.far) best = { found, far };
  }
  return best?.found;
}

const outside = (value: number, from: number, to: number): number =>
  Math.max(0, from - value, value - to);

/** The place in the text that is nearest to a point of a page, in points. */
export function placeAt(page: PageOfText, at: Point): PlaceInText | undefined {
  const found = lineAt(page, at);
  return (
    found && {
      owner: found.portion.owner,
      offset: offsetAt(found.line, at.x - found.portion.x),
    }
  );
}

/** The line that a place in the text is on, and its page. */
export function lineOf(
  { pages }: Pick<TypedPages, 'pages'>,
  { owner, offset }: PlaceInText,
): (LineOnPage & { readonly page: number }) | undefined {
  let last: (LineOnPage & { readonly page: number }) | undefined;
  for (const [page, { portions }] of pages.entries())
    for (const portion of portions) {
      if (!portion.owner || !isSameOwner(portion.owner, owner)) continue;
      for (const line of portion.lines) {
        if (last && line.from > offset) return last;
        last = { page, portion: { ...portion, owner: portion.owner }, line };
      }
    }
  return last;
}

const isSameOwner = (a: Owner, b: Owner): boolean =>
  a.block === b.block && a.row === b.row && a.column === b.column;

/** The picture that a point of a page lies on. */
export const pictureAt = ({ pictures }: PageOfText, { x, y }: Point): PlacedPicture | undefined =>
  pictures.find(({ box }) => x >= box.x0 && x <= box.x1 && y >= box.y0 && y <= box.y1);

/** Where a block begins that is no paragraph: the page, and from where to where that is its own, in points from its top. */
export function spanOf(
  { pages }: Pick<TypedPages, 'pages'>,
  block: number,
): { readonly page: number; readonly from: number; readonly to: number } | undefined {
  for (const [page, { portions, pictures }] of pages.entries()) {
    const picture = pictures.find((one) => one.block === block);
    if (picture) return { page, from: picture.box.y0, to: picture.box.y1 };
    const lines = portions
      .filter(({ owner }) => owner?.block === block)
      .flatMap((portion) => portion.lines.map((line) => ({ top: portion.y + line.top, line })));
    if (lines.length === 0) continue;
    const to = lines.reduce((low, { top, line }) => Math.max(low, top + line.height), 0);
    return { page, from: lines.reduce((high, { top }) => Math.min(high, top), to), to };
  }
  return undefined;
}

/** The words of a paragraph, or of a cell; none where there is no such place. */
export function textAt(blocks: readonly Block[], { block, row = -1, column = -1 }: Owner): string {
  const found = blocks.at(block);
  if (found?.kind === 'paragraph') return textOfParagraph(found);
  const cell = found?.kind === 'table' ? found.rows.at(row)?.at(column) : undefined;
  return cell && row >= 0 && column >= 0 ? textOfParagraph(cell) : '';
}
