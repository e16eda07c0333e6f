import { execFileSync } from 'node:child_process';
import { mkdtempSync, writeFileSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import type { DeskDriver } from './support/desk';
import type { Instance } from './support/instance';
import { expect, test } from './support/fixtures';

/** How often words stand in a PDF and in the addresses of its links, as poppler reads it. */
function countIn(pdf: Uint8Array, words: RegExp): number {
  const file = join(mkdtempSync(join(tmpdir(), 'stylet-find-')), 'file.pdf');
  writeFileSync(file, pdf);
  const text = execFileSync('pdftotext', [file, '-'], {
    encoding: 'utf8',
    maxBuffer: 64 * 1024 * 1024,
  });
  const joined = text.replace(/(\p{L})[-\u2010]\n/gu, '$1').replace(/\s+/g, ' ');
  const addresses = execFileSync('pdfinfo', ['-url', file], { encoding: 'utf8' });
  return [joined, addresses].reduce((sum, all) => sum + (all.match(words)?.length ?? 0), 0);
}

/** How many entries of a document's outline say something. */
async function entriesWith(instance: Instance, id: string, words: RegExp): Promise<number> {
  const reply = await fetch(`${instance.url}/api/documents/${id}`);
  const { landmarks } = (await reply.json()) as { landmarks: { title?: string }[] };
  return landmarks.filter(({ title }) => title?.match(words)).length;
}

const field = (desk: DeskDriver) => desk.page.getByLabel('Page, by label or number');
const status = (desk: DeskDriver) => desk.page.getByRole('search').getByRole('status');
const find = async (desk: DeskDriver, words: string): Promise<void> => {
  await desk.page.keyboard.press('Control+f');
  await desk.page.getByLabel('Find in this document').fill(words);
};

test('words are found all through a book, as often as poppler finds them, and shown one by one', async ({
  desk,
  handbook,
  handbookPdf,
  instance,
}) => {
  await desk.open(instance.url, handbook);
  await find(desk, 'groyne');
  const count = countIn(handbookPdf, /groyne/gi);
  expect(count).toBeGreaterThan(20);
  await expect(status(desk)).toHaveText(`– of ${count}`, { timeout: 60_000 });
  const { page } = desk;
  const list = page.getByRole('list', { name: 'Matches' });
  await expect(list.getByRole('listitem').first()).toContainText('groyne');
  await page.keyboard.press('Enter');
  await expect(status(desk)).toHaveText(`1 of ${count}`);
  const current = page.locator('.hit.current');
  await expect(current).toHaveCount(1);
  await expect(current).toBeInViewport();
  const first = await field(desk).inputValue();
  await page.keyboard.press('Shift+Enter');
  await expect(status(desk)).toHaveText(`${count} of ${count}`);
  await expect(field(desk)).not.toHaveValue(first);
  // The map shows where they are.
  const copper = await page
    .locator('stylet-document-map canvas')
    .evaluate((canvas: HTMLCanvasElement) => {
      const { data } = canvas.getContext('2d')!.getImageData(0, 0, canvas.width, canvas.height);
      let pixels = 0;
      for (let i = 0; i < data.length; i += 4)
        if (data[i] === 180 && data[i + 1] === 80 && data[i + 2] === 26) pixels++;
      return pixels;
    });
  expect(copper).toBeGreaterThan(100);
  await page.keyboard.press('Escape');
  await expect(page.locator('.hit')).toHaveCount(0);
  await page.getByLabel('Back', { exact: true }).click();
  await expect(field(desk)).toHaveValue('i');
});

test('phrases, whole words, case, and what must not be on the page', async ({
  desk,
  deck,
  deckPdf,
  instance,
}) => {
  await desk.open(instance.url, deck);
  const { page } = desk;
  const counts = async (words: string, pattern: RegExp): Promise<void> => {
    await find(desk, words);
    const count = countIn(deckPdf, pattern) + (await entriesWith(instance, deck, pattern));
    await expect(status(desk)).toHaveText(count === 0 ? 'None' : `– of ${count}`);
  };
  await counts('"the tide"', /the tide/gi);
  await counts('tide', /tide/gi);
  await page.getByRole('button', { name: 'Whole words' }).click();
  await counts('tide', /\btide\b/gi);
  await page.getByRole('button', { name: 'Same case' }).click();
  await counts('Tide', /\bTide\b/g);
  await counts('"no such words anywhere"', /no such words anywhere/g);
  await page.getByRole('button', { name: 'Whole words' }).click();
  await page.getByRole('button', { name: 'Same case' }).click();
  await find(desk, 'overview -waves');
  await expect(status(desk)).toHaveText('None');
});

test('what people named is found with the words of the pages, and says what it is', async ({
  desk,
  deck,
  instance,
}) => {
  await desk.open(instance.url, deck);
  const { page } = desk;
  await find(desk, 'shoaling');
  const list = page.getByRole('list', { name: 'Matches' });
  const entry = list.getByRole('listitem').filter({ hasText: 'Outline' });
  await expect(entry).toContainText('Shoaling');
  await field(desk).fill('1');
  await field(desk).press('Enter');
  await entry.getByRole('button').click();
  await expect(page.locator('stylet-page-view[data-page="16"]')).toBeInViewport();
});

test('the text that the server has read is used, the addresses of links too; without it the file is read', async ({
  desk,
  deck,
  instance,
}) => {
  await instance.indexed();
  const { page } = desk;
  const asked = page.waitForResponse(/\/texts\/0$/);
  await desk.open(instance.url, deck);
  const list = page.getByRole('list', { name: 'Matches' });
  const found = async (): Promise<void> => {
    await find(desk, 'course.example');
    await expect(status(desk)).toHaveText(/– of \d+$/, { timeout: 30_000 });
    await expect(list.getByRole('listitem').filter({ hasText: 'Link' })).toHaveCount(1);
    await page.keyboard.press('Enter');
    await expect(page.locator('.hit.current')).toBeInViewport();
  };
  await found();
  expect((await (await asked).json()) as { read: number }).toMatchObject({ read: 48 });

  await page.route(/\/texts\//, (route) => route.abort());
  await page.reload();
  await desk.drawn();
  await found();
});

test('where nothing is found, words of this document that may have been meant are offered', async ({
  desk,
  deck,
  instance,
}) => {
  await instance.indexed();
  await desk.open(instance.url, deck);
  await find(desk, 'shoalling');
  await expect(status(desk)).toHaveText('None');
  await desk.page.getByRole('button', { name: 'shoaling', exact: true }).click();
  await expect(desk.page.getByLabel('Find in this document')).toHaveValue('shoaling');
  await expect(status(desk)).toHaveText(/of \d+$/);
  // What is found lies beside the pages.
  const panel = (await desk.page.locator('stylet-find-bar').boundingBox())!;
  const pages = (await desk.page.locator('stylet-page-strip').boundingBox())!;
  expect(pages.x + pages.width).toBeLessThanOrEqual(panel.x);
});

test('whoever finds by keys types at once: the bar has the focus before the next key can come', async ({
  desk,
  deck,
  instance,
}) => {
  await desk.open(instance.url, deck);
  const focused = await desk.page.evaluate(() => {
    const key = { key: 'f', ctrlKey: true, bubbles: true, cancelable: true };
    document.body.dispatchEvent(new KeyboardEvent('keydown', key));
    return document.activeElement?.closest('stylet-find-bar') !== null;
  });
  expect(focused).toBe(true);
});
