// Runs in the browser: a full page drawn again after a zoom, as the desk does and naively.
import { newId, type Ink } from '@stylet/core/document';
import { samplesFromBase64, samplesOf, samplesToBase64, strokeOutline } from '@stylet/core/ink';
import { CanvasSurface } from '../../web/src/app/desk/pages/canvas-surface';
import { polygonsOf } from '../../web/src/app/desk/pages/drawing';

const STROKES = 5000;
/** An A4 page. */
const PAGE = { width: 595, height: 842 };
/** Pixels a point: fit to the width of a small screen, and so enlarged that a third of it shows. */
const SCALES = { fit: 1.5, close: 3 };
const WINDOW = { width: 1200, height: 1100 };

/** Letters' strokes in lines all over the page. */
const inks: Ink[] = Array.from({ length: STROKES }, (_, i) => {
  const x = 30 + ((i * 7.4) % 530);
  const y = 30 + 10.8 * Math.floor((i * 7.4) / 530);
  const samples = samplesOf(
    Array.from({ length: 36 }, (_, k) => ({
      x: x + k * 0.18 + 1.6 * Math.sin(k / 4 + i),
      y: y + 3.4 * Math.sin(k / 5 + i * 2),
      pressure: 0.5 + 0.3 * Math.sin(k / 9),
      tiltX: 0,
      tiltY: 0,
      time: k * 4,
    })),
  );
  const now = new Date().toISOString();
  return {
    kind: 'ink',
    id: newId(),
    pageId: 'page',
    order: 'a0',
    // A line of writing in one ink, the next in another.
    color: Math.floor((i * 7.4) / 530) % 3 === 0 ? '#b3324b' : '#22304a',
    opacity: 1,
    author: '',
    created: now,
    modified: now,
    instrument: 'nib',
    width: 1.2,
    smoothing: 0.3,
    samples: samplesToBase64(samples),
  };
});
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
