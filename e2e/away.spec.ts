import { DeskDriver } from './support/desk';
import { expect, test, SLIDE } from './support/fixtures';
import { OwnBrowser } from './support/own-browser';

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

test('without the server a document opens where one was last', async ({ desk, deck, instance }) => {
  await desk.open(instance.url, deck);
  await desk.keptHere();
  await desk.goTo('30');
  await desk.loaded();
  // Another window of the browser, whose own place is not this one.
  const other = new DeskDriver(await desk.page.context().newPage());
  await other.page.goto(instance.url);
  await expect(other.page.locator('stylet-document-card').first()).toBeVisible();
  await other.loaded();
  await instance.kill();
  await other.page.locator('stylet-document-card a').first().click();
  await other.drawn();
  await expect(other.page.getByLabel('Page, by label or number')).toHaveValue('30');
  await instance.start();
});

test('what is kept here opens where one was last on another device', async ({
  desk,
  deck,
  instance,
}) => {
  await desk.open(instance.url, deck);
  await desk.keptHere();
  await desk.goTo('30');
  await desk.loaded();
  const url = `${instance.url}/api/documents/${deck}`;
  interface Told {
    readonly pages: { readonly id: string }[];
    readonly place: { readonly pageId: string } | null;
  }
  const asked = async () => (await (await fetch(url)).json()) as Told;
  const { pages } = await asked();
  // What this window has yet to tell would count as later than what the other device tells.
  await expect.poll(async () => (await asked()).place?.pageId).toBe(pages[29].id);
  const told = await fetch(`${url}/reading`, {
    method: 'PUT',
    headers: { 'content-type': 'application/json' },
    body: JSON.stringify({ place: { pageId: pages[11].id, share: 0 }, seen: [] }),
  });
  expect(told.status).toBe(204);
  const other = new DeskDriver(await desk.page.context().newPage());
  await other.open(instance.url, deck);
  await expect(other.page.getByLabel('Page, by label or number')).toHaveValue('12');
});

test('a browser with no room left says that a document is not kept, and all else goes on', async ({
  desk,
  handbook,
  instance,
}) => {
  const session = await desk.page.context().newCDPSession(desk.page);
  const quota = (quotaSize?: number) =>
    session.send('Storage.overrideQuotaForOrigin', {
      origin: instance.url,
      ...(quotaSize === undefined ? {} : { quotaSize }),
    });
  await desk.open(instance.url, handbook);
  await quota(400_000);
  try {
    const told = desk.page.getByText('There is no room on this device for this document');
    await expect(told).toBeVisible();
    await desk.goTo('12');
  } finally {
    await quota();
  }
});

test('a browser that is killed in the middle of a stroke, and while a document is being kept, has lost nothing else', async ({
  playwright,
  deck,
  handbook,
  instance,
}) => {
  const browser = new OwnBrowser(playwright.chromium);
  try {
    const first = await browser.launched();
    await first.open(instance.url, deck);
    await instance.kill();
    const line = async (desk: DeskDriver, y: number, playing = {}): Promise<void> =>
      desk.pen([await desk.spot(1, 80, y, SLIDE), await desk.spot(1, 300, y, SLIDE)], {}, playing);
    await line(first, 30);
    await expect(first.page.locator('.sync')).toHaveText('Offline · 1 change kept here');
    const unfinished = line(first, 60, { hold: 20_000 }).catch(() => undefined);
    await first.pause(1500);
    await browser.kill();
    await unfinished;
    await instance.start();
    const again = await browser.launched();
    await again.open(instance.url, deck);
    await again.saved();
    expect(await instance.annotations(deck)).toHaveLength(1);
    await again.open(instance.url, handbook);
    await again.keepingBegun();
    await browser.kill();
    const third = await browser.launched();
    await third.open(instance.url, handbook);
    await third.keptHere();
    await third.page.context().close();
  } finally {
    await browser.remove();
  }
});
