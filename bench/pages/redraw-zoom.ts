// Runs in the browser: a full page drawn again after a zoom, as the desk does and naively.
import { samplesFromBase64, strokeOutline } from '@stylet/core/ink';
import { CanvasSurface } from '../../web/src/app/desk/platform/paper/canvas-surface';
import { fullPage } from '../full-page';
import { polygonsOf } from '../../web/src/app/desk/platform/paper/drawing';

const STROKES = 5000;
/** An A4 page. */
const PAGE = { width: 595, height: 842 };
/** Pixels a point: fit to the width of a small screen, and so enlarged that a third of it shows. */
const SCALES = { fit: 1.5, close: 3 };
const WINDOW = { width: 1200, height: 1100 };

const inks = fullPage('page', STROKES);
// Both know the outlines already: the page was shown before the zoom.
const outlines = inks.map((ink) => strokeOutline(ink, samplesFromBase64(ink.samples)));
for (const ink of inks) polygonsOf(ink);

function canvas(): HTMLCanvasElement {
  const element = document.createElement('canvas');
  document.body.append(element);
  return element;
}
const drawn = (element: HTMLCanvasElement): void =>
  void element.getContext('2d')!.getImageData(0, 0, 1, 1);

const [mine, theirs] = [canvas(), canvas()];
for (const element of [mine, theirs]) element.getContext('2d', { willReadFrequently: true });

/** What the desk keeps sharp of the page at a scale, in the middle of it. */
function windowAt(scale: number): { width: number; height: number; x: number; y: number } {
  const width = Math.min(WINDOW.width, PAGE.width * scale);
  const height = Math.min(WINDOW.height, PAGE.height * scale);
  return {
    width,
    height,
    x: (PAGE.width * scale - width) / 2,
    y: (PAGE.height * scale - height) / 2,
  };
}

function ours(scale: number): number {
  const { width, height, x, y } = windowAt(scale);
  const surface = new CanvasSurface(mine);
  const start = performance.now();
  surface.resize(width, height, [scale, 0, 0, scale, -x, -y]);
  surface.draw(inks);
  drawn(mine);
  return performance.now() - start;
}

function naive(scale: number): number {
  const { width, height, x, y } = windowAt(scale);
  const start = performance.now();
  theirs.width = width;
  theirs.height = height;
  const context = theirs.getContext('2d')!;
  context.setTransform(scale, 0, 0, scale, -x, -y);
  outlines.forEach((pieces, i) => {
    context.fillStyle = inks[i].color;
    for (const { polygon } of pieces) {
      const path = new Path2D();
      path.moveTo(polygon[0], polygon[1]);
      for (let k = 2; k < polygon.length; k += 2) path.lineTo(polygon[k], polygon[k + 1]);
      path.closePath();
      context.fill(path);
    }
  });
  drawn(theirs);
  return performance.now() - start;
}

Object.assign(globalThis, {
  oursFit: () => ours(SCALES.fit),
  naiveFit: () => naive(SCALES.fit),
  oursClose: () => ours(SCALES.close),
  naiveClose: () => naive(SCALES.close),
});
