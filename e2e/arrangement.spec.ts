import type { DeskDriver } from './support/desk';
import { expect, test, SLIDE } from './support/fixtures';

const lay = async (desk: DeskDriver, how: string): Promise<void> => {
  await desk.page.getByLabel('How pages lie').click();
  await desk.page.getByRole('menuitemradio', { name: how, exact: true }).click();
  await desk.page.waitForTimeout(600);
};
const boxOf = async (desk: DeskDriver, page: number) =>
  (await desk.page.locator(`stylet-page-view[data-page="${page}"]`).boundingBox())!;

test('two pages lie side by side, both are written on, and a reload keeps it', async ({
  desk,
  deck,
  instance,
}) => {
  await desk.open(instance.url, deck);
  await lay(desk, 'Two side by side');
  const [left, right, below] = [await boxOf(desk, 1), await boxOf(desk, 2), await boxOf(desk, 3)];
  expect(right.y).toBeCloseTo(left.y);
  expect(right.x).toBeGreaterThan(left.x + left.width);
  expect(below.y).toBeGreaterThan(left.y + left.height);
  await desk.pen([await desk.spot(2, 300, 300, SLIDE), await desk.spot(2, 420, 330, SLIDE)]);
  await desk.saved();
  const [stroke] = await instance.annotations(deck);
  const reply = await fetch(`${instance.url}/api/documents/${deck}`);
  const { pages } = (await reply.json()) as { pages: { id: string }[] };
  expect((stroke as { pageId?: string }).pageId).toBe(pages[1].id);
  await desk.page.reload();
  await desk.drawn();
  expect((await boxOf(desk, 2)).y).toBeCloseTo((await boxOf(desk, 1)).y);
  await lay(desk, 'Two side by side, the cover alone');
  expect((await boxOf(desk, 3)).y).toBeCloseTo((await boxOf(desk, 2)).y);
  expect((await boxOf(desk, 2)).y).toBeGreaterThan((await boxOf(desk, 1)).y);
});

test('zoomed out, as many pages show as fit, and each leads on', async ({
  desk,
  deck,
  instance,
}) => {
  await desk.open(instance.url, deck);
  await lay(desk, 'As many as fit');
  const { page } = desk;
  for (let i = 0; i < 12; i++) await page.getByLabel('Zoom out').click();
  await expect(page.locator('.zoom')).toHaveText('10 %');
  await expect.poll(() => page.locator('stylet-page-view').count()).toBe(48);
  const [first, second] = [await boxOf(desk, 1), await boxOf(desk, 2)];
  expect(second.y).toBeCloseTo(first.y);
  // Zooming in about a page keeps that under the pointer.
  const at = await desk.spot(20, 360, 250, SLIDE);
  await page.mouse.move(at.x, at.y);
  await page.keyboard.down('Control');
  for (let i = 0; i < 6; i++) await page.mouse.wheel(0, -120);
  await page.keyboard.up('Control');
  await page.waitForTimeout(500);
  const box = await boxOf(desk, 20);
  expect(at.y).toBeGreaterThan(box.y);
  expect(at.y).toBeLessThan(box.y + box.height);
});
