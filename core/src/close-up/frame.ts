import type { Box } from '../geometry/index';

/** Where lines begin and end, in points from the left of the page as it is shown. */
export interface Margins {
  readonly left: number;
  readonly right: number;
}

/** The last part of a frame, as a share of its width: what is written there moves the frame on. */
export const AHEAD = 0.3;

/** Whether writing that reaches to `x` has come to a frame's end. */
export function reachesEnd(frame: Box, x: number): boolean {
  return x > frame.x1 - AHEAD * (frame.x1 - frame.x0);
}

/** Where a frame goes next: on along the line, or to a new one. */
export type Next = { readonly kind: 'along'; readonly frame: Box } | { readonly kind: 'newLine' };

/**
 * The frame after the one whose end was reached, in points on the page as shown. What was its last
 * part is near the start of the next; the right margin is never passed by more than a frame's room.
 */
export function nextAlong(frame: Box, margins: Margins): Next {
  const width = frame.x1 - frame.x0;
  if (frame.x1 >= margins.right - 0.02 * width) return { kind: 'newLine' };
  const step = (1 - AHEAD - 0.08) * width;
  return { kind: 'along', frame: shifted(frame, Math.min(step, margins.right - frame.x1), 0) };
}

/**
 * The frame at the start of the next line, `pitch` points further down; undefined where the page
 * (`height` points) ends before.
 */
export function onNextLine(
  frame: Box,
  margins: Margins,
  pitch: number,
  height: number,
): Box | undefined {
  if (frame.y1 + pitch > height) return undefined;
  return shifted(frame, margins.left - frame.x0, pitch);
}

/** The frame moved as it is, and kept on a page of that size where it fits. */
export function movedWithin(
  frame: Box,
  dx: number,
  dy: number,
  page: { readonly width: number; readonly height: number },
): Box {
  const keep = (low: number, high: number, by: number, most: number): number =>
    Math.max(-low, Math.min(most - high, by));
  return shifted(
    frame,
    keep(frame.x0, Math.min(frame.x1, page.width), dx, page.width),
    keep(frame.y0, Math.min(frame.y1, page.height), dy, page.height),
  );
}

const shifted = ({ x0, y0, x1, y1 }: Box, dx: number, dy: number): Box => ({
  x0: x0 + dx,
  y0: y0 + dy,
  x1: x1 + dx,
  y1: y1 + dy,
});
