import { expect, test, SLIDE } from './support/fixtures';

test('with the server killed work goes on, and everything is there afterwards', async ({
  desk,
  deck,
  instance,
}) => {
  await desk.open(instance.url, deck);
  const line = async (y: number) =>
    desk.pen([await desk.spot(1, 80, y, SLIDE), await desk.spot(1, 300, y, SLIDE)]);
  await line(30);
  await desk.saved();
  await instance.kill();
  await line(50);
  await line(70);
  await expect(desk.page.locator('.sync')).toHaveText('Offline · 2 changes kept here');
  await instance.start();
  await desk.saved();
  expect(await instance.annotations(deck)).toHaveLength(3);
  // The server went away again; the changes outlive the page that made them.
  await instance.kill();
  await line(90);
  await expect(desk.page.locator('.sync')).toHaveText(/Offline · 1 change kept here/);
  await desk.page.close();
  await instance.start();
  const again = await desk.page.context().newPage();
  await again.goto(`${instance.url}/documents/${deck}`);
  await expect(again.locator('.sync')).toHaveText('Saved');
  await expect.poll(async () => (await instance.annotations(deck)).length).toBe(4);
});

test('what was saved survives a database that goes away and kill -9 of the server', async ({
  desk,
  deck,
  instance,
}) => {
  await desk.open(instance.url, deck);
  const line = async (y: number) =>
    desk.pen([await desk.spot(1, 80, y, SLIDE), await desk.spot(1, 300, y, SLIDE)]);
  await line(30);
  await line(50);
  await desk.saved();
  instance.withdrawDatabase();
  await line(70);
  await expect(desk.page.locator('.sync')).toHaveText(/Offline/);
  instance.giveDatabaseBack();
  await desk.saved();
  await instance.kill();
  await instance.start();
  expect(await instance.annotations(deck)).toHaveLength(3);
  await desk.page.reload();
  await desk.drawn();
  expect(await desk.darkestNear(await desk.spot(1, 200, 70, SLIDE))).toBeLessThan(120);
});

test('a stroke is stored within a second', async ({ desk, deck, instance }) => {
  await desk.open(instance.url, deck);
  await desk.pen([await desk.spot(1, 80, 30, SLIDE), await desk.spot(1, 300, 30, SLIDE)]);
  await expect
    .poll(async () => (await instance.annotations(deck)).length, { timeout: 1000, intervals: [50] })
    .toBe(1);
});

test('writing on a page that another device has removed is told, and the page comes back with what was written', async ({
  desk,
  deck,
  instance,
}) => {
  await desk.withoutSocket();
  await desk.open(instance.url, deck);
  const read = async () => {
    const reply = await fetch(`${instance.url}/api/documents/${deck}`);
    return ((await reply.json()) as { pages: { id: string }[] }).pages;
  };
  const [first, ...others] = await read();
  await instance.perform(deck, { type: 'page.remove', pageId: first.id });
  expect(await read()).toHaveLength(others.length);
  await desk.pen([await desk.spot(1, 80, 30, SLIDE), await desk.spot(1, 300, 30, SLIDE)]);
  await expect(desk.page.getByText('removed by Ada')).toBeVisible();
  await desk.page.getByRole('button', { name: 'Bring back' }).click();
  await desk.saved();
  expect((await read()).map(({ id }) => id)).toContain(first.id);
  expect(await instance.annotations(deck)).toHaveLength(1);
});

test('what another device does meanwhile shows as soon as something is saved here, under what was made here', async ({
  desk,
  deck,
  instance,
}) => {
  await desk.withoutSocket();
  await desk.open(instance.url, deck);
  const [mine, theirs] = [await desk.spot(1, 200, 30, SLIDE), await desk.spot(1, 200, 60, SLIDE)];
  const line = async (y: number) =>
    desk.pen([await desk.spot(1, 80, y, SLIDE), await desk.spot(1, 300, y, SLIDE)]);
  await line(60);
  await desk.saved();
  const [drawn] = await instance.annotations(deck);
  await instance.perform(deck, {
    type: 'annotation.remove',
    pageId: String(drawn['pageId']),
    annotationId: String(drawn['id']),
  });
  expect(await desk.darkestNear(theirs)).toBeLessThan(120);
  await line(30);
  await expect.poll(() => desk.darkestNear(theirs)).toBeGreaterThan(180);
  expect(await desk.darkestNear(mine)).toBeLessThan(120);
});

test('a part of the program that cannot be had is told of, and comes when the server is back', async ({
  desk,
  deck,
  instance,
}) => {
  const { page } = desk;
  let isAway = true;
  await page.route(/chunk-/, async (route) => {
    const isLate = isAway && (await page.locator('canvas.bitmap').count()) > 0;
    await (isLate ? route.abort() : route.continue());
  });
  await desk.open(instance.url, deck);
  await desk.pen([await desk.spot(1, 80, 30, SLIDE), await desk.spot(1, 300, 30, SLIDE)]);
  await page.keyboard.press('Control+a');
  const told = page.getByText('A part of the program could not be loaded');
  await expect(told.first()).toBeVisible();
  const selection = page.getByRole('toolbar', { name: 'Selection' });
  await expect(selection).toHaveCount(0);
  isAway = false;
  await expect(selection).toBeVisible();
});
