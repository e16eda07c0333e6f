import type { Matrix } from '@stylet/core/geometry';
import { polygonBounds, type Polygon } from '@stylet/core/ink';
import { CanvasSurface } from './canvas-surface';

/**
 * The ink under the nib, on two canvases: what can no longer change is drawn once, and only the
 * short tail behind it is drawn again with each sample.
 */
export class LiveLayer {
  private readonly settled: CanvasSurface;
  private readonly tail: CanvasSurface;
  private tailPolygons: readonly Polygon[] = [];

  constructor(settled: HTMLCanvasElement, tail: HTMLCanvasElement) {
    this.settled = new CanvasSurface(settled);
    this.tail = new CanvasSurface(tail);
  }

  resize(width: number, height: number, matrix: Matrix): void {
    this.settled.resize(width, height, matrix);
    this.tail.resize(width, height, matrix);
  }

  settle(polygons: readonly Polygon[], color: string): void {
    if (polygons.length > 0) this.settled.fill(polygons, color);
  }

  showTail(polygons: readonly Polygon[], color: string): void {
    this.clearTail();
    this.tail.fill(polygons, color);
    this.tailPolygons = polygons;
  }

  clear(): void {
    this.settled.clear();
    this.tail.clear();
    this.tailPolygons = [];
  }

  private clearTail(): void {
    const bounds = polygonBounds(this.tailPolygons);
    if (bounds) this.tail.erase(bounds);
  }
}
