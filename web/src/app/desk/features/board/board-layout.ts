/** How few and how many pages may stand beside each other. */
export const FEWEST_ACROSS = 3;
export const MOST_ACROSS = 12;
/** Room round the tiles, in CSS pixels, and what stands under each picture. */
export const EDGE = 16;
export const CAPTION = 34;
const INSET = 10;

/** A grid of equal cells, row by row, in CSS pixels. */
export interface BoardLayout {
  readonly across: number;
  readonly count: number;
  readonly cell: { readonly width: number; readonly height: number };
  readonly picture: { readonly width: number; readonly height: number };
  readonly height: number;
}

/** `aspect` is what a picture's height may be to its width; pages taller than that are drawn narrower. */
export function boardLayout(
  width: number,
  across: number,
  count: number,
  aspect: number,
): BoardLayout {
  // Whole pixels: pictures between two would be blurred.
  const cellWidth = Math.max(1, Math.floor((width - 2 * EDGE) / across));
  const picture = Math.max(1, cellWidth - 2 * INSET);
  const pictureHeight = Math.round(picture * Math.min(1.6, Math.max(0.4, aspect)));
  const height = pictureHeight + CAPTION + 2 * INSET;
  return {
    across,
    count,
    cell: { width: cellWidth, height },
    picture: { width: picture, height: pictureHeight },
    height: 2 * EDGE + Math.ceil(count / across) * height,
  };
}

/** Where a tile stands. */
export function tileAt({ across, cell }: BoardLayout, index: number): { x: number; y: number } {
  return {
    x: EDGE + (index % across) * cell.width,
    y: EDGE + Math.floor(index / across) * cell.height,
  };
}

/** The tiles of the rows between two heights. */
export function tilesBetween(
  { across, cell, count }: BoardLayout,
  from: number,
  to: number,
): { first: number; last: number } {
  const first = Math.max(0, Math.floor((from - EDGE) / cell.height)) * across;
  const last = Math.min(count, (Math.floor((to - EDGE) / cell.height) + 1) * across) - 1;
  return { first, last };
}

/** The most tiles that rows within a height may have. */
export function mostTiles({ across, cell }: BoardLayout, height: number): number {
  return (Math.ceil(height / cell.height) + 1) * across;
}

/** Before which tile what is let go at a point comes: `count` after the last one. */
export function gapAt({ across, cell, count }: BoardLayout, x: number, y: number): number {
  const row = Math.max(0, Math.floor((y - EDGE) / cell.height));
  const column = Math.min(across, Math.max(0, Math.round((x - EDGE) / cell.width)));
  return Math.min(count, row * across + column);
}

/** Where the line stands that shows a gap: at the end of a row rather than at the start of the next. */
export function gapLine(
  layout: BoardLayout,
  gap: number,
  x: number,
): { x: number; y: number; height: number } {
  const { across, cell } = layout;
  const endsRow = gap > 0 && (gap % across === 0 || gap === layout.count);
  const isAtEnd = endsRow && x > EDGE + (across * cell.width) / 2;
  const place =
    gap === layout.count || isAtEnd
      ? { ...tileAt(layout, gap - 1), past: cell.width }
      : { ...tileAt(layout, gap), past: 0 };
  return { x: place.x + place.past, y: place.y, height: cell.height };
}

/** The tiles that a rectangle between two points touches. */
export function tilesIn(
  layout: BoardLayout,
  a: { readonly x: number; readonly y: number },
  b: { readonly x: number; readonly y: number },
): number[] {
  const [x0, x1] = [Math.min(a.x, b.x), Math.max(a.x, b.x)];
  const [y0, y1] = [Math.min(a.y, b.y), Math.max(a.y, b.y)];
  const found: number[] = [];
  const { first, last } = tilesBetween(layout, y0, y1);
  for (let i = first; i <= last; i++) {
    const { x, y } = tileAt(layout, i);
    const { width, height } = layout.picture;
    if (x + INSET < x1 && x + INSET + width > x0 && y + INSET < y1 && y + INSET + height > y0)
      found.push(i);
  }
  return found;
}
