import type { Piece } from '@stylet/core/ink';
import { LiveCanvas } from './live-canvas';

const ink = { color: '#22304a' };
const square = (x: number, y: number): Piece => ({
  polygon: Float64Array.of(x, y, x + 8, y, x + 8, y + 8, x, y + 8),
  grain: 0,
});

/** What was done to each canvas, by the canvas. */
let log: Map<HTMLCanvasElement, string[]>;
let frames: FrameRequestCallback[];
/** How high the page shows; it was drawn 600 pixels high. */
let high: number;
const frame = (): void => frames.splice(0).forEach((f) => f(0));

beforeEach(() => {
  log = new Map();
  frames = [];
  high = 600.3;
  jest.spyOn(globalThis, 'requestAnimationFrame').mockImplementation((f) => frames.push(f));
  jest.spyOn(globalThis, 'cancelAnimationFrame').mockImplementation(() => (frames = []));
  jest.spyOn(HTMLCanvasElement.prototype, 'getContext').mockImplementation(function (
    this: HTMLCanvasElement,
  ) {
    const done: string[] = [];
    log.set(this, done);
    const tell =
      (what: string) =>
      (...all: unknown[]): void =>
        void done.push(`${what} ${all.filter((one) => typeof one === 'number').join(' ')}`.trim());
    const nothing = (): void => undefined;
    return {
      setTransform: nothing,
      beginPath: nothing,
      lineTo: nothing,
      closePath: nothing,
      moveTo: tell('at'),
      fill: tell('fill'),
      clearRect: tell('clear'),
      putImageData: tell('put'),
      getImageData: () => ({}),
    } as never;
  });
});
afterEach(() => jest.restoreAllMocks());

function surface(): { live: LiveCanvas; box: HTMLElement; shown: () => HTMLCanvasElement[] } {
  const box = document.createElement('div');
  jest.spyOn(box, 'getBoundingClientRect').mockImplementation(() => ({ height: high }) as DOMRect);
  const live = new LiveCanvas(box);
  live.resize(400, 600, [1, 0, 0, 1, 0, 0]);
  return { live, box, shown: () => [...box.querySelectorAll('canvas')] };
}

test('only the bands that ink comes to have canvases, where they lie on the page', () => {
  const { live, shown } = surface();
  live.settle([square(10, 20)], ink);
  expect(shown().map(({ width, height }) => [width, height])).toEqual([[400, 192]]);
  live.showTail([square(10, 572)], ink);
  // It lies on the edge between the third and the fourth, of which only the rest of the page is left.
  expect(shown().map(({ height }) => height)).toEqual([192, 192, 24]);
  const tops = (): string[] => shown().map(({ style }) => style.top);
  expect(tops()).toEqual(['0px', '384px', '576px']);
  // The page is shown larger than it was drawn: so are they, from the next stroke on.
  high = 900;
  live.clear();
  live.settle([square(10, 20)], ink);
  expect(tops()).toEqual(['0px', '576px', '864px']);
  expect(shown()[2].style.height).toBe('36px');
});

test('where a tail was, what has settled there comes back, to the pixel', () => {
  const { live, shown } = surface();
  live.settle([square(10, 20)], ink);
  live.showTail([square(16, 24)], ink);
  const done = log.get(shown()[0])!;
  done.length = 0;
  live.showTail([square(30, 24)], ink);
  expect(done).toEqual(['put 14 22', 'at 30 24', 'fill']);
  // Nothing has settled in the second band.
  live.showTail([square(10, 300)], ink);
  const second = log.get(shown()[1])!;
  live.showTail([square(30, 24)], ink);
  expect(second).toEqual(['at 10 300', 'fill', 'clear 8 106 12 12']);
});

test('a stroke that is handed over is hidden at once and emptied when its place is taken', () => {
  const { live, box, shown } = surface();
  live.settle([square(10, 20)], ink);
  live.showTail([square(16, 24)], ink);
  const done = log.get(shown()[0])!;
  done.length = 0;
  live.handOver();
  expect(live.isShowing()).toBe(false);
  expect(box.style.visibility).toBe('hidden');
  frame();
  frame();
  expect(done).toEqual([]);
  frame();
  expect(done).toEqual(['clear 0 0 400 192']);
  expect(box.style.visibility).toBe('');
  frame();
  expect(done).toHaveLength(1);
});

test('a stroke that follows at once does not wait, and does not show the one before', () => {
  const { live, box, shown } = surface();
  live.settle([square(10, 20)], ink);
  live.handOver();
  frame();
  const done = log.get(shown()[0])!;
  done.length = 0;
  live.settle([square(40, 20)], ink);
  expect(done).toEqual(['clear 0 0 400 192', 'at 40 20', 'fill']);
  expect(box.style.visibility).toBe('');
  expect(live.isShowing()).toBe(true);
  frame();
  frame();
  frame();
  expect(done).toHaveLength(3);
});

test.each([
  [1.25, 192, 240],
  [1.5, 192, 288],
  [1.1, 200, 220],
  [2.625, 192, 504],
])(
  'at %d pixels to a CSS pixel bands begin between no two pixels',
  (ratio, shownHigh, drawnHigh) => {
    jest.replaceProperty(globalThis as { devicePixelRatio: number }, 'devicePixelRatio', ratio);
    high = 600 / ratio;
    const { live, shown } = surface();
    live.settle([square(10, 20)], ink);
    live.showTail([square(10, drawnHigh + 20)], ink);
    expect(shown().map(({ height }) => height)).toEqual([
      drawnHigh,
      Math.min(drawnHigh, 600 - drawnHigh),
    ]);
    expect(shown()[1].style.top).toBe(`${shownHigh}px`);
  },
);
