import type { Page } from '@playwright/test';
import { expect, test } from './support/fixtures';

/** All that stands in the rail or its tray, by their names: pens, tools and aids. */
const PENS = /^(Fineliner|Nib|Highlighter|Pencil|Broad edge|Wash), /;
const TOOLS = ['Eraser', 'Lasso', 'Snip', 'Picture', 'Gap', 'Text', 'Note', 'Date'];
const AIDS = ['Ruler', 'Set square', 'Close-up'];

/** How many of the kit's slots and of the tools can be tapped as things stand: in view, and under nothing. */
async function inReach(page: Page): Promise<{ pens: number; tools: string[] }> {
  const names = await page.locator('stylet-rail button').evaluateAll((buttons) =>
    buttons.flatMap((button) => {
      const { left, top, width, height } = button.getBoundingClientRect();
      const hit = document.elementFromPoint(left + width / 2, top + height / 2);
      const isLarge = Math.min(width, height) >= 44;
      return hit && button.contains(hit) && isLarge ? [button.getAttribute('aria-label')!] : [];
    }),
  );
  return {
    pens: names.filter((name) => PENS.test(name)).length,
    tools: [...TOOLS, ...AIDS].filter((tool) => names.some((name) => name.startsWith(`${tool}, `))),
  };
}

async function withTenSlots(page: Page): Promise<void> {
  for (let i = 0; i < 6; i++) {
    await page.getByLabel('Add a slot').click();
    await page.getByLabel('Close', { exact: true }).click();
  }
}

test('with ten slots all pens and tools are one tap away, and two on a telephone', async ({
  desk,
  deck,
  instance,
}) => {
  const { page } = desk;
  await desk.open(instance.url, deck);
  await withTenSlots(page);
  const all = { pens: 10, tools: [...TOOLS, ...AIDS] };
  for (const [width, height] of [
    [1280, 800],
    [820, 1180],
  ]) {
    await page.setViewportSize({ width, height });
    await expect.poll(() => inReach(page)).toEqual(all);
  }
  await page.setViewportSize({ width: 400, height: 800 });
  await desk.still();
  const first = await inReach(page);
  expect(first.pens).toBeGreaterThan(6);
  await page.getByLabel('All pens and tools').click();
  await expect.poll(() => inReach(page)).toEqual(all);
  const left = page.getByRole('group', { name: 'All pens and tools' });
  await left.getByRole('button', { name: 'Set square, key H' }).click();
  await expect(left.getByRole('button', { name: 'Set square, key H' })).toHaveAttribute(
    'aria-pressed',
    'true',
  );
  await left.getByRole('button', { name: 'Date, key J' }).click();
  // What is in hand comes into the rail.
  await expect(left).toHaveCount(0);
  await expect(page.getByLabel('Date, key J')).toHaveAttribute('aria-pressed', 'true');
});

test('the rail stands where it is wanted, in the order that is wanted, and is put away in one tap', async ({
  desk,
  deck,
  instance,
}) => {
  const { page } = desk;
  await desk.open(instance.url, deck);
  const rail = page.locator('stylet-rail');
  const strip = page.locator('stylet-page-strip');
  const boxes = async () => ({
    place: (await rail.boundingBox())!,
    pages: (await strip.boundingBox())!,
  });
  await page.getByLabel('Arrange the tools').click();
  const choose = (name: string) => page.getByRole('radio', { name, exact: true }).click();
  await choose('Top');
  const top = await boxes();
  expect(top.place.y + top.place.height).toBeLessThanOrEqual(top.pages.y + 1);
  await choose('Bottom');
  const bottom = await boxes();
  expect(bottom.place.y).toBeGreaterThanOrEqual(bottom.pages.y + bottom.pages.height - 1);
  await choose('Right');
  const right = await boxes();
  expect(right.place.x).toBeGreaterThan(right.pages.x + right.pages.width);
  await page.getByRole('checkbox', { name: 'Show names under the signs' }).check();
  await expect(page.getByLabel('Lasso, key L').getByText('Lasso')).toBeVisible();
  await page.getByRole('checkbox', { name: 'Date' }).uncheck();
  await expect(page.getByLabel('Date, key J')).toHaveCount(0);
  await page.getByLabel('Close', { exact: true }).click();
  await page.getByLabel('Lasso, key L').press('Alt+ArrowUp');
  const tools = () =>
    page
      .locator('stylet-rail .things .slot')
      .evaluateAll((all) => all.slice(0, 2).map((one) => one.getAttribute('aria-label')));
  await expect.poll(tools).toEqual(['Lasso, key L', 'Eraser, key E']);

  await page.reload();
  await desk.drawn();
  expect(await tools()).toEqual(['Lasso, key L', 'Eraser, key E']);
  const before = (await boxes()).pages.width;
  await page.getByLabel('Hide the tools').click();
  await expect(page.getByLabel('Show the tools')).toBeFocused();
  expect((await boxes()).pages.width).toBeGreaterThan(before + 40);
  // Keys still take what is not seen.
  await page.keyboard.press('l');
  await page.keyboard.press('1');
  await page.getByLabel('Show the tools').click();
  await expect(page.getByLabel(/^Fineliner, .*key 1$/)).toHaveAttribute('aria-pressed', 'true');
  await page.getByLabel('All pens and tools').click();
  await page.getByRole('button', { name: 'Date, key J' }).click();
  await expect(page.getByLabel('Date, key J')).toHaveAttribute('aria-pressed', 'true');
});

test('a floating rail is taken along by a finger or a pen, and stays in the window', async ({
  desk,
  deck,
  instance,
}) => {
  const { page } = desk;
  await desk.open(instance.url, deck);
  await page.getByLabel('Arrange the tools').click();
  await page.getByRole('radio', { name: 'Floating' }).click();
  await page.getByLabel('Close', { exact: true }).click();
  const grip = (await page.locator('stylet-rail .grip').boundingBox())!;
  const from = { x: grip.x + grip.width / 2, y: grip.y + 10 };
  await desk.pen([from, { x: 700, y: 300 }, { x: 5000, y: 300 }]);
  const place = (await page.locator('stylet-rail').boundingBox())!;
  expect(place.x + place.width).toBeLessThanOrEqual(1281);
  expect(place.x).toBeGreaterThan(700);
  // Its cards open towards the middle.
  await page.getByLabel(/^Fineliner, .*key 1$/).click();
  const card = (await page.locator('stylet-slot-card').boundingBox())!;
  expect(card.x + card.width).toBeLessThanOrEqual(place.x);
  expect(card.x).toBeGreaterThanOrEqual(0);
  expect(await instance.annotations(deck)).toEqual([]);
});
