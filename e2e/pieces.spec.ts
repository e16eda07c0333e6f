import { readFileSync } from 'node:fs';
import { join } from 'node:path';
import { expect, test } from './support/fixtures';

/** Over a megabyte: neither the first nor the last of it has the pages in its middle. */
const manual = join(import.meta.dirname, '../.data/documents/asymptote-doc/asymptote.pdf');

test('a page whose bytes cannot be had is told of, and comes when the server is back', async ({
  desk,
  instance,
}) => {
  const id = await instance.bringIn(readFileSync(manual), 'Manual.pdf');
  await desk.open(instance.url, id);
  await desk.loaded();
  await instance.kill();
  const { page } = desk;
  const field = page.getByLabel('Page, by label or number');
  await field.fill('90');
  await field.press('Enter');
  await expect(page.getByText('A page could not be shown')).toBeVisible();
  // Before, only the whole page at its smallest shows, if that.
  const sharp = (): Promise<boolean> =>
    page.evaluate(() => {
      const middle = document.elementFromPoint(500, 400)?.closest('stylet-page-view');
      const canvas = middle?.querySelector<HTMLCanvasElement>('canvas.bitmap[width]');
      return !!canvas && Math.abs(canvas.width - middle!.clientWidth * devicePixelRatio) < 2;
    });
  expect(await sharp()).toBe(false);
  await instance.start();
  await expect.poll(sharp, { timeout: 60_000 }).toBe(true);
});
