import type { Locator, Page } from '@playwright/test';
import { expect, test } from './support/fixtures';
import type { Instance } from './support/instance';
import { DeskDriver, type Spot } from './support/desk';

const board = (page: Page): Locator => page.locator('stylet-page-board');
const tile = (page: Page, label: string): Locator =>
  page.getByRole('option', { name: `Page ${label}`, exact: true });

async function middle(of: Locator): Promise<Spot> {
  const { x, y, width, height } = (await of.boundingBox())!;
  return { x: x + width / 2, y: y + height / 2 };
}

/** The pages of a document as the server has them: which of its file's, and how they are turned. */
async function kept(instance: Instance, id: string): Promise<[number, number][]> {
  const reply = await fetch(`${instance.url}/api/documents/${id}`);
  const { pages } = (await reply.json()) as { pages: { sourceIndex: number; rotation: number }[] };
  return pages.map(({ sourceIndex, rotation }) => [sourceIndex + 1, rotation]);
}

const firstOf = async (instance: Instance, id: string, count: number): Promise<number[]> =>
  (await kept(instance, id)).slice(0, count).map(([page]) => page);

async function openBoard(desk: DeskDriver): Promise<void> {
  await desk.page.keyboard.press('o');
  await expect(tile(desk.page, '1')).toBeVisible();
  await desk.still();
}

test('pages are chosen by range and moved by a pen, and undo puts them back', async ({
  desk,
  deck,
  instance,
}) => {
  const { page } = desk;
  await desk.open(instance.url, deck);
  await openBoard(desk);
  await tile(page, '2').click();
  await tile(page, '4').click({ modifiers: ['Shift'] });
  await expect(page.getByText('3 pages chosen')).toBeVisible();
  const [from, to] = [await middle(tile(page, '3')), await middle(tile(page, '8'))];
  // Onto the right half of page 8: behind it.
  const end = { x: to.x + 60, y: to.y };
  await desk.pen([from, { x: (from.x + end.x) / 2, y: end.y }, end]);
  await desk.saved();
  expect(await firstOf(instance, deck, 9)).toEqual([1, 5, 6, 7, 8, 2, 3, 4, 9]);
  // They are called by the places they have now, and are chosen still.
  await expect(tile(page, '6')).toHaveAttribute('aria-selected', 'true');
  await page.keyboard.press('Control+z');
  await desk.saved();
  expect(await firstOf(instance, deck, 9)).toEqual([1, 2, 3, 4, 5, 6, 7, 8, 9]);
});

test('keys turn, duplicate, move, cut, paste and remove pages', async ({
  desk,
  deck,
  instance,
}) => {
  const { page } = desk;
  await desk.open(instance.url, deck);
  await openBoard(desk);
  await tile(page, '2').click();
  await page.keyboard.press('r');
  await desk.saved();
  expect((await kept(instance, deck))[1]).toEqual([2, 90]);
  await page.keyboard.press('Shift+R');
  await page.keyboard.press('Control+d');
  await desk.saved();
  expect((await kept(instance, deck)).slice(0, 4)).toEqual([
    [1, 0],
    [2, 0],
    [2, 0],
    [3, 0],
  ]);
  // The copy is what is chosen now.
  await page.keyboard.press('Alt+ArrowRight');
  await desk.saved();
  expect(await firstOf(instance, deck, 4)).toEqual([1, 2, 3, 2]);
  await page.keyboard.press('Control+x');
  await tile(page, '1').click();
  await page.keyboard.press('Control+v');
  await desk.saved();
  expect(await firstOf(instance, deck, 4)).toEqual([1, 2, 2, 3]);
  await page.keyboard.press('Delete');
  await desk.saved();
  expect(await firstOf(instance, deck, 3)).toEqual([1, 2, 3]);
  // Along the row with Shift, and all at once; not everything can go.
  await tile(page, '2').click();
  await page.keyboard.press('Shift+ArrowRight');
  await expect(page.getByText('2 pages chosen')).toBeVisible();
  await page.keyboard.press('Control+a');
  await expect(board(page).getByLabel('Remove')).toBeDisabled();
  await page.keyboard.press('Escape');
  await page.keyboard.press('Escape');
  await expect(board(page)).toBeHidden();
});

