import { DeskDriver } from './support/desk';
import { expect, test as base, SLIDE } from './support/fixtures';

/** Tests with another device: a browser that shares nothing with the first and has the same slides open. */
const test = base.extend<{ other: DeskDriver }>({
  other: async ({ browser, instance, deck }, use) => {
    const context = await browser.newContext({ viewport: { width: 820, height: 1180 } });
    const other = new DeskDriver(await context.newPage());
    await other.open(instance.url, deck);
    await use(other);
    await context.close();
  },
});

const line = async (desk: DeskDriver, y: number): Promise<void> =>
  desk.pen([await desk.spot(1, 80, y, SLIDE), await desk.spot(1, 300, y, SLIDE)]);

/** Whether there is ink where `line` draws it: a thin line between two rows of pixels is half as dark in each. */
const isInkAt = async (desk: DeskDriver, y: number): Promise<boolean> =>
  (await desk.darkestNear(await desk.spot(1, 200, y, SLIDE))) < 200;

test('what is written on one device is seen on the other at once, and undo is one’s own', async ({
  desk,
  other,
  deck,
  instance,
}) => {
  await desk.open(instance.url, deck);
  await line(desk, 30);
  await expect.poll(() => isInkAt(other, 30)).toBe(true);
  await line(other, 60);
  await expect.poll(() => isInkAt(desk, 60)).toBe(true);
  await desk.page.keyboard.press('Control+z');
  await expect.poll(() => isInkAt(other, 30)).toBe(false);
  expect(await isInkAt(other, 60)).toBe(true);
  await expect(desk.page.getByRole('button', { name: /^Undo/ })).toBeDisabled();
  expect(await instance.annotations(deck)).toHaveLength(1);
});

test('what two devices wrote while the server was away is on both when it is back, without a reload', async ({
  desk,
  other,
  deck,
  instance,
}) => {
  await desk.open(instance.url, deck);
  await Promise.all([desk.loaded(), other.loaded()]);
  await instance.kill();
  await line(desk, 30);
  await line(other, 60);
  await expect(other.page.locator('.sync')).toHaveText('Offline · 1 change kept here');
  await instance.start();
  await Promise.all([desk.saved(), other.saved()]);
  for (const one of [desk, other])
    for (const y of [30, 60]) await expect.poll(() => isInkAt(one, y)).toBe(true);
  expect(await instance.annotations(deck)).toHaveLength(2);
});

test('where two changed the same meanwhile, both end alike and it is said', async ({
  desk,
  other,
  deck,
  instance,
}) => {
  await desk.open(instance.url, deck);
  await line(desk, 30);
  await desk.saved();
  await Promise.all([desk.loaded(), other.loaded()]);
  const [{ id: annotationId, pageId }] = await instance.annotations(deck);
  await instance.kill();
  // Here it is erased, there it is made red.
  await desk.page.keyboard.press('Control+z');
  await expect(desk.page.locator('.sync')).toHaveText('Offline · 1 change kept here');
  const beside = await instance.beside();
  await beside.start();
  await beside.perform(deck, {
    type: 'annotation.change',
    pageId: String(pageId),
    annotationId: String(annotationId),
    fields: { color: '#c02020', modified: '2026-11-01T08:00:00.000Z' },
  });
  await beside.remove();
  await instance.start();
  await expect(desk.page.getByText('Ada changed something that you changed too.')).toBeVisible();
  await desk.saved();
  await expect.poll(async () => instance.annotations(deck)).toEqual([]);
  await expect.poll(() => isInkAt(other, 30)).toBe(false);
});

test('a page that is removed elsewhere goes with a word, and can be had back', async ({
  desk,
  deck,
  instance,
}) => {
  await desk.open(instance.url, deck);
  const count = desk.page.getByText('of 48', { exact: true });
  await expect(count).toBeVisible();
  const reply = await fetch(`${instance.url}/api/documents/${deck}`);
  const [{ id: pageId }] = ((await reply.json()) as { pages: { id: string }[] }).pages;
  await instance.perform(deck, { type: 'page.remove', pageId });
  await expect(desk.page.getByText('Page 1 was removed by Ada.')).toBeVisible();
  await expect(desk.page.getByText('of 47', { exact: true })).toBeVisible();
  await desk.page.getByRole('button', { name: 'Bring back' }).click();
  await expect(count).toBeVisible();
  await desk.saved();
});

test('others are seen where they are, their pens while they write, and can be followed', async ({
  desk,
  other,
  deck,
  instance,
}) => {
  await desk.open(instance.url, deck);
  const others = other.page.getByRole('group', { name: 'Who else is here' });
  await expect(others.getByRole('button', { name: 'Another device, on page 1' })).toBeVisible();
  await expect(desk.page.getByRole('group', { name: 'Who else is here' })).toBeVisible();
  // The pen is down and not lifted: no ink yet, but it is seen.
  const [from, to] = [await desk.spot(1, 80, 30, SLIDE), await desk.spot(1, 300, 30, SLIDE)];
  const line = other.page.locator('stylet-pens-on-page polyline');
  const length = async (): Promise<number> =>
    (await line.count()) === 0 ? 0 : (await line.getAttribute('points'))!.split(' ').length;
  const writing = desk.pen([from, to], {}, { hold: 6000 });
  await expect.poll(length).toBeGreaterThan(1);
  expect(await instance.annotations(deck)).toHaveLength(0);
  await writing;
  await expect.poll(() => isInkAt(other, 30)).toBe(true);
  await expect(line).toHaveCount(0);

  await others.getByRole('button', { name: 'Another device, on page 1' }).click();
  await other.page.getByRole('menuitem', { name: 'Follow' }).click();
  await expect(other.page.getByText('Following Another device')).toBeVisible();
  await desk.goTo('20');
  await expect(other.page.getByLabel('Page, by label or number')).toHaveValue('20');
  // Who goes anywhere does not follow any more.
  await other.page.mouse.move(400, 500);
  await other.page.mouse.wheel(0, 300);
  await expect(other.page.getByText('Following Another device')).toBeHidden();

  // Hidden by choice.
  await desk.page.getByRole('button', { name: /, on page/ }).click();
  await desk.page.getByRole('menuitem', { name: 'Hide me from others' }).click();
  await expect(others).toBeHidden();
});
