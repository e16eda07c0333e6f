import type { RestingArea } from '@stylet/core/api';

/** What of an area is dragged: all of it, or its edge at the top, or at a side. */
export type AreaPart = 'all' | 'top' | 'left' | 'right';

/** The least an area may be, as a share of the desk. */
const LEAST = 0.08;

/** An area after a part of it was dragged by shares of the desk; it stays on it. */
export function dragArea(
  { x, y, width, height }: RestingArea,
  part: AreaPart,
  by: { readonly x: number; readonly y: number },
): RestingArea {
  switch (part) {
    case 'all':
      return {
        x: within(x + by.x, 0, 1 - width),
        y: within(y + by.y, 0, 1 - height),
        width,
        height,
      };
    case 'top': {
      const top = within(y + by.y, 0, y + height - LEAST);
      return { x, y: top, width, height: y + height - top };
    }
    case 'left': {
      const left = within(x + by.x, 0, x + width - LEAST);
      return { x: left, y, width: x + width - left, height };
    }
    case 'right':
      return { x, y, width: within(width + by.x, LEAST, 1 - x), height };
  }
}

const within = (value: number, least: number, most: number): number =>
  Math.max(least, Math.min(most, value));