test('a band takes what it touches; filters narrow the board; Enter goes to a page', async ({
  desk,
  deck,
  instance,
}) => {
  const { page } = desk;
  await desk.open(instance.url, deck);
  await page.keyboard.press('b');
  await openBoard(desk);
  const [a, b] = [(await tile(page, '1').boundingBox())!, await middle(tile(page, '7'))];
  await page.mouse.move(a.x - 8, a.y + 20);
  await page.mouse.down();
  await page.mouse.move(b.x, b.y, { steps: 6 });
  await page.mouse.up();
  // Two rows, as far as the second column.
  await expect(page.getByText('4 pages chosen')).toBeVisible();
  await page.getByRole('button', { name: 'Bookmarked 1' }).click();
  await expect(board(page).getByRole('option')).toHaveCount(1);
  await page.getByRole('button', { name: /^All/ }).click();
  await tile(page, '9').click();
  await page.keyboard.press('ArrowLeft');
  await page.keyboard.press('Enter');
  await expect(board(page)).toBeHidden();
  await expect(page.getByLabel('Page, by label or number')).toHaveValue('8');
  // So does what leads to a page beside the board.
  await openBoard(desk);
  await page
    .locator('stylet-index-panel .row')
    .filter({ hasText: 'Group speed' })
    .locator('.entry')
    .click();
  await expect(board(page)).toBeHidden();
  await expect(page.getByLabel('Page, by label or number')).toHaveValue('11');
});

test('a finger scrolls the board, taps to choose, and rests to pick up', async ({
  desk,
  deck,
  instance,
}) => {
  await desk.open(instance.url, deck);
  await openBoard(desk);
  const { page } = desk;
  for (const label of ['1', '2']) {
    const at = await middle(tile(page, label));
    await desk.fingers('touchStart', [at]);
    await desk.fingers('touchEnd', []);
  }
  await expect(page.getByText('2 pages chosen')).toBeVisible();
  const [from, to] = [await middle(tile(page, '2')), await middle(tile(page, '5'))];
  await desk.fingers('touchStart', [from]);
  await desk.pause(500);
  for (let i = 1; i <= 6; i++)
    await desk.fingers('touchMove', [{ x: from.x + ((to.x + 50 - from.x) * i) / 6, y: to.y }]);
  await desk.fingers('touchEnd', []);
  await desk.saved();
  expect(await firstOf(instance, deck, 5)).toEqual([3, 4, 5, 1, 2]);
});

test('what is done to pages shows at once in another window, and ink with it', async ({
  desk,
  deck,
  instance,
  context,
}) => {
  await desk.open(instance.url, deck);
  const other = new DeskDriver(await context.newPage());
  await other.open(instance.url, deck);
  await desk.page.bringToFront();
  await openBoard(desk);
  await tile(desk.page, '1').click();
  await desk.page.keyboard.press('Delete');
  await expect(other.page.getByText('of 47')).toBeVisible();
  await desk.page.keyboard.press('o');
  await desk.drawn();
  const spot = await desk.spot(1, 200, 300, 720);
  await desk.pen([spot, { x: spot.x + 120, y: spot.y + 4 }]);
  const seen = await other.spot(1, 240, 301, 720);
  await expect.poll(() => other.darkestNear(seen)).toBeLessThan(160);
});

test('on a phone everything is in reach, and the board opens from the menu', async ({
  desk,
  deck,
  instance,
}) => {
  const { page } = desk;
  await page.setViewportSize({ width: 360, height: 740 });
  await desk.open(instance.url, deck);
  for (const bar of ['stylet-top-bar', 'stylet-status-bar'])
    for (const control of await page.locator(`${bar} > *`).all()) {
      const box = await control.boundingBox();
      if (!box || box.width === 0) continue;
      expect(box.x).toBeGreaterThanOrEqual(0);
      expect(box.x + box.width).toBeLessThanOrEqual(360);
    }
  await page.getByRole('button', { name: 'More', exact: true }).click();
  await page.getByRole('menuitem', { name: 'Page board' }).click();
  await tile(page, '5').click();
  await expect(page.getByText('1 page chosen')).toBeVisible();
  for (const action of await board(page).locator('.actions button').all()) {
    const box = (await action.boundingBox())!;
    expect(box.x + box.width).toBeLessThanOrEqual(360);
  }
});
