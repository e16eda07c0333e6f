import type { Page } from '@playwright/test';
import { expect, test, SLIDE } from './support/fixtures';
import type { DeskDriver } from './support/desk';

const line = async (desk: DeskDriver, y: number): Promise<void> =>
  desk.pen([await desk.spot(1, 80, y, SLIDE), await desk.spot(1, 300, y, SLIDE)]);

test('undo and redo go on after a reload', async ({ desk, deck, instance }) => {
  await desk.open(instance.url, deck);
  for (const y of [30, 50, 70]) await line(desk, y);
  await desk.page.keyboard.press('Control+z');
  await desk.saved();
  await desk.page.reload();
  await desk.drawn();
  const count = async () => (await instance.annotations(deck)).length;
  expect(await count()).toBe(2);
  await desk.page.keyboard.press('Control+z');
  await expect.poll(count).toBe(1);
  await desk.page.keyboard.press('Control+Shift+z');
  await desk.page.keyboard.press('Control+Shift+z');
  await expect.poll(count).toBe(3);
});

test('a window undoes its own work only', async ({ desk, deck, instance, context }) => {
  await desk.open(instance.url, deck);
  await line(desk, 30);
  await desk.saved();
  // Another window of the same browser takes the stroke away and writes one of its own.
  const page = await context.newPage();
  const { DeskDriver: Driver } = await import('./support/desk');
  const other = new Driver(page);
  await other.open(instance.url, deck);
  await expect(page.getByRole('button', { name: /^Undo/ })).toBeDisabled();
  await page.keyboard.press('e');
  await other.pen([await other.spot(1, 200, 20, SLIDE), await other.spot(1, 200, 40, SLIDE)]);
  await page.keyboard.press('1');
  await line(other, 60);
  await other.saved();
  const [theirs] = await instance.annotations(deck);
  // The first window has nothing left to take back.
  await desk.page.bringToFront();
  await desk.page.reload();
  await desk.drawn();
  await desk.page.keyboard.press('Control+z');
  await expect(desk.page.getByText('Left as it is')).toBeVisible();
  expect(await instance.annotations(deck)).toEqual([theirs]);
});

const nameOf = (page: Page): Promise<string | null> =>
  page.evaluate(() => sessionStorage.getItem('stylet.window'));

test('undo goes on after a reload on a machine that lets go of what was open late', async ({
  desk,
  deck,
  instance,
  context,
}) => {
  await desk.open(instance.url, deck);
  await line(desk, 30);
  await desk.saved();
  const name = await nameOf(desk.page);
  // Something holds on to the window's name for a while after the page is gone.
  const late = await context.newPage();
  await late.goto(`${instance.url}/api/health`);
  await late.evaluate((lock) => {
    const held = () => new Promise((resolve) => setTimeout(resolve, 1500));
    void navigator.locks.request(lock, held);
  }, `stylet.window ${name}`);
  await desk.page.bringToFront();
  await desk.page.reload();
  await desk.drawn();
  expect(await nameOf(desk.page)).toBe(name);
  await desk.page.keyboard.press('Control+z');
  await expect.poll(async () => (await instance.annotations(deck)).length).toBe(0);
});

test('a window that is opened as a copy of another has a name of its own', async ({
  desk,
  deck,
  instance,
}) => {
  await desk.open(instance.url, deck);
  await line(desk, 30);
  const name = await nameOf(desk.page);
  const copied = desk.page.waitForEvent('popup');
  await desk.page.evaluate(() => void window.open(location.href));
  const copy = await copied;
  await expect(copy.getByRole('button', { name: /^Undo/ })).toBeDisabled();
  expect(await nameOf(copy)).not.toBe(name);
  expect(await nameOf(desk.page)).toBe(name);
});
