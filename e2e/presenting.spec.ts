import { expect, test, SLIDE } from './support/fixtures';
import { differing } from './support/desk';

test('one page at a time is all there is, the pen writes on it, and a trail fades', async ({
  desk,
  deck,
  instance,
}) => {
  const { page } = desk;
  await desk.open(instance.url, deck);
  await desk.goTo('4');
  await page.keyboard.press('f');
  await expect(page.getByRole('toolbar', { name: 'Presenting' })).toContainText('4 of 48');
  await expect(page.getByRole('toolbar', { name: 'Pens and tools' })).toBeHidden();
  await page.keyboard.press('ArrowRight');
  await expect(page.getByRole('toolbar', { name: 'Presenting' })).toContainText('5 of 48');
  await desk.still();
  // The page stands in the middle of the whole window, and no other page shows.
  const box = (await page.locator('stylet-page-view[data-page="5"]').boundingBox())!;
  const view = page.viewportSize()!;
  expect(box.x + box.width / 2).toBeCloseTo(view.width / 2, 0);
  expect(box.y + box.height / 2).toBeCloseTo(view.height / 2, 0);
  expect(Math.max(box.width / view.width, box.height / view.height)).toBeGreaterThan(0.98);
  await expect(page.locator('stylet-page-view[data-page="6"]')).toBeHidden();

  const [from, to] = [await desk.spot(5, 100, 300, SLIDE), await desk.spot(5, 400, 320, SLIDE)];
  await desk.pen([from, to]);
  await desk.saved();
  expect(await instance.annotations(deck)).toHaveLength(1);

  await page.keyboard.press('q');
  const clip = { x: from.x, y: from.y - 90, width: to.x - from.x, height: 60 };
  const before = await desk.picture(clip);
  await page.mouse.move(from.x, from.y - 60);
  await page.mouse.move(to.x, from.y - 60, { steps: 12 });
  expect(differing(before, await desk.picture(clip), 20)).toBeGreaterThan(100);
  await expect.poll(async () => differing(before, await desk.picture(clip), 20)).toBe(0);
  expect(await instance.annotations(deck)).toHaveLength(1);

  await page.keyboard.press('Escape');
  await expect(page.getByRole('toolbar', { name: 'Pens and tools' })).toBeVisible();
  await expect(page.getByLabel('Page, by label or number')).toHaveValue('5');
});
