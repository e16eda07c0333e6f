import { expect, test } from './support/fixtures';
import { DeskDriver } from './support/desk';
import type { Instance } from './support/instance';

/** What the server knows of how a document is read. */
async function reading(
  instance: Instance,
  id: string,
): Promise<{ place: { pageId: string } | null; seen: string[] }> {
  const reply = await fetch(`${instance.url}/api/documents/${id}/reading`);
  return (await reply.json()) as { place: { pageId: string } | null; seen: string[] };
}

test('what was read, annotated and bookmarked is shown by chapter, and leads on', async ({
  desk,
  deck,
  instance,
}) => {
  await desk.open(instance.url, deck);
  const { page } = desk;
  await expect.poll(async () => (await reading(instance, deck)).seen.length).toBe(1);
  await desk.goTo('16');
  await page.keyboard.press('b');
  await desk.saved();
  await expect.poll(async () => (await reading(instance, deck)).seen.length).toBe(2);
  await page.getByRole('button', { name: 'Further actions' }).click();
  await page.getByRole('menuitem', { name: 'What I have read' }).click();
  const dialog = page.getByRole('dialog');
  await expect(dialog).toContainText('2 of 48 seen · 1 bookmarked');
  const chapter = (name: RegExp) => dialog.getByRole('button', { name });
  await expect(chapter(/^2 Into shallow water: 1 of 9 seen · 1 bookmarked/)).toBeVisible();
  await expect(chapter(/^3 Breaking: 0 of 11 seen, not read yet/)).toBeVisible();
  await dialog.getByRole('button', { name: 'Go on at page 17, not seen yet' }).click();
  await expect(page.getByLabel('Page, by label or number')).toHaveValue('17');
});

test('a document opens where one was, on another device too', async ({
  desk,
  deck,
  instance,
  browser,
}) => {
  await desk.open(instance.url, deck);
  await desk.goTo('31');
  const { pages } = (await (await fetch(`${instance.url}/api/documents/${deck}`)).json()) as {
    pages: { id: string }[];
  };
  await expect.poll(async () => (await reading(instance, deck)).place?.pageId).toBe(pages[30].id);
  const elsewhere = await browser.newContext({ viewport: { width: 800, height: 1100 } });
  const other = new DeskDriver(await elsewhere.newPage());
  await other.open(instance.url, deck);
  await expect(other.page.getByLabel('Page, by label or number')).toHaveValue('31');
  await elsewhere.close();
});
