import type { Piece } from '@stylet/core/ink';
import type { LiveCanvas } from './live-canvas';
import { LiveViews, SharedSurface } from './live-views';

const ink = { color: '#22304a' };
const piece = (x: number): Piece => ({ polygon: Float64Array.of(x, 0, x + 1, 0, x, 1), grain: 0 });

/** A surface that notes what it is told. */
function surface(log: string[]): LiveCanvas {
  return {
    settle: (pieces: readonly Piece[]) => log.push(`settle ${pieces[0].polygon[0]}`),
    showTail: (pieces: readonly Piece[]) => log.push(`tail ${pieces[0].polygon[0]}`),
    showWhole: () => log.push('whole'),
    clear: () => log.push('clear'),
  } as unknown as LiveCanvas;
}

let frames: FrameRequestCallback[];
beforeEach(() => {
  frames = [];
  jest.spyOn(globalThis, 'requestAnimationFrame').mockImplementation((f) => frames.push(f));
  jest.spyOn(globalThis, 'cancelAnimationFrame').mockImplementation(() => (frames = []));
});
afterEach(() => jest.restoreAllMocks());
const frame = (): void => frames.splice(0).forEach((f) => f(0));

test('a page that shows once is drawn on directly; one that shows twice in both', () => {
  const views = new LiveViews();
  const [own, other] = [surface([]), surface([])];
  views.join('page', own);
  expect(views.around('page', own)).toBe(own);
  const leave = views.join('page', other);
  expect(views.around('page', own)).toBeInstanceOf(SharedSurface);
  expect(views.around('another', own)).toBe(own);
  leave();
  expect(views.around('page', own)).toBe(own);
});

test('under the nib at once, in the other view with the next frame, and only the last tail', () => {
  const [here, there]: [string[], string[]] = [[], []];
  const shared = new SharedSurface(surface(here), [surface(there)]);
  shared.showTail([piece(1)], ink);
  shared.settle([piece(2)], ink);
  shared.showTail([piece(3)], ink);
  expect(here).toEqual(['tail 1', 'settle 2', 'tail 3']);
  expect(there).toEqual([]);
  frame();
  expect(there).toEqual(['settle 2', 'tail 3']);
  shared.showTail([piece(4)], ink);
  shared.flush();
  expect(there).toEqual(['settle 2', 'tail 3', 'tail 4']);
  frame();
  expect(there).toHaveLength(3);
});

test('what is taken back before it was seen is never drawn', () => {
  const there: string[] = [];
  const shared = new SharedSurface(surface([]), [surface(there)]);
  shared.settle([piece(1)], ink);
  shared.clear();
  frame();
  expect(there).toEqual(['clear']);
  shared.showWhole([]);
  frame();
  expect(there).toEqual(['clear', 'whole']);
});
