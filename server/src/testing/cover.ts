import type { Polygon } from '@stylet/core/ink';

/** Part of a page in points, looked at in pixels of 1/scale points. */
export interface Frame {
  readonly x0: number;
  readonly y0: number;
  readonly x1: number;
  readonly y1: number;
  readonly scale: number;
}

/** Which pixels of a frame have their middle in a filled polygon. */
export class Cover {
  private readonly width: number;
  private readonly height: number;
  private readonly filled: Uint8Array;

  constructor(
    private readonly frame: Frame,
    polygons: readonly Polygon[],
  ) {
    this.width = Math.round((frame.x1 - frame.x0) * frame.scale);
    this.height = Math.round((frame.y1 - frame.y0) * frame.scale);
    this.filled = new Uint8Array(this.width * this.height);
    for (const polygon of polygons) this.fill(polygon);
  }

  /** Whether all pixels around a place of the page are covered, none, or some. */
  at(x: number, y: number): 'in' | 'out' | 'edge' {
    const column = Math.floor((x - this.frame.x0) * this.frame.scale);
    const row = Math.floor((y - this.frame.y0) * this.frame.scale);
    // Outside the frame nothing is filled.
    let covered = 0;
    for (let r = row - 1; r <= row + 1; r++) {
      const i = r * this.width + column;
      covered += (this.filled[i - 1] ?? 0) + (this.filled[i] ?? 0) + (this.filled[i + 1] ?? 0);
    }
    return covered === 9 ? 'in' : covered === 0 ? 'out' : 'edge';
  }

  /** By the nonzero winding rule (ISO 32000-1, 8.5.3.3.2), row by row. */
  private fill(polygon: Polygon): void {
    const { x0, y0, scale } = this.frame;
    for (let row = 0; row < this.height; row++) {
      const y = y0 + (row + 0.5) / scale;
      const crossings: { x: number; turn: number }[] = [];
      for (let i = 0; i < polygon.length; i += 2) {
        const j = (i + 2) % polygon.length;
        const [ay, by] = [polygon[i + 1], polygon[j + 1]];
        if (ay <= y === by <= y) continue;
        const x = polygon[i] + ((y - ay) / (by - ay)) * (polygon[j] - polygon[i]);
        crossings.push({ x, turn: by > ay ? 1 : -1 });
      }
      crossings.sort((a, b) => a.x - b.x);
      let winding = 0;
      crossings.forEach(({ x, turn }, k) => {
        if (winding !== 0) {
          const from = Math.max(0, Math.ceil((crossings[k - 1].x - x0) * scale - 0.5));
          const to = Math.min(this.width, Math.ceil((x - x0) * scale - 0.5));
          if (to > from) this.filled.fill(1, row * this.width + from, row * this.width + to);
        }
        winding += turn;
      });
    }
  }
}
