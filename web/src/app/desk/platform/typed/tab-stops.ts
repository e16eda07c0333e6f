import { toMillimetres, toPoints } from '@stylet/core/paper';

/** As far as a tab stop may be, in points, and as many as a paragraph may have. */
const FARTHEST = 5000;
const MOST = 40;

/** Tab stops as people write them, in mm, such as “20, 45.5”: points, ascending; undefined where that is none of it. */
export function tabStopsIn(text: string): readonly number[] | undefined {
  const words = text.split(/[;\s]+|,\s+/).filter((word) => word !== '');
  const stops = words.map((word) => toPoints(Number(word.replace(/,$/, '').replace(',', '.'))));
  if (stops.length > MOST || stops.some((stop) => !(stop > 0 && stop <= FARTHEST)))
    return undefined;
  return [...new Set(stops)].sort((a, b) => a - b);
}

/** Tab stops in mm, to be read and changed by people. */
export const textOfTabStops = (stops: readonly number[] = []): string =>
  stops.map((stop) => String(Math.round(10 * toMillimetres(stop)) / 10)).join(', ');
