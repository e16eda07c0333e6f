// Runs in the browser: live ink in the close-up alone, and in the close-up and on the page.
import { Stroke, quantise, type Sample } from '@stylet/core/ink';
import { LiveCanvas } from '../../web/src/app/desk/platform/paper/live-canvas';
import { SharedSurface } from '../../web/src/app/desk/platform/paper/live-views';

const WIDTH = 900;
const HEIGHT = { strip: 200, page: 1100 } as const;
/** Pixels a point, in the close-up and on the page. */
const SCALE = { strip: 3.3, page: 1.3 } as const;
/** 240 Hz of samples at 60 frames a second. */
const SAMPLES_A_FRAME = 4;

interface View {
  readonly layer: LiveCanvas;
  readonly box: HTMLElement;
}

function view(where: 'strip' | 'page'): View {
  const box = document.body.appendChild(document.createElement('div'));
  const layer = new LiveCanvas(box);
  const scale = SCALE[where];
  layer.resize(WIDTH, HEIGHT[where], [scale, 0, 0, scale, 0, 0]);
  return { layer, box };
}

/** Handwriting in the strip, in points of the page. */
const samples: Sample[] = Array.from({ length: 1200 }, (_, i) => ({
  x: 10 + ((i * 0.2) % 250),
  y: 30 + 14 * Math.sin(i / 22),
  pressure: 0.5 + 0.3 * Math.sin(i / 60),
  tiltX: 0,
  tiltY: 0,
  time: Math.round(i * (1000 / 240)),
}));

const [strip, onPage] = [view('strip'), view('page')];
const ink = { color: '#22304a' };
const speck = [{ polygon: Float64Array.of(1, 1, 2, 1, 2, 2), grain: 0 }];

/** Waits for the drawing itself, not only for its commands. */
function drawn(views: readonly View[]): void {
  for (const { box } of views)
    for (const canvas of Array.from(box.querySelectorAll('canvas')))
      canvas.getContext('2d')!.getImageData(0, 0, 1, 1);
}

function write(views: readonly View[]): number {
  // A page's canvases get their memory with the first stroke on it, not with each.
  for (const { layer } of views) {
    layer.settle(speck, ink);
    layer.showTail(speck, ink);
    layer.clear();
  }
  drawn(views);
  const [own, ...others] = views.map(({ layer }) => layer);
  const surface = others.length > 0 ? new SharedSurface(own, others) : own;
  const stroke = new Stroke({ instrument: 'fineliner', width: 1.1, smoothing: 0.3 });
  const start = performance.now();
  for (let i = 0; i < samples.length; i += SAMPLES_A_FRAME) {
    // As the events come: each sample is painted under the nib, the frame then in the other view.
    for (const sample of samples.slice(i, i + SAMPLES_A_FRAME)) {
      const before = stroke.settledPieces().length;
      stroke.add(quantise(sample));
      surface.settle(stroke.settledPieces().slice(before), ink);
      surface.showTail(stroke.tail(), ink);
      drawn([strip]);
    }
    if (surface instanceof SharedSurface) {
      surface.flush();
      drawn([onPage]);
    }
  }
  return performance.now() - start;
}

Object.assign(globalThis, { one: () => write([strip]), both: () => write([strip, onPage]) });
