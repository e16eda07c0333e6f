import { expect, test, SLIDE } from './support/fixtures';
import type { DeskDriver, Spot } from './support/desk';

/** Puts fingers down around a point and lifts them at once. */
async function tap(desk: DeskDriver, fingers: number, at: Spot): Promise<void> {
  const session = await desk.page.context().newCDPSession(desk.page);
  const touchPoints = Array.from({ length: fingers }, (_, i) => ({
    x: at.x + 70 * i,
    y: at.y + 10 * i,
    id: i,
    radiusX: 10,
    radiusY: 10,
  }));
  await session.send('Input.dispatchTouchEvent', { type: 'touchStart', touchPoints });
  await session.send('Input.dispatchTouchEvent', { type: 'touchEnd', touchPoints: [] });
}

test('taps of fingers are set up once and then undo, redo and change tools', async ({
  desk,
  deck,
  instance,
}) => {
  await desk.open(instance.url, deck);
  const middle = await desk.spot(1, 300, 250, SLIDE);
  // The first touch offers to set them up; until then they do nothing.
  await tap(desk, 2, middle);
  await desk.page.getByRole('button', { name: 'Set up' }).click();
  await desk.page.getByLabel('Two fingers, tapped', { exact: true }).selectOption('undo');
  await desk.page.getByLabel('Three fingers, tapped', { exact: true }).selectOption('redo');
  await desk.page.getByLabel('Two fingers, tapped twice').selectOption('eraser');
  await desk.page.getByRole('button', { name: 'Done' }).click();
  await desk.pen([await desk.spot(1, 80, 40, SLIDE), await desk.spot(1, 300, 40, SLIDE)]);
  await desk.saved();
  const count = async () => (await instance.annotations(deck)).length;
  // The hand that has just written is not listened to.
  await tap(desk, 2, middle);
  await desk.page.waitForTimeout(1200);
  expect(await count()).toBe(1);
  await tap(desk, 2, middle);
  await expect.poll(count).toBe(0);
  await tap(desk, 3, middle);
  await expect.poll(count).toBe(1);
  await tap(desk, 2, middle);
  await tap(desk, 2, middle);
  await expect(desk.page.getByLabel('Eraser, key E')).toHaveAttribute('aria-pressed', 'true');
  expect(await count()).toBe(1);
  // It is the account's: another browser need not be told again.
  await expect
    .poll(async () => JSON.stringify(await (await fetch(`${instance.url}/api/kit`)).json()))
    .toContain('"twoTap":"undo"');
});

test('for the left hand the desk is mirrored', async ({ desk, deck, instance }) => {
  await desk.open(instance.url, deck);
  const places = async () => {
    const rail = (await desk.page.locator('stylet-rail').boundingBox())!;
    const panel = (await desk.page.locator('stylet-index-panel').boundingBox())!;
    return { rail: rail.x, panel: panel.x };
  };
  const right = await places();
  expect(right.rail).toBeLessThan(right.panel);
  await desk.page.getByLabel('More').click();
  await desk.page.getByRole('menuitem', { name: 'Hands' }).click();
  await desk.page.getByRole('radio', { name: 'I write with the left' }).click();
  await desk.page.getByRole('button', { name: 'Done' }).click();
  const left = await places();
  expect(left.rail).toBeGreaterThan(left.panel);
  await desk.page.getByLabel('Fineliner, key 1').click();
  const card = (await desk.page.locator('stylet-slot-card').boundingBox())!;
  expect(card.x + card.width).toBeLessThanOrEqual(left.rail);
  await desk.page.reload();
  await desk.drawn();
  expect(await places()).toEqual(left);
});
