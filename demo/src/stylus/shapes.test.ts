import { recogniseShape, shapeForms } from '@stylet/core/shapes';
import { recognise, templateOf } from './testing/one-dollar';
import { drawnShapes, type Drawn } from './testing/drawn-shapes';
import { arrowInOne, corners, line, regularCorners, ring } from './index';

const names = [...shapeForms, 'none'] as const;
type Answer = (stroke: Drawn['stroke']) => string;

const middle = { x: 0, y: 0 };
/** Every form as a template, the closed ones both ways round, as the paper advises. */
const templates = (
  [
    ['line', line(middle, { x: 100, y: 0 })],
    ['arrow', arrowInOne(middle, { x: 100, y: 0 }, 26)],
    ['triangle', corners(regularCorners(middle, 50, 3))],
    ['rectangle', corners([middle, { x: 100, y: 0 }, { x: 100, y: 60 }, { x: 0, y: 60 }])],
    ['polygon', corners(regularCorners(middle, 50, 5))],
    ['polygon', corners(regularCorners(middle, 50, 6))],
    ['ellipse', ring(middle, 50, 25)],
    ['circle', ring(middle, 50, 50)],
  ] as const
).flatMap(([name, points]) => [
  templateOf(name, points),
  ...(name === 'line' || name === 'arrow' ? [] : [templateOf(name, [...points].reverse())]),
]);

const ours: Answer = (stroke) => recogniseShape(stroke)?.form ?? 'none';
/** Below this score the paper's examples reject a stroke. */
const theirs: Answer = (stroke) => {
  const { name, score } = recognise(stroke, templates);
  return score < 0.8 ? 'none' : name;
};

function confusion(drawn: readonly Drawn[], answer: Answer): { right: number; table: string } {
  const counts = new Map<string, number>();
  let right = 0;
  for (const { meant, stroke } of drawn) {
    const found = answer(stroke);
    counts.set(`${meant} ${found}`, (counts.get(`${meant} ${found}`) ?? 0) + 1);
    if (found === meant) right++;
  }
  const head = ['meant / found', ...names]
    .map((cell, i) => cell.padEnd(i === 0 ? 14 : 10))
    .join('');
  const rows = names.map((meant) =>
    [
      meant.padEnd(14),
      ...names.map((f) => String(counts.get(`${meant} ${f}`) ?? 0).padEnd(10)),
    ].join(''),
  );
  return { right: right / drawn.length, table: [head, ...rows].join('\n') };
}

test('shapes are told from one another and from what is none, better than by the $1 recogniser', () => {
  const drawn = drawnShapes(60, 0.12);
  const [mine, dollar] = [confusion(drawn, ours), confusion(drawn, theirs)];
  process.stdout.write(`\nOurs, ${(100 * mine.right).toFixed(1)} % right\n${mine.table}\n`);
  process.stdout.write(`\n$1, ${(100 * dollar.right).toFixed(1)} % right\n${dollar.table}\n`);
  expect(mine.right).toBeGreaterThan(0.95);
  expect(mine.right).toBeGreaterThan(dollar.right);
});

test('an unsteady hand is still understood', () => {
  expect(confusion(drawnShapes(30, 0.4, 9), ours).right).toBeGreaterThan(0.9);
});
