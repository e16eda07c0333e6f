import type { FrameLocator, Page } from '@playwright/test';
import { expect, test, SLIDE } from './support/fixtures';
import type { DeskDriver, Spot } from './support/desk';
import { still } from './support/still';

const pane = (page: Page, number: number): FrameLocator =>
  page.frameLocator(`iframe[title="Pane ${number}"]`);

async function drawn(page: Page, number: number): Promise<void> {
  await expect(
    pane(page, number).locator('stylet-page-view canvas.bitmap[width]').first(),
  ).toBeVisible();
  await still(pane(page, number).locator(':root'));
}

const pageField = (page: Page, number: number) =>
  pane(page, number).getByLabel('Page, by label or number');

async function spot(page: Page, number: number, of: number, x: number, y: number): Promise<Spot> {
  const box = (await pane(page, number)
    .locator(`stylet-page-view[data-page="${of}"]`)
    .boundingBox())!;
  const scale = box.width / SLIDE;
  return { x: box.x + x * scale, y: box.y + y * scale };
}

/** A document in two panes side by side. */
async function openTwice(desk: DeskDriver, url: string, id: string): Promise<void> {
  await desk.page.setViewportSize({ width: 1600, height: 900 });
  await desk.open(url, id);
  await desk.page.getByLabel('More', { exact: true }).click();
  await desk.page.getByRole('menuitem', { name: 'Once more, beside' }).click();
  await drawn(desk.page, 1);
  await drawn(desk.page, 2);
}

test('a document is open twice, each with its own place, and what is written shows in both', async ({
  desk,
  deck,
  instance,
}) => {
  const { page } = desk;
  await openTwice(desk, instance.url, deck);
  await pageField(page, 2).fill('9');
  await pageField(page, 2).press('Enter');
  await drawn(page, 2);
  await still(pane(page, 1).locator(':root'));
  await expect(pageField(page, 1)).toHaveValue('1');
  await pageField(page, 1).fill('9');
  await pageField(page, 1).press('Enter');
  await drawn(page, 1);
  // The pen that is taken in one pane is in hand in the other.
  await pane(page, 1)
    .getByLabel(/^Fineliner, .*key 2$/)
    .click();
  await expect(pane(page, 2).getByLabel(/^Fineliner, .*key 2$/)).toHaveAttribute(
    'aria-pressed',
    'true',
  );
  const [from, to] = [await spot(page, 1, 9, 100, 300), await spot(page, 1, 9, 400, 320)];
  await desk.pen([from, to]);
  await expect(pane(page, 1).locator('.sync')).toHaveText('Saved');
  await expect.poll(async () => (await instance.annotations(deck)).length).toBe(1);
  const middle = await spot(page, 2, 9, 250, 310);
  await expect.poll(() => desk.darkestNear(middle)).toBeLessThan(120);

  // A reload leaves each where it is.
  await page.reload();
  await drawn(page, 2);
  await expect(pageField(page, 2)).toHaveValue('9');
  await pane(page, 1).getByLabel('More', { exact: true }).click();
  await pane(page, 1).getByRole('menuitem', { name: 'Close this pane' }).click();
  await expect(page).toHaveURL(new RegExp(`/documents/${deck}`));
  await desk.drawn();
});

test('panes scroll together when they are to, as far apart as they were', async ({
  desk,
  deck,
  instance,
}) => {
  const { page } = desk;
  await openTwice(desk, instance.url, deck);
  await pageField(page, 2).fill('5');
  await pageField(page, 2).press('Enter');
  await drawn(page, 2);
  await pane(page, 1).getByLabel('How pages lie').click();
  await pane(page, 1).getByRole('menuitemcheckbox', { name: 'Panes scroll together' }).click();
  await pageField(page, 1).fill('11');
  await pageField(page, 1).press('Enter');
  await expect(pageField(page, 2)).toHaveValue('15');
  // Whichever is moved, the other follows.
  await pageField(page, 2).fill('30');
  await pageField(page, 2).press('Enter');
  await expect(pageField(page, 1)).toHaveValue('26');
});

test('a tab that is dragged over the pages becomes a pane; its edge is moved', async ({
  desk,
  deck,
  handbook,
  instance,
}) => {
  const { page } = desk;
  await page.setViewportSize({ width: 1600, height: 900 });
  await desk.open(instance.url, handbook);
  await desk.open(instance.url, deck);
  const tab = (await page.getByRole('link', { name: 'Field handbook' }).boundingBox())!;
  await page.mouse.move(tab.x + 30, tab.y + 15);
  await page.mouse.down();
  await page.mouse.move(tab.x + 40, tab.y + 40, { steps: 4 });
  await page.mouse.move(900, 400, { steps: 8 });
  await page.mouse.up();
  await drawn(page, 1);
  await drawn(page, 2);
  await expect(pane(page, 2).getByLabel('Title')).toHaveValue('Field handbook');
  const edge = page.getByRole('separator', { name: 'Edge after pane 1' });
  const before = (await edge.boundingBox())!;
  await page.mouse.move(before.x + 3, 400);
  await page.mouse.down();
  await page.mouse.move(before.x - 200, 400, { steps: 6 });
  await page.mouse.up();
  await expect
    .poll(async () => Math.abs(before.x - 200 - (await edge.boundingBox())!.x))
    .toBeLessThan(12);
});
