/** Longest run of points looked back at; bounds the work a point costs. */
const WINDOW = 12;

/**
 * A polyline (x, y, x, y, …) with points left out that lie within `tolerance` of what remains.
 * First and last point stay. The opening-window form of the line simplification of U. Ramer (1972)
 * and D. Douglas and T. Peucker (1973), with a window of bounded length.
 */
export function simplify(line: ArrayLike<number>, tolerance: number): number[] {
  const n = line.length;
  if (n <= 4) return Array.from(line);
  const kept = [line[0], line[1]];
  let anchor = 0;
  for (let end = 4; end < n; end += 2) {
    if (end - anchor <= 2 * WINDOW && fits(line, anchor, end, tolerance)) continue;
    anchor = end - 2;
    kept.push(line[anchor], line[anchor + 1]);
  }
  kept.push(line[n - 2], line[n - 1]);
  return kept;
}

/** Whether all points between two others lie near the segment that joins those. */
function fits(line: ArrayLike<number>, from: number, to: number, tolerance: number): boolean {
  const ax = line[from];
  const ay = line[from + 1];
  const dx = line[to] - ax;
  const dy = line[to + 1] - ay;
  const length = Math.sqrt(dx * dx + dy * dy);
  const most = tolerance * length;
  for (let i = from + 2; i < to; i += 2) {
    const px = line[i] - ax;
    const py = line[i + 1] - ay;
    const along = px * dx + py * dy;
    // Beyond the ends the distance to the segment is not the distance to its line.
    if (length === 0 || along < 0 || along > length * length) return false;
    if (Math.abs(dx * py - dy * px) > most) return false;
  }
  return true;
}
