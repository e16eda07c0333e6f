import fc from 'fast-check';
import { ellipseOfMoments, fitCircle, fitLine, meeting, taubinCircle } from './index';

// W. Gander, G. Golub, R. Strebel, “Least-squares fitting of circles and ellipses”, BIT 34 (1994):
// their six points, and the circle of least squared distances they give for them (from memory).
const gander = [
  [1, 7],
  [2, 6],
  [5, 8],
  [7, 7],
  [9, 5],
  [3, 7],
].map(([x, y]) => ({ x, y }));

test('the circle of closest fit is the published one', () => {
  const { centre, radius } = fitCircle(gander)!;
  expect(centre.x).toBeCloseTo(4.7398, 4);
  expect(centre.y).toBeCloseTo(2.9835, 4);
  expect(radius).toBeCloseTo(4.7142, 4);
});

test('no circle nearby has a lesser sum of squared distances', () => {
  const cost = (x: number, y: number, r: number): number =>
    gander.reduce((sum, p) => sum + (Math.hypot(p.x - x, p.y - y) - r) ** 2, 0);
  const { centre, radius } = fitCircle(gander)!;
  const best = cost(centre.x, centre.y, radius);
  // The residual the same paper gives: the norm of the distances is 1.1080 (from memory).
  expect(Math.sqrt(best)).toBeCloseTo(1.108, 3);
  for (const [dx, dy, dr] of [
    [0.01, 0, 0],
    [-0.01, 0, 0],
    [0, 0.01, 0],
    [0, -0.01, 0],
    [0, 0, 0.01],
    [0, 0, -0.01],
  ])
    expect(cost(centre.x + dx, centre.y + dy, radius + dr)).toBeGreaterThan(best);
});

// Taubin's fit is the minimum of the sum of (z − …)² over the sum of its squared gradients; for
// points on a circle it is that circle (G. Taubin 1991).
test('points on a circle give that circle, by either fit', () => {
  const number = fc.double({ min: -500, max: 500, noNaN: true });
  const radius = fc.double({ min: 1, max: 300, noNaN: true });
  const angles = fc.uniqueArray(fc.integer({ min: 0, max: 359 }), { minLength: 5, maxLength: 20 });
  fc.assert(
    fc.property(number, number, radius, angles, (x, y, r, list) => {
      fc.pre(Math.max(...list) - Math.min(...list) > 40);
      const points = list.map((angle) => ({
        x: x + r * Math.cos((angle * Math.PI) / 180),
        y: y + r * Math.sin((angle * Math.PI) / 180),
      }));
      for (const circle of [taubinCircle(points)!, fitCircle(points)!]) {
        expect(circle.radius).toBeCloseTo(r, 3);
        expect(circle.centre.x).toBeCloseTo(x, 3);
        expect(circle.centre.y).toBeCloseTo(y, 3);
      }
    }),
  );
});

test('points on a line, or too few, give no circle', () => {
  expect(fitCircle([0, 1, 2, 3].map((x) => ({ x, y: 2 * x })))).toBeUndefined();
  expect(fitCircle(gander.slice(0, 2))).toBeUndefined();
});

// K. Pearson, “On lines and planes of closest fit to systems of points in space”, Phil. Mag. 2
// (1901), his worked example: y = 5.7841 − 0.54556 x.
test('the line of closest fit is Pearson’s', () => {
  const x = [0.0, 0.9, 1.8, 2.6, 3.3, 4.4, 5.2, 6.1, 6.5, 7.4];
  const y = [5.9, 5.4, 4.4, 4.6, 3.5, 3.7, 2.8, 2.8, 2.4, 1.5];
  const { at, u } = fitLine(x.map((value, i) => ({ x: value, y: y[i] })));
  expect(u.y / u.x).toBeCloseTo(-0.54556, 4);
  expect(at.y - (at.x * u.y) / u.x).toBeCloseTo(5.7841, 3);
});

test('the moments of an ellipse are those of that ellipse', () => {
  const size = fc.double({ min: 1, max: 100, noNaN: true });
  const turn = fc.double({ min: -1.5, max: 1.5, noNaN: true });
  fc.assert(
    fc.property(size, size, turn, (a, b, angle) => {
      const [long, short] = [Math.max(a, b) * 1.2, Math.min(a, b)];
      const points = Array.from({ length: 720 }, (_, i) => {
        const t = (i / 720) * 2 * Math.PI;
        const [x, y] = [long * Math.cos(t), short * Math.sin(t)];
        return {
          x: 50 + x * Math.cos(angle) - y * Math.sin(angle),
          y: -20 + x * Math.sin(angle) + y * Math.cos(angle),
        };
      });
      const found = ellipseOfMoments(points)!;
      expect(found.centre.x).toBeCloseTo(50, 6);
      expect(found.centre.y).toBeCloseTo(-20, 6);
      expect(found.long / long).toBeCloseTo(1, 3);
      expect(found.short / short).toBeCloseTo(1, 3);
      expect(Math.sin(found.turn - angle)).toBeCloseTo(0, 6);
    }),
  );
});

test('lines meet where both run, and parallel ones nowhere', () => {
  const level = { at: { x: 0, y: 3 }, u: { x: 1, y: 0 } };
  const rising = { at: { x: 0, y: 0 }, u: { x: Math.SQRT1_2, y: Math.SQRT1_2 } };
  const { x, y } = meeting(level, rising)!;
  expect(x).toBeCloseTo(3);
  expect(y).toBeCloseTo(3);
  expect(meeting(level, { ...level, at: { x: 0, y: 9 } })).toBeUndefined();
});
