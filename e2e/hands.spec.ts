import { expect, test, SLIDE } from './support/fixtures';
import type { DeskDriver, Spot } from './support/desk';

/** Puts fingers down around a point and lifts them at once. */
async function tap(desk: DeskDriver, fingers: number, at: Spot): Promise<void> {
  const spots = Array.from({ length: fingers }, (_, i) => ({ x: at.x + 70 * i, y: at.y + 10 * i }));
  await desk.fingers('touchStart', spots);
  await desk.fingers('touchEnd', []);
}

async function setHands(desk: DeskDriver, set: () => Promise<void>): Promise<void> {
  await desk.page.getByLabel('More').click();
  await desk.page.getByRole('menuitem', { name: 'Hands' }).click();
  await set();
  await desk.page.getByRole('button', { name: 'Done' }).click();
  await expect(desk.page.locator('mat-dialog-container')).toHaveCount(0);
}

const scrolled = (desk: DeskDriver): Promise<number> =>
  desk.page.locator('.scroller').evaluate((element) => element.scrollTop);

test('taps of fingers are set up once and then undo, redo and change tools', async ({
  desk,
  deck,
  instance,
}) => {
  await desk.open(instance.url, deck);
  const middle = await desk.spot(1, 300, 250, SLIDE);
  // The first touch shows a card that sets them up; until then they do nothing.
  await tap(desk, 2, middle);
  await expect(desk.page.getByRole('dialog', { name: 'Your hands' })).toContainText('undo');
  await desk.page.getByRole('button', { name: 'Change …' }).click();
  await desk.choose('Two fingers, tapped', 'undo');
  await desk.choose('Three fingers, tapped', 'redo');
  await desk.choose('Two fingers, tapped twice', 'take the eraser');
  await desk.page.getByRole('button', { name: 'Done' }).click();
  const count = async () => (await instance.annotations(deck)).length;
  await desk.pen([await desk.spot(1, 80, 40, SLIDE), await desk.spot(1, 300, 40, SLIDE)]);
  // The hand that has just written is not listened to.
  await tap(desk, 2, middle);
  await desk.saved();
  await desk.pause(1200);
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
  await desk.page.getByLabel(/^Fineliner, .*key 1$/).click();
  const card = (await desk.page.locator('stylet-slot-card').boundingBox())!;
  expect(card.x + card.width).toBeLessThanOrEqual(left.rail);
  await desk.page.reload();
  await desk.drawn();
  expect(await places()).toEqual(left);
});

test('the card of the first touch is taken in one tap, and does not come again', async ({
  desk,
  deck,
  instance,
}) => {
  await desk.open(instance.url, deck);
  const middle = await desk.spot(1, 300, 250, SLIDE);
  await tap(desk, 1, middle);
  await desk.page.getByRole('button', { name: 'Use these' }).click();
  await desk.pen([await desk.spot(1, 80, 40, SLIDE), await desk.spot(1, 300, 40, SLIDE)]);
  await desk.saved();
  await desk.pause(1000);
  await tap(desk, 2, middle);
  await expect.poll(async () => (await instance.annotations(deck)).length).toBe(0);
  await expect(desk.page.getByRole('dialog', { name: 'Your hands' })).toHaveCount(0);
});

// W3C Pointer Events 3, width and height: the contact geometry, by which palms are told from fingers.
test('a palm that rests while a pen writes moves nothing, taps nothing and draws nothing', async ({
  desk,
  deck,
  instance,
}) => {
  await desk.open(instance.url, deck);
  await setHands(desk, async () => {
    await desk.page.getByRole('checkbox', { name: 'One finger draws' }).check();
    await desk.choose('One finger, tapped twice', 'take the eraser');
  });
  await desk.goTo('3');
  const before = await scrolled(desk);
  const at = async (x: number, y: number): Promise<Spot> => desk.spot(3, x, y, SLIDE);
  const lines = [
    [await at(80, 60), await at(420, 70)],
    [await at(80, 110), await at(420, 120)],
    [await at(80, 160), await at(420, 170)],
  ];
  await desk.pens(lines, { speed: 900 }, { rests: true, realTime: true });
  await desk.saved();
  expect(await instance.annotations(deck)).toHaveLength(3);
  expect(await scrolled(desk)).toBe(before);
  // A wide contact alone, long after the pen, does nothing either.
  await desk.pause(1000);
  await desk.fingers('touchStart', [await at(300, 300)], 45);
  await desk.fingers('touchMove', [await at(300, 200)], 45);
  await desk.fingers('touchEnd', []);
  expect(await scrolled(desk)).toBe(before);
  expect(await instance.annotations(deck)).toHaveLength(3);
  await expect(desk.page.getByLabel(/^Fineliner, .*key 1$/)).toHaveAttribute(
    'aria-pressed',
    'true',
  );
});

