// What pdf.js wants from a document, made of what a worker has.

interface CanvasAndContext {
  canvas: OffscreenCanvas | null;
  context: OffscreenCanvasRenderingContext2D | null;
}

/** Makes pdf.js's scratch canvases off screen. */
export class WorkerCanvasFactory {
  create(width: number, height: number): CanvasAndContext {
    const canvas = new OffscreenCanvas(width, height);
    return { canvas, context: canvas.getContext('2d') };
  }

  reset(pair: CanvasAndContext, width: number, height: number): void {
    pair.canvas!.width = width;
    pair.canvas!.height = height;
  }

  destroy(pair: CanvasAndContext): void {
    pair.canvas!.width = pair.canvas!.height = 0;
    pair.canvas = pair.context = null;
  }
}

/** A soft mask that pdf.js would express as an SVG filter, which only a document can hold. */
interface SoftMask {
  readonly kind: 'alpha' | 'luminosity';
  readonly map: readonly number[] | undefined;
}

/** Hands soft masks on as objects, for `drawSoftMasks` to carry out. */
export class WorkerFilterFactory {
  addFilter(): string {
    return 'none';
  }
  addHCMFilter(): string {
    return 'none';
  }
  addAlphaFilter(map?: readonly number[]): SoftMask {
    return { kind: 'alpha', map };
  }
  addLuminosityFilter(map?: readonly number[]): SoftMask {
    return { kind: 'luminosity', map };
  }
  addHighlightHCMFilter(): string {
    return 'none';
  }
  addSelectionHCMFilter(): string {
    return 'none';
  }
  destroy(): void {
    // Nothing is held.
  }
}

/**
 * Lets off-screen contexts take a `SoftMask` as their filter: the one drawing that follows applies
 * it to the mask's pixels. Luminosity as in ISO 32000-1, 11.5.3.
 */
export function drawSoftMasks(): void {
  const prototype = OffscreenCanvasRenderingContext2D.prototype;
  const filter = Object.getOwnPropertyDescriptor(prototype, 'filter')!;
  const drawImage = prototype.drawImage as (...args: unknown[]) => void;
  const pending = new WeakMap<object, SoftMask>();
  Object.defineProperty(prototype, 'filter', {
    configurable: true,
    get(this: OffscreenCanvasRenderingContext2D) {
      return filter.get!.call(this) as string;
    },
    set(this: OffscreenCanvasRenderingContext2D, value: string | SoftMask) {
      if (typeof value === 'object') {
        pending.set(this, value);
      } else {
        pending.delete(this);
        filter.set!.call(this, value);
      }
    },
  });
  prototype.drawImage = function (this: OffscreenCanvasRenderingContext2D, ...args: unknown[]) {
    const mask = pending.get(this);
    if (!mask || args.length !== 9 || this.globalCompositeOperation !== 'destination-in') {
      drawImage.apply(this, args);
      return;
    }
    pending.delete(this);
    const [image, sx, sy, width, height, ...target] = args as [CanvasImageSource, ...number[]];
    const scratch = new OffscreenCanvas(width, height);
    const context = scratch.getContext('2d', { willReadFrequently: true })!;
    drawImage.call(context, image, sx, sy, width, height, 0, 0, width, height);
    const pixels = context.getImageData(0, 0, width, height);
    applyMask(pixels.data, mask);
    context.putImageData(pixels, 0, 0);
    drawImage.call(this, scratch, 0, 0, width, height, ...target);
  } as typeof prototype.drawImage;
}

function applyMask(p: Uint8ClampedArray, { kind, map }: SoftMask): void {
  for (let i = 0; i < p.length; i += 4) {
    const value =
      kind === 'luminosity' ? Math.round(0.3 * p[i] + 0.59 * p[i + 1] + 0.11 * p[i + 2]) : p[i + 3];
    p[i + 3] = map ? map[value] : value;
  }
}
