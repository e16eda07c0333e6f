import { expect, test, SLIDE } from './support/fixtures';

test('a document that was open here opens without the server, is written on, and all is there when it is back', async ({
  desk,
  deck,
  instance,
}) => {
  await desk.open(instance.url, deck);
  const line = async (y: number) =>
    desk.pen([await desk.spot(1, 80, y, SLIDE), await desk.spot(1, 300, y, SLIDE)]);
  const isInkAt = async (y: number) =>
    (await desk.darkestNear(await desk.spot(1, 200, y, SLIDE))) < 120;
  await line(30);
  await desk.saved();
  await desk.keptHere();
  await line(60);
  await desk.saved();
  await desk.page.goto(instance.url);
  await expect(desk.page.getByRole('heading', { name: 'All documents' })).toBeVisible();
  await instance.kill();
  await desk.page.locator('stylet-document-card a').first().click();
  await desk.drawn();
  await expect.poll(() => isInkAt(30)).toBe(true);
  await expect.poll(() => isInkAt(60)).toBe(true);
  await line(90);
  await expect(desk.page.locator('.sync')).toHaveText('Offline · 1 change kept here');
  await instance.start();
  await desk.saved();
  expect(await instance.annotations(deck)).toHaveLength(3);
});