test('where fingers draw, one writes and two never leave a mark', async ({
  desk,
  deck,
  instance,
}) => {
  await desk.open(instance.url, deck);
  const at = async (x: number, y: number): Promise<Spot> => desk.spot(1, x, y, SLIDE);
  const count = async () => (await instance.annotations(deck)).length;
  // Until it is set, a finger moves the pages.
  await desk.fingers('touchStart', [await at(300, 300)]);
  await desk.fingers('touchMove', [await at(300, 260)]);
  await desk.fingers('touchMove', [await at(300, 200)]);
  await desk.fingers('touchEnd', []);
  await expect.poll(() => scrolled(desk)).toBeGreaterThan(30);
  expect(await count()).toBe(0);
  await desk.page.getByRole('button', { name: 'Not now' }).click();
  await setHands(desk, () => desk.page.getByRole('checkbox', { name: 'One finger draws' }).check());
  await desk.page.locator('.scroller').evaluate((element) => element.scrollTo(0, 0));
  await desk.still();
  const zoom = async () =>
    Number((await desk.page.locator('.zoom').innerText()).replace(/\D/g, ''));
  const before = await zoom();
  // A pinch: the second finger comes a moment after the first, which has begun to draw.
  const [a, b] = [await at(250, 200), await at(450, 200)];
  await desk.fingers('touchStart', [a]);
  await desk.fingers('touchMove', [{ x: a.x - 4, y: a.y }]);
  await desk.fingers('touchStart', [a, b]);
  for (let i = 1; i <= 8; i++)
    await desk.fingers('touchMove', [
      { x: a.x - 12 * i, y: a.y },
      { x: b.x + 12 * i, y: b.y },
    ]);
  // One finger is lifted first; the other goes on, and must not draw.
  await desk.fingers('touchEnd', [{ x: a.x - 96, y: a.y }]);
  await desk.fingers('touchMove', [{ x: a.x - 60, y: a.y + 40 }]);
  await desk.fingers('touchEnd', []);
  await expect.poll(zoom).toBeGreaterThan(before * 1.2);
  await desk.pause(800);
  expect(await count()).toBe(0);
  // A stroke that is on its way is not lost to a second finger.
  const page = desk.page.locator('stylet-page-view[data-page="1"]');
  const box = (await page.boundingBox())!;
  const from = { x: Math.max(box.x, 100) + 60, y: Math.max(box.y, 60) + 60 };
  await desk.fingers('touchStart', [from]);
  for (let i = 1; i <= 12; i++) {
    await desk.fingers('touchMove', [{ x: from.x + 14 * i, y: from.y + 3 * i }]);
    await desk.pause(25);
  }
  const last = { x: from.x + 168, y: from.y + 36 };
  await desk.fingers('touchStart', [last, { x: from.x + 200, y: from.y + 200 }]);
  await desk.fingers('touchMove', [
    { x: last.x + 20, y: last.y },
    { x: from.x + 260, y: from.y + 220 },
  ]);
  await desk.fingers('touchEnd', []);
  await expect.poll(count).toBe(1);
});

test('nothing that touches the resting area does anything; it is moved, resized and kept', async ({
  desk,
  deck,
  instance,
}) => {
  await desk.open(instance.url, deck);
  await setHands(desk, async () => {
    await desk.page.getByRole('checkbox', { name: 'One finger draws' }).check();
    await desk.page.getByRole('checkbox', { name: 'Resting area', exact: true }).check();
  });
  const area = desk.page.locator('stylet-resting-area');
  const place = async () => (await area.boundingBox())!;
  const first = await place();
  const inside = { x: first.x + 100, y: first.y + first.height - 40 };
  await desk.fingers('touchStart', [inside]);
  await desk.fingers('touchMove', [{ x: inside.x + 90, y: inside.y - 20 }]);
  await desk.fingers('touchEnd', []);
  await desk.pause(500);
  expect(await instance.annotations(deck)).toHaveLength(0);
  expect(await scrolled(desk)).toBe(0);
  // Its upper edge is dragged by pen, all of it by keys.
  const edge = (await desk.page.getByLabel('Upper edge of the resting area').boundingBox())!;
  const from = { x: edge.x + edge.width / 2, y: edge.y + edge.height / 2 };
  await desk.pen([from, { x: from.x, y: from.y + 90 }]);
  await expect.poll(async () => (await place()).height).toBeCloseTo(first.height - 90, -1);
  await desk.page.getByLabel('Move the resting area').focus();
  await desk.page.keyboard.press('ArrowUp');
  // It follows with the next frame.
  await expect.poll(async () => (await place()).y).toBeLessThan(first.y + 90);
  const moved = await place();
  await expect
    .poll(async () => JSON.stringify(await (await fetch(`${instance.url}/api/kit`)).json()))
    .toContain('restingArea');
  await desk.page.reload();
  await desk.drawn();
  expect((await place()).height).toBeCloseTo(moved.height, -1);
  await desk.page.getByLabel('Take the resting area away').click();
  await expect(area).toHaveCount(0);
});
