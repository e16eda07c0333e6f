import { TestBed } from '@angular/core/testing';
import { Store, provideStore } from '@ngrx/store';
import { kitActions, kitFeature } from '../kit/kit.reducer';
import { FingerDrawing, type DrawingFinger } from './finger-drawing';
import { PenPresence } from './pen-presence';

let fingers: FingerDrawing;
let pen: PenPresence;
let cancelled: number;
beforeEach(() => {
  TestBed.configureTestingModule({
    providers: [provideStore({ kit: kitFeature.reducer }), FingerDrawing, PenPresence],
  });
  fingers = TestBed.inject(FingerDrawing);
  pen = TestBed.inject(PenPresence);
  cancelled = 0;
});

const letDraw = (fingersDraw: boolean): void =>
  TestBed.inject(Store).dispatch(
    kitActions.handsChanged({ hands: { writingHand: 'right', touch: {}, fingersDraw } }),
  );
const touch = (timeStamp: number, width = 20): PointerEvent =>
  ({ pointerType: 'touch', timeStamp, width, height: width }) as PointerEvent;
const NOW = 20_000;
const penEvent = (type: string): Event => {
  const event = new Event(type);
  const values = { pointerType: 'pen', pointerId: 7, timeStamp: NOW };
  for (const [key, value] of Object.entries(values)) Object.defineProperty(event, key, { value });
  return event;
};
const finger = (id: number, began: number): DrawingFinger => ({
  id,
  began,
  from: { x: 100, y: 100 },
  at: { x: 100, y: 100 },
  cancel: () => cancelled++,
});

test('fingers draw only where they are let, one at a time, and never as palms', () => {
  expect(fingers.accepts(touch(5000))).toBe(false);
  letDraw(true);
  expect(fingers.accepts(touch(5000))).toBe(true);
  expect(fingers.accepts(touch(5000, 80))).toBe(false);
  fingers.begin(finger(1, 5000));
  expect(fingers.accepts(touch(5010))).toBe(false);
  fingers.end(1);
  fingers.joined(2);
  expect(fingers.accepts(touch(5020))).toBe(false);
  fingers.left(2);
  expect(fingers.accepts(touch(5030))).toBe(true);
});

test('near a pen no finger draws; while it is down not even later', () => {
  letDraw(true);
  const stop = pen.watch();
  window.dispatchEvent(penEvent('pointermove'));
  expect(fingers.accepts(touch(NOW + 300))).toBe(false);
  expect(fingers.accepts(touch(NOW + 1500))).toBe(true);
  window.dispatchEvent(penEvent('pointerdown'));
  expect(fingers.accepts(touch(NOW + 9000))).toBe(false);
  window.dispatchEvent(penEvent('pointerup'));
  expect(pen.isDown()).toBe(false);
  stop();
  window.dispatchEvent(penEvent('pointerdown'));
  expect(pen.isDown()).toBe(false);
});

test('a second finger takes back a stroke that has hardly begun, and lets others go on', () => {
  fingers.begin(finger(1, 1000));
  expect(fingers.yields(1100)).toMatchObject({ id: 1 });
  expect(cancelled).toBe(1);
  expect(fingers.yields(1110)).toBe('none');
  // Long ago, but it has not moved: a finger that rests before it pinches.
  fingers.begin(finger(2, 1000));
  expect(fingers.yields(3000)).toMatchObject({ id: 2 });
  fingers.begin(finger(3, 1000));
  fingers.moved(3, { x: 150, y: 100 });
  expect(fingers.yields(1400)).toBe('busy');
  expect(cancelled).toBe(2);
  fingers.dismiss();
  expect(cancelled).toBe(3);
});
