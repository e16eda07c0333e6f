import { arrowInOne, corners, ring } from '@stylet/demo/stylus';
import { expect, test, SLIDE } from './support/fixtures';
import type { DeskDriver, Spot } from './support/desk';
import type { Instance } from './support/instance';

const HOLD = { hold: 650 };

interface Drawn {
  readonly created: string;
  readonly kind: string;
  readonly form: string;
  readonly points: readonly Spot[];
  readonly bends: readonly number[];
  readonly fill: number;
}

/** What was drawn, the earliest first. */
const shapes = async (instance: Instance, id: string): Promise<Drawn[]> =>
  ((await instance.annotations(id)) as unknown as Drawn[]).sort((a, b) =>
    a.created < b.created ? -1 : 1,
  );

/** The first slide's middle in the window, and CSS pixels to a point. */
async function sheet(desk: DeskDriver): Promise<(x: number, y: number) => Spot> {
  const [a, b] = [await desk.spot(1, 0, 0, SLIDE), await desk.spot(1, 100, 100, SLIDE)];
  return (x, y) => ({ x: a.x + ((b.x - a.x) * x) / 100, y: a.y + ((b.y - a.y) * y) / 100 });
}

test('a stroke held at its end becomes the shape that was meant; let go of at once it is ink', async ({
  desk,
  deck,
  instance,
}) => {
  await desk.open(instance.url, deck);
  const at = await sheet(desk);
  await desk.pen(ring(at(120, 60), 50, 48), { jitter: 0.2 }, HOLD);
  const box = [at(230, 30), at(330, 34), at(328, 90), at(228, 88)];
  await desk.pen(corners(box), { jitter: 0.2 }, HOLD);
  await desk.pen(arrowInOne(at(380, 90), at(480, 40), 24), { jitter: 0.2 }, HOLD);
  await desk.pen(corners([at(520, 90), at(620, 88), at(570, 30)]), { jitter: 0.2 }, HOLD);
  await desk.pen([at(60, 130), at(360, 134)], { jitter: 0.2 }, HOLD);
  await desk.pen(ring(at(640, 330), 30, 30), { jitter: 0.2 });
  await desk.saved();
  const found = await shapes(instance, deck);
  expect(found.map(({ kind, form }) => form ?? kind)).toEqual([
    'circle',
    'rectangle',
    'arrow',
    'triangle',
    'line',
    'ink',
  ]);
  // What was drawn nearly level is level.
  const [from, to] = found[4].points;
  expect(to.y).toBeCloseTo(from.y, 6);
  // One step each.
  for (let i = 0; i < 6; i++) await desk.page.keyboard.press('Control+z');
  await expect.poll(async () => (await shapes(instance, deck)).length).toBe(0);
});

test('until the pen is lifted a shape follows it', async ({ desk, deck, instance }) => {
  await desk.open(instance.url, deck);
  const at = await sheet(desk);
  const session = await desk.page.context().newCDPSession(desk.page);
  const send = (type: 'mousePressed' | 'mouseMoved' | 'mouseReleased', spot: Spot) =>
    session.send('Input.dispatchMouseEvent', {
      type,
      ...spot,
      button: 'left',
      buttons: type === 'mouseReleased' ? 0 : 1,
      pointerType: 'pen',
      force: type === 'mouseReleased' ? 0 : 0.5,
      clickCount: 1,
    });
  await send('mousePressed', at(100, 40));
  for (let i = 0; i <= 20; i++) await send('mouseMoved', at(100 + 5 * i, 40 + i));
  await desk.pause(700);
  await send('mouseMoved', at(260, 140));
  await send('mouseReleased', at(260, 140));
  await desk.saved();
  const [line] = await shapes(instance, deck);
  expect(line.form).toBe('line');
  expect(line.points[1].x).toBeCloseTo(260, -1);
  expect(line.points[1].y).toBeCloseTo(140, -1);
});

test('a shape is taken hold of later: corners, sides, curvature, filling, and back into ink', async ({
  desk,
  deck,
  instance,
}) => {
  await desk.open(instance.url, deck);
  const at = await sheet(desk);
  const box = [at(200, 20), at(300, 20), at(300, 100), at(200, 100)];
  await desk.pen(corners(box), {}, HOLD);
  await desk.pen([at(400, 60), at(600, 60)], {}, HOLD);
  await desk.page.keyboard.press('l');
  // A tap on its outline selects the box alone.
  await desk.pen([at(200, 60), at(200.4, 60)]);
  await expect(desk.page.getByRole('toolbar', { name: 'Selection' })).toContainText('1');
  await desk.pen([at(300, 100), at(340, 130)]);
  await desk.saved();
  const rectangle = (await shapes(instance, deck))[0];
  expect(rectangle.form).toBe('rectangle');
  expect(Math.max(...rectangle.points.map(({ x }) => x))).toBeCloseTo(340, 0);
  expect(Math.min(...rectangle.points.map(({ x }) => x))).toBeCloseTo(200, 0);
  await desk.page.getByRole('button', { name: 'Filled' }).click();
  await expect.poll(async () => (await shapes(instance, deck))[0].fill).toBeGreaterThan(0);
  await desk.page.getByRole('button', { name: 'Let go' }).click();
  await expect(desk.page.getByLabel('Side 1')).toHaveCount(0);
  // The line is bent by its middle; the keyboard does as much.
  await desk.pen([at(500, 60), at(500.4, 60)]);
  await expect(desk.page.getByLabel('Side 1')).toBeVisible();
  await desk.pen([at(500, 60), at(500, 110)]);
  await expect.poll(async () => (await shapes(instance, deck))[1].bends[0]).toBeGreaterThan(40);
  await desk.page.getByLabel('Corner 2').focus();
  await desk.page.keyboard.press('ArrowRight');
  await expect
    .poll(async () => (await shapes(instance, deck))[1].points[1].x)
    .toBeGreaterThan(600.5);
  await desk.page.getByRole('button', { name: 'Turn into ink' }).click();
  await desk.saved();
  const kinds = (await shapes(instance, deck)).map(({ kind }) => kind).sort();
  expect(kinds).toEqual(['ink', 'shape']);
  await desk.page.keyboard.press('Control+z');
  await expect
    .poll(async () => (await shapes(instance, deck)).map(({ kind }) => kind))
    .toEqual(['shape', 'shape']);
});

test('a slot can be set to draw straight lines only, and to leave held strokes alone', async ({
  desk,
  deck,
  instance,
}) => {
  await desk.open(instance.url, deck);
  const at = await sheet(desk);
  await desk.page.getByLabel(/^Fineliner, .*key 1$/).click();
  await desk.page.getByRole('checkbox', { name: 'Straight lines only' }).check();
  await desk.pen([at(400, 40), at(450, 120), at(600, 42)]);
  await desk.page.getByLabel(/^Fineliner, .*key 2$/).click();
  await desk.page.getByLabel(/^Fineliner, .*key 2$/).click();
  await desk.page.getByRole('checkbox', { name: 'Hold for the shape meant' }).uncheck();
  await desk.pen(ring(at(480, 80), 50, 50), {}, HOLD);
  await desk.saved();
  const [line, held] = await shapes(instance, deck);
  expect(line).toMatchObject({ kind: 'shape', form: 'line' });
  expect(line.points.map(({ y }) => Math.round(y))).toEqual([40, 40]);
  expect(held.kind).toBe('ink');
});
