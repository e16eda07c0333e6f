import fc from 'fast-check';
import { isDeepStrictEqual } from 'node:util';
import { isSame, written } from './index';

const turned = (value: unknown): unknown => {
  if (Array.isArray(value)) return value.map(turned);
  if (typeof value !== 'object' || value === null) return value;
  return Object.fromEntries(
    Object.entries(value)
      .reverse()
      .map(([key, one]) => [key, turned(one)]),
  );
};

// Which values of JSON are the same is told by Node's own comparison, which knows no order of fields.
test('values are the same in whatever order their fields are kept, and only then', () => {
  const values = fc.jsonValue().map((value) => JSON.parse(JSON.stringify(value)) as unknown);
  fc.assert(
    fc.property(values, values, (one, other) => {
      expect(isSame(one, turned(one))).toBe(true);
      expect(written(one)).toBe(written(turned(one)));
      expect(isSame(one, other)).toBe(isDeepStrictEqual(one, other));
    }),
  );
  expect(isSame(undefined, null)).toBe(true);
  expect(isSame([1, 2], [2, 1])).toBe(false);
});
