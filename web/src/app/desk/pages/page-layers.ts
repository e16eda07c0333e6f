import {
  inPaintingOrder,
  paintingOrder,
  type Annotation,
  type PageAnnotations,
} from '@stylet/core/document';
import { unite, type Box, type Matrix } from '@stylet/core/geometry';
import { liesUnder } from '@stylet/core/paint';
import type { Remains } from '../gestures/erase-gesture';
import { CanvasSurface } from './canvas-surface';
import { boundsOfAnnotation } from './drawing';
import { LiveLayer } from './live-layer';
import { release } from './picture-store';

export interface LayerCanvases {
  readonly under: HTMLCanvasElement;
  readonly over: HTMLCanvasElement;
  readonly settled: HTMLCanvasElement;
  readonly tail: HTMLCanvasElement;
}

/** A page's annotations: what lies under its words, what lies over them, and live ink on top. */
export class PageLayers {
  readonly live: LiveLayer;
  private readonly under: CanvasSurface;
  private readonly over: CanvasSurface;
  private drawn: readonly Annotation[] = [];
  private annotations: PageAnnotations | undefined;

  constructor(private readonly canvases: LayerCanvases) {
    this.under = new CanvasSurface(canvases.under);
    this.over = new CanvasSurface(canvases.over);
    this.live = new LiveLayer(canvases.settled, canvases.tail);
  }

  /** Sets size and place; the layers are empty afterwards. */
  resize(width: number, height: number, matrix: Matrix): void {
    for (const surface of [this.under, this.over, this.live]) surface.resize(width, height, matrix);
    this.drawn = [];
  }

  /** Brings the layers from what was drawn to what is there now, with as little drawing as it takes. */
  show(annotations: PageAnnotations, { gone, left }: Remains): void {
    const all = paintingOrder(annotations);
    const now =
      gone.size === 0 ? all : inPaintingOrder([...all.filter(({ id }) => !gone.has(id)), ...left]);
    const isOnTop = this.drawn.every((annotation, i) => now[i] === annotation);
    if (isOnTop) this.drawOn(now.slice(this.drawn.length));
    else this.redrawChanges(now);
    this.drawn = now;
    // What is still being drawn stays to be seen where only other things change.
    if (annotations !== this.annotations) this.live.clear();
    this.annotations = annotations;
  }

  /** Gives the layers' memory back. */
  release(): void {
    for (const canvas of Object.values(this.canvases) as HTMLCanvasElement[]) release(canvas);
  }

  private redrawChanges(now: readonly Annotation[]): void {
    const before = new Set(this.drawn);
    const after = new Set(now);
    const region = [
      ...this.drawn.filter((a) => !after.has(a)),
      ...now.filter((a) => !before.has(a)),
    ]
      .flatMap((annotation) => boundsOfAnnotation(annotation) ?? [])
      .reduce<Box | undefined>((whole, box) => (whole ? unite(whole, box) : box), undefined);
    if (!region) return;
    this.under.redraw(region, now.filter(liesUnder));
    this.over.redraw(
      region,
      now.filter((a) => !liesUnder(a)),
    );
  }

  /** What has been shown while it was written must not change when it is laid down. */
  private drawOn(added: readonly Annotation[]): void {
    const way = this.live.isShowing() ? 'settle' : 'draw';
    this.under[way](added.filter(liesUnder));
    this.over[way](added.filter((annotation) => !liesUnder(annotation)));
  }
}
