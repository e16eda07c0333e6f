import fc from 'fast-check';
import { Problem } from '../problems/index';
import { decodeSamples, encodeSamples, samplesFromBase64, samplesToBase64 } from './codec';
import { samplesOf, type Sample } from './samples';

const sample = fc.record({
  x: fc.double({ min: -5000, max: 5000, noNaN: true }),
  y: fc.double({ min: -5000, max: 5000, noNaN: true }),
  pressure: fc.double({ min: 0, max: 1, noNaN: true }),
  tiltX: fc.integer({ min: -90, max: 90 }),
  tiltY: fc.integer({ min: -90, max: 90 }),
  time: fc.integer({ min: 0, max: 100_000 }),
});

test('samples come back exactly as they were quantised', () => {
  fc.assert(
    fc.property(fc.array(sample, { maxLength: 60 }), (list) => {
      const samples = samplesOf(list);
      expect(decodeSamples(encodeSamples(samples))).toEqual(samples);
      expect(samplesFromBase64(samplesToBase64(samples))).toEqual(samples);
    }),
  );
});

test('quantising moves a sample by half of 1/100 pt at the most', () => {
  fc.assert(
    fc.property(sample, (s) => {
      const { x, y } = samplesOf([s]);
      expect(Math.abs(x[0] - s.x)).toBeLessThanOrEqual(0.005 + 1e-9);
      expect(Math.abs(y[0] - s.y)).toBeLessThanOrEqual(0.005 + 1e-9);
    }),
  );
});

// Protocol Buffers documentation, “Encoding”: 150 is the varint 96 01; zigzag maps −1 to 1, 1 to 2.
test('numbers are written as Protocol Buffers writes them', () => {
  const at = (x: number): Sample => ({
    x: x / 100,
    y: 0,
    pressure: 0,
    tiltX: 0,
    tiltY: 0,
    time: 0,
  });
  const bytesOf = (x: number): number[] => [...encodeSamples(samplesOf([at(x)]))].slice(3);
  expect(bytesOf(75).slice(0, 2)).toEqual([0x96, 0x01]);
  expect(bytesOf(-1)[0]).toBe(1);
  expect(bytesOf(1)[0]).toBe(2);
});

test('a steady stroke takes few bytes a sample', () => {
  const list = Array.from({ length: 400 }, (_, i) => ({
    x: 100 + i * 0.8,
    y: 200 + 12 * Math.sin(i / 15),
    pressure: 0.5 + 0.2 * Math.sin(i / 40),
    tiltX: 30,
    tiltY: 10,
    time: i * 4,
  }));
  expect(encodeSamples(samplesOf(list)).length / list.length).toBeLessThanOrEqual(6);
});

test.each([
  ['nothing', []],
  ['an unknown version', [9, 0, 0]],
  ['an end too early', [1, 0, 5, 2, 2]],
  ['bytes left over', [1, 0, 0, 7]],
  ['a count no file could hold', [1, 0, 255, 255, 255, 127]],
])('%s is refused with a clear error', (_, bytes) => {
  expect(() => decodeSamples(Uint8Array.from(bytes))).toThrow(Problem);
});

test('random bytes never do more than be refused', () => {
  fc.assert(
    fc.property(fc.uint8Array({ maxLength: 200 }), (bytes) => {
      try {
        decodeSamples(bytes);
      } catch (error) {
        expect(error).toBeInstanceOf(Problem);
        expect((error as Problem).code).toBe('ink-samples-invalid');
      }
    }),
  );
  expect(() => samplesFromBase64('***')).toThrow(Problem);
});
