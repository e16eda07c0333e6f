import fc from 'fast-check';
import { numerals } from './numerals';

const HEIGHT = 12;
const text = fc.string({ unit: fc.constantFrom(...'0123456789-.:p '), maxLength: 30 });

test('numerals stand on the line and are as high as asked', () => {
  fc.assert(
    fc.property(
      fc.constantFrom(...'0123456789'),
      fc.double({ min: 1, max: 100, noNaN: true }),
      (digit, height) => {
        const points = numerals(digit, height).flat();
        const ys = points.map(({ y }) => y);
        expect(Math.min(...ys)).toBeGreaterThanOrEqual(-height);
        expect(Math.min(...ys)).toBeLessThan(-0.98 * height);
        expect(Math.max(...ys) + 0).toBe(0);
      },
    ),
  );
});

test('characters follow each other to the right without touching', () => {
  fc.assert(
    fc.property(text, fc.constantFrom(...'0123456789'), (before, digit) => {
      const right = Math.max(
        0,
        ...numerals(before, HEIGHT)
          .flat()
          .map(({ x }) => x),
      );
      const all = numerals(before + digit, HEIGHT);
      const last = all.slice(numerals(before, HEIGHT).length).flat();
      expect(Math.min(...last.map(({ x }) => x))).toBeGreaterThan(
        before.trim() === '' ? -1 : right,
      );
    }),
  );
});

test('what has no form leaves a space', () => {
  expect(numerals('1é1', HEIGHT)).toEqual(numerals('1 1', HEIGHT));
  expect(numerals('', HEIGHT)).toEqual([]);
});

// By eye, no source: each numeral has strokes of its own, so that none is taken for another.
test('no two characters look alike', () => {
  const all = [...'0123456789-.:p'].map((c) => JSON.stringify(numerals(c, HEIGHT)));
  expect(new Set(all).size).toBe(all.length);
});
