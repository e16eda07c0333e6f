import { samplesFromBase64 } from '@stylet/core/ink';
import type { DeskDriver } from './support/desk';
import { expect, test, SLIDE } from './support/fixtures';

const lay = async (desk: DeskDriver, how: string): Promise<void> => {
  await desk.page.getByLabel('How pages lie').click();
  await desk.page.getByRole('menuitemradio', { name: how, exact: true }).click();
  await desk.still();
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
  await expect(async () => {
    const box = await boxOf(desk, 20);
    expect(at.y).toBeGreaterThan(box.y);
    expect(at.y).toBeLessThan(box.y + box.height);
  }).toPass({ timeout: 15_000 });
});

test('four pages are in view together; a turned view is written on where the pen is', async ({
  desk,
  deck,
  instance,
}) => {
  await desk.open(instance.url, deck);
  await lay(desk, 'Four at a time');
  const scroller = (await desk.page.getByRole('region', { name: 'Pages' }).boundingBox())!;
  const fourth = await boxOf(desk, 4);
  expect(fourth.y + fourth.height).toBeLessThanOrEqual(scroller.y + scroller.height);
  expect(fourth.x + fourth.width).toBeLessThanOrEqual(scroller.x + scroller.width);

  await lay(desk, 'One below the other');
  await desk.page.getByLabel('How pages lie').click();
  await desk.page.getByRole('menuitem', { name: 'Turn the view' }).click();
  await desk.drawn();
  const turned = await boxOf(desk, 1);
  expect(turned.height).toBeGreaterThan(turned.width);
  // The page's top is to the right now: ink drawn downwards there runs along the top edge.
  const at = { x: turned.x + 0.9 * turned.width, y: turned.y + 0.3 * turned.height };
  await desk.pen([at, { x: at.x, y: at.y + 120 }]);
  await desk.saved();
  const [stroke] = (await instance.annotations(deck)) as { samples: string }[];
  const { x, y } = samplesFromBase64(stroke.samples);
  expect(x.at(-1)! - x[0]).toBeGreaterThan(50);
  expect(Math.abs(y.at(-1)! - y[0])).toBeLessThan(10);
  expect(y[0]).toBeLessThan(0.2 * 405);
});

test('pages lie one beside the other, and a wheel goes on across', async ({
  desk,
  deck,
  instance,
}) => {
  await desk.open(instance.url, deck);
  const { page } = desk;
  await lay(desk, 'One beside the other');
  const [first, second] = [await boxOf(desk, 1), await boxOf(desk, 2)];
  expect(second.y).toBeCloseTo(first.y);
  expect(second.x).toBeGreaterThan(first.x + first.width);
  await page.mouse.move(first.x + 200, first.y + 200);
  for (let i = 0; i < 6; i++) await page.mouse.wheel(0, 600);
  await desk.still();
  const field = page.getByLabel('Page, by label or number');
  expect(Number(await field.inputValue())).toBeGreaterThan(3);
  // What leads to a page brings it into the middle; what is written there stays there.
  await desk.goTo('20');
  const box = await boxOf(desk, 20);
  const pages = (await page.getByRole('region', { name: 'Pages' }).boundingBox())!;
  expect(Math.abs(box.x + box.width / 2 - pages.x - pages.width / 2)).toBeLessThan(12);
  await desk.pen([await desk.spot(20, 300, 300, SLIDE), await desk.spot(20, 420, 330, SLIDE)]);
  await desk.saved();
  expect(await instance.annotations(deck)).toHaveLength(1);
  await page.reload();
  await desk.drawn();
  await expect(field).toHaveValue('20');
});
