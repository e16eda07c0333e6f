import type { Effect } from '@stylet/core/document';
import type { Sample } from '@stylet/core/ink';
import type { LiveSurface } from '../../platform/paper/live-canvas';
import type { Gesture } from '../../platform/input/gesture';
import type { Meaning } from '../../platform/input/meaning';
import { WritingGesture } from './writing-gesture';

const REST = 600;
let log: string[];
let held: Meaning[];
let drawn: Meaning | undefined;
beforeEach(() => {
  jest.useFakeTimers();
  log = [];
  held = [];
  drawn = undefined;
});
afterEach(() => jest.useRealTimers());

const effect = (title: string): Effect => ({ type: 'document.rename', title });
const sample = (x: number): Sample => ({ x, y: 0, pressure: 0.5, tiltX: 0, tiltY: 0, time: x });
const live = { clear: () => log.push('clear') } as unknown as LiveSurface;

/** Ink that tells how many samples it has drawn. */
function ink(): Gesture {
  let count = 0;
  return {
    move: (samples) => void (count += samples.length),
    end: () => [effect(`ink of ${count}`)],
    cancel: () => log.push('ink cancelled'),
  };
}

const meaning = (name: string, stays = true): Meaning => ({
  show: () => log.push(`show ${name}`),
  move: () => stays,
  end: () => [effect(name)],
  hide: () => log.push(`hide ${name}`),
});

const gesture = (): WritingGesture =>
  new WritingGesture(ink, live, { held: () => held, drawn: () => drawn }, 1);

/** Moves along, a sample at a time, far enough apart not to be held. */
function write(g: WritingGesture, count: number): void {
  for (let i = 0; i < count; i++) {
    g.move([sample(20 * i)], []);
    jest.advanceTimersByTime(16);
  }
}

test('a stroke that is not held is ink, all of it', () => {
  held = [meaning('circle')];
  const g = gesture();
  write(g, 40);
  expect(g.end()).toEqual([effect('ink of 40')]);
  jest.advanceTimersByTime(REST);
  expect(log).toEqual([]);
});

test('held, it shows what it means before it does it; held on, the next meaning', () => {
  held = [meaning('selection'), meaning('circle')];
  const g = gesture();
  write(g, 10);
  jest.advanceTimersByTime(REST);
  expect(log).toEqual(['show selection']);
  jest.advanceTimersByTime(REST);
  expect(log).toEqual(['show selection', 'hide selection', 'show circle']);
  jest.advanceTimersByTime(5 * REST);
  expect(g.end()).toEqual([effect('circle')]);
  expect(log).toHaveLength(3);
});

test('what is refused by drawing on is ink again, from its beginning', () => {
  held = [meaning('selection', false)];
  const g = gesture();
  write(g, 10);
  jest.advanceTimersByTime(REST);
  g.move([sample(500)], []);
  expect(log).toEqual(['show selection', 'hide selection', 'clear']);
  g.move([sample(600)], []);
  expect(g.end()).toEqual([effect('ink of 12')]);
});

test('a trembling hand holds, too; one that creeps does not', () => {
  held = [meaning('circle')];
  const g = gesture();
  write(g, 10);
  for (let i = 0; i < 60; i++) {
    g.move([sample(180 + (i % 3))], []);
    jest.advanceTimersByTime(16);
  }
  expect(log).toEqual(['show circle']);
  const creeping = gesture();
  for (let i = 0; i < 100; i++) {
    creeping.move([sample(i)], []);
    jest.advanceTimersByTime(16);
  }
  expect(log).toEqual(['show circle']);
  creeping.cancel();
  expect(log).toEqual(['show circle', 'ink cancelled']);
});

test('a meaning may show while the stroke is still on its way', () => {
  const g = gesture();
  write(g, 5);
  drawn = meaning('scratch');
  g.move([sample(200)], []);
  expect(log).toEqual(['show scratch']);
  g.move([sample(220)], []);
  expect(g.end()).toEqual([effect('scratch')]);
});
