/**
 * A polyline (x, y, x, y, …) as few straight lines, which pass every point of it within `tolerance`; where they meet
 * is near the line, not on it, which takes fewer of them than points left out would. One pass with the cone of
 * directions that still pass all points (J. Sklansky and V. Gonzalez, "Fast polygonal approximation of digitized
 * curves", Pattern Recognition 12, 1980), of which the middle is taken.
 */
export function straightened(line: ArrayLike<number>, tolerance: number): number[] {
  const n = line.length;
  if (n <= 4) return Array.from(line);
  const kept = [line[0], line[1]];
  for (let i = 2; i < n;) {
    const { end, angle } = run(line, i, kept[kept.length - 2], kept[kept.length - 1], tolerance);
    const [ax, ay] = [kept[kept.length - 2], kept[kept.length - 1]];
    i = end;
    // No direction: the points left all lie where the last line ended.
    if (angle === undefined) break;
    const [ux, uy] = [Math.cos(angle), Math.sin(angle)];
    const along = (line[end - 2] - ax) * ux + (line[end - 1] - ay) * uy;
    kept.push(ax + along * ux, ay + along * uy);
  }
  if (kept.length === 2) kept.push(line[n - 2], line[n - 1]);
  return kept;
}

/** How far one line from an anchor can pass all points from `from` on, and in which direction, if in any. */
function run(
  line: ArrayLike<number>,
  from: number,
  ax: number,
  ay: number,
  tolerance: number,
): { end: number; angle: number | undefined } {
  let reach = 0;
  let first = 0;
  let [low, high] = [0, 0];
  let end = from;
  for (; end < line.length; end += 2) {
    const dx = line[end] - ax;
    const dy = line[end + 1] - ay;
    const away = Math.sqrt(dx * dx + dy * dy);
    if (away < reach) break;
    if (away <= tolerance) continue;
    const angle = Math.atan2(dy, dx);
    const half = Math.asin(tolerance / away);
    if (reach === 0) {
      first = angle;
      [low, high] = [-half, half];
    } else {
      const turn = shortest(angle - first);
      if (turn - half > high || turn + half < low) break;
      low = Math.max(low, turn - half);
      high = Math.min(high, turn + half);
    }
    reach = away;
  }
  return { end, angle: reach === 0 ? undefined : first + (low + high) / 2 };
}

/** The same turn (radians) the short way round. */
const shortest = (turn: number): number =>
  turn > Math.PI ? turn - 2 * Math.PI : turn < -Math.PI ? turn + 2 * Math.PI : turn;
