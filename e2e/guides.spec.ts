import { samplesFromBase64 } from '@stylet/core/ink';
import { expect, test, SLIDE } from './support/fixtures';

test('lines drawn along a ruler are exact, however the hand wavers, and are measured', async ({
  desk,
  deck,
  instance,
}) => {
  await desk.open(instance.url, deck);
  await desk.page.keyboard.press('g');
  const ruler = desk.page.locator('stylet-guide svg');
  await expect(ruler).toHaveAttribute('aria-label', /^Ruler at 0°/);
  await ruler.focus();
  for (let i = 0; i < 3; i++) await desk.page.keyboard.press('Shift+>');
  await expect(ruler).toHaveAttribute('aria-label', /^Ruler at 30°/);
  await desk.page.keyboard.press('ArrowUp');
  const box = (await desk.page.locator('stylet-guide .middle').boundingBox())!;
  const middle = { x: box.x + box.width / 2, y: box.y + box.height / 2 };
  // Beside its upper edge: the ruler is 560 px long and 67 px wide.
  const angle = (-30 * Math.PI) / 180;
  const spot = (along: number, off: number) => ({
    x: middle.x + along * Math.cos(angle) + (33.6 + off) * Math.sin(angle),
    y: middle.y + along * Math.sin(angle) - (33.6 + off) * Math.cos(angle),
  });
  const path = Array.from({ length: 21 }, (_, i) => spot(-150 + 15 * i, 4 + 12 * Math.sin(i)));
  await desk.pen(path, { jitter: 0.3 });
  await desk.saved();
  const [ink] = (await instance.annotations(deck)) as { samples: string }[];
  const { x, y, length } = samplesFromBase64(ink.samples);
  const slope = Math.atan2(y[0] - y[length - 1], x[length - 1] - x[0]);
  expect((slope * 180) / Math.PI).toBeCloseTo(30, 1);
  // Every sample lies on that line, to the hundredth of a point in which samples are kept.
  for (let i = 0; i < length; i++) {
    const off = (x[i] - x[0]) * Math.sin(slope) + (y[i] - y[0]) * Math.cos(slope);
    expect(Math.abs(off)).toBeLessThan(0.02);
  }
});

test('two fingers move and turn a guide; away from its edges the pen writes as ever', async ({
  desk,
  deck,
  instance,
}) => {
  await desk.open(instance.url, deck);
  await desk.page.keyboard.press('h');
  const square = desk.page.locator('stylet-guide svg');
  await expect(square).toHaveAttribute('aria-label', /^Set square at 0°/);
  const box = (await desk.page.locator('stylet-guide .middle').boundingBox())!;
  const [a, b] = [
    { x: box.x - 60, y: box.y },
    { x: box.x + 60, y: box.y },
  ];
  await desk.fingers('touchStart', [a]);
  await desk.fingers('touchStart', [a, b]);
  for (let i = 1; i <= 10; i++)
    await desk.fingers('touchMove', [
      { x: a.x, y: a.y + 4 * i },
      { x: b.x, y: b.y - 4 * i },
    ]);
  await desk.fingers('touchEnd', []);
  const degrees = Number(/at ([\d.]+)°/.exec((await square.getAttribute('aria-label'))!)![1]);
  expect(degrees).toBeGreaterThan(20);
  expect(degrees).toBeLessThan(50);
  const far = [await desk.spot(1, 60, 20, SLIDE), await desk.spot(1, 160, 40, SLIDE)];
  await desk.pen(far);
  await desk.saved();
  expect(await instance.annotations(deck)).toHaveLength(1);
  await desk.page.getByLabel('Set square, key H').click();
  await expect(square).toHaveCount(0);
});
