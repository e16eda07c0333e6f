import {
  inPaintingOrder,
  paintingOrder,
  strata,
  stratumOf,
  type Annotation,
  type PageAnnotations,
  type Stratum,
} from '@stylet/core/document';
import { unite, type Box, type Matrix } from '@stylet/core/geometry';
import type { Remains } from './remains';
import type { SurfaceSources } from './paint-sources';
import { release } from './bitmap-store';
import { CanvasSurface } from './canvas-surface';
import { boundsOfAnnotation } from './drawing';
import { LiveCanvas } from './live-canvas';

/** A canvas for each stratum, and room for live ink. */
export interface SurfaceElements extends Record<Stratum, HTMLCanvasElement> {
  readonly live: HTMLElement;
}

/** A page's annotations, stratum by stratum, and live ink on top. */
export class PageSurfaces {
  readonly live: LiveCanvas;
  private readonly surfaces: readonly {
    readonly stratum: Stratum;
    readonly surface: StratumSurface;
  }[];
  private annotations: PageAnnotations | undefined;

  constructor(
    private readonly elements: SurfaceElements,
    sources: SurfaceSources,
  ) {
    this.surfaces = strata.map((stratum) => ({
      stratum,
      surface: new StratumSurface(new CanvasSurface(elements[stratum], sources)),
    }));
    this.live = new LiveCanvas(elements.live);
  }

  /** Sets size and place; the surfaces are empty afterwards. */
  resize(width: number, height: number, matrix: Matrix): void {
    for (const { surface } of this.surfaces) surface.resize(width, height, matrix);
    this.live.resize(width, height, matrix);
  }

  /** Brings the surfaces from what was drawn to what is there now, with as little drawing as it takes. */
  show(annotations: PageAnnotations, { gone, left }: Remains): void {
    const all = paintingOrder(annotations);
    const kept = gone.size === 0 ? all : all.filter(({ id }) => !gone.has(id));
    const now = left.length === 0 ? kept : inPaintingOrder([...kept, ...left]);
    // What has been shown while it was written must not change when it is laid down.
    const way = this.live.isShowing() ? 'settle' : 'draw';
    for (const { stratum, surface } of this.surfaces)
      surface.show(
        now.filter((annotation) => stratumOf(annotation) === stratum),
        way,
      );
    // What is still being drawn stays to be seen where only other things change.
    if (annotations !== this.annotations) this.live.handOver();
    this.annotations = annotations;
  }

  /** Draws again what has come, or come sharper: pixels of pictures, fonts of text. */
  refresh(isConcerned: (annotation: Annotation) => boolean): void {
    for (const { surface } of this.surfaces) surface.refresh(isConcerned);
  }

  /** Gives the surfaces' memory back. */
  release(): void {
    for (const stratum of strata) release(this.elements[stratum]);
    this.live.release();
  }
}

/** What is drawn of one stratum. */
class StratumSurface {
  private drawn: readonly Annotation[] = [];

  constructor(private readonly surface: CanvasSurface) {}

  resize(width: number, height: number, matrix: Matrix): void {
    this.surface.resize(width, height, matrix);
    this.drawn = [];
  }

  show(now: readonly Annotation[], way: 'draw' | 'settle'): void {
    const isOnTop = this.drawn.every((annotation, i) => now[i] === annotation);
    if (isOnTop) this.surface[way](now.slice(this.drawn.length));
    else this.redraw(changesBetween(this.drawn, now), now);
    this.drawn = now;
  }

  /** Draws anew what of it has come meanwhile. */
  refresh(isConcerned: (annotation: Annotation) => boolean): void {
    this.redraw(this.drawn.filter(isConcerned), this.drawn);
  }

  private redraw(changed: readonly Annotation[], now: readonly Annotation[]): void {
    const region = changed
      .flatMap((annotation) => boundsOfAnnotation(annotation) ?? [])
      .reduce<Box | undefined>((whole, box) => (whole ? unite(whole, box) : box), undefined);
    if (region) this.surface.redraw(region, now);
  }
}

/** What came and what went; where only the order changed, all of it. */
function changesBetween(
  drawn: readonly Annotation[],
  now: readonly Annotation[],
): readonly Annotation[] {
  const before = new Set(drawn);
  const after = new Set(now);
  const changed = [...drawn.filter((a) => !after.has(a)), ...now.filter((a) => !before.has(a))];
  return changed.length > 0 ? changed : now;
}
