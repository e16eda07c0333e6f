import { strata, stratumOf, type Annotation } from '@stylet/core/document';
import { isTranslation, type Matrix } from '@stylet/core/geometry';
import type { SurfaceSources } from './paint-sources';
import { CanvasSurface } from './canvas-surface';
import { wholePixels } from './page-geometry';
import { release } from './bitmap-store';

/** Time for drawing at once, in ms: less than half a frame. */
const SLICE = 6;
/** Annotations drawn between two looks at the clock. */
const FEW = 40;

/** How a page's canvases lie: their size in pixels, their map from page space, their place in CSS. */
export interface LayerPlace {
  readonly width: number;
  readonly height: number;
  readonly matrix: Matrix;
  readonly style: Readonly<Record<string, string>>;
}

/**
 * What is selected, lifted off its page to be moved about as a picture, and the page without it. Both
 * are drawn ahead bit by bit, so that taking hold of thousands of strokes stops nothing.
 */
export class Lifted {
  private canvases: HTMLCanvasElement[] = [];
  private steps: Iterator<void> | undefined;
  private timer: ReturnType<typeof setTimeout> | undefined;
  private isReady = false;
  private matrix: Matrix | undefined;

  /** `host` holds the canvases; `shown` is told when they show in place of the page's own. */
  constructor(
    private readonly host: HTMLElement,
    private readonly sources: SurfaceSources,
    private readonly shown: (isShown: boolean) => void,
  ) {}

  /** Draws ahead: the page's annotations in painting order, those selected apart from the others. */
  prepare(all: readonly Annotation[], ids: ReadonlySet<string>, place: LayerPlace): void {
    this.drop();
    const layers = [
      ...strata.map((stratum) => ({
        surface: this.surface(place, stratum),
        list: all.filter((a) => !ids.has(a.id) && stratumOf(a) === stratum),
      })),
      { surface: this.surface(place, 'lifted'), list: all.filter((a) => ids.has(a.id)) },
    ];
    this.steps = drawing(layers);
    // What was just selected shows first.
    this.timer = setTimeout(() => this.go());
  }

  /** Shows what is lifted at a place, given as a map of the canvas in CSS pixels. */
  show(matrix: Matrix): void {
    this.matrix = matrix;
    if (this.isReady) this.put();
  }

  /** The page's own canvases show again. */
  hide(): void {
    this.matrix = undefined;
    this.host.classList.remove('shown');
    this.shown(false);
  }

  /** Gives up what was drawn ahead, and its memory. */
  drop(): void {
    clearTimeout(this.timer);
    this.hide();
    this.steps = undefined;
    this.isReady = false;
    for (const canvas of this.canvases) release(canvas);
    this.canvases = [];
    this.host.replaceChildren();
  }

  private go(): void {
    const until = performance.now() + SLICE;
    while (performance.now() < until) {
      if (!this.steps?.next().done) continue;
      this.isReady = true;
      if (this.matrix) this.put();
      return;
    }
    this.timer = setTimeout(() => this.go());
  }

  private put(): void {
    const lifted = this.canvases.at(-1)!;
    const [, , , , e, f] = this.matrix!;
    // Copied pixel by pixel, it takes the compositor a fraction of the time that blending between pixels takes.
    lifted.style.transform = isTranslation(this.matrix!)
      ? `translate(${wholePixels(e)}px, ${wholePixels(f)}px)`
      : `matrix(${this.matrix!.join(',')})`;
    this.host.classList.add('shown');
    this.shown(true);
  }

  private surface(place: LayerPlace, name: string): CanvasSurface {
    const canvas = document.createElement('canvas');
    canvas.className = name;
    Object.assign(canvas.style, place.style);
    this.host.append(canvas);
    this.canvases.push(canvas);
    const surface = new CanvasSurface(canvas, this.sources);
    surface.resize(place.width, place.height, place.matrix);
    return surface;
  }
}

function* drawing(
  layers: readonly { surface: CanvasSurface; list: readonly Annotation[] }[],
): Generator<void> {
  for (const { surface, list } of layers)
    for (let i = 0; i < list.length; i += FEW) {
      surface.draw(list.slice(i, i + FEW));
      yield;
    }
}
