import type { Browser } from '@playwright/test';
import { newId } from '@stylet/core/document';
import { DeskDriver } from './support/desk';
import { expect, test, SLIDE } from './support/fixtures';
import type { Instance } from './support/instance';

const line = async (desk: DeskDriver, y: number): Promise<void> =>
  desk.pen([await desk.spot(1, 80, y, SLIDE), await desk.spot(1, 300, y, SLIDE)]);

/** Whether there is ink where `line` draws it. */
const isInkAt = async (desk: DeskDriver, y: number): Promise<boolean> =>
  (await desk.darkestNear(await desk.spot(1, 200, y, SLIDE))) < 120;

/** Another device: a browser that shares nothing with the first. */
async function device(browser: Browser, instance: Instance, id: string): Promise<DeskDriver> {
  const context = await browser.newContext({ viewport: { width: 820, height: 1180 } });
  const desk = new DeskDriver(await context.newPage());
  await desk.open(instance.url, id);
  return desk;
}

test('what is written on one device is seen on the other at once, and undo is one’s own', async ({
  desk,
  deck,
  instance,
  browser,
}) => {
  await desk.open(instance.url, deck);
  const other = await device(browser, instance, deck);
  try {
    await line(desk, 30);
    await expect.poll(() => isInkAt(other, 30)).toBe(true);
    await line(other, 60);
    await expect.poll(() => isInkAt(desk, 60)).toBe(true);
    await desk.page.keyboard.press('Control+z');
    await expect.poll(() => isInkAt(other, 30)).toBe(false);
    expect(await isInkAt(other, 60)).toBe(true);
    await expect(desk.page.getByRole('button', { name: /^Undo/ })).toBeDisabled();
    expect(await instance.annotations(deck)).toHaveLength(1);
  } finally {
    await other.page.context().close();
  }
});

test('what two devices wrote while the server was away is on both when it is back, without a reload', async ({
  desk,
  deck,
  instance,
  browser,
}) => {
  await desk.open(instance.url, deck);
  const other = await device(browser, instance, deck);
  try {
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
  } finally {
    await other.page.context().close();
  }
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
  const { pages } = (await reply.json()) as { pages: { id: string }[] };
  const removal = {
    id: newId(),
    documentId: deck,
    author: 'Ada',
    at: new Date().toISOString(),
    baseRevision: 0,
    effect: { type: 'page.remove', pageId: pages[0].id },
  };
  await fetch(`${instance.url}/api/documents/${deck}/operations`, {
    method: 'POST',
    headers: { 'content-type': 'application/json' },
    body: JSON.stringify({ operations: [removal] }),
  });
  await expect(desk.page.getByText('A page (1) was removed by Ada.')).toBeVisible();
  await expect(desk.page.getByText('of 47', { exact: true })).toBeVisible();
  await desk.page.getByRole('button', { name: 'Bring back' }).click();
  await expect(count).toBeVisible();
  await desk.saved();
});
