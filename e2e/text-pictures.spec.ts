import type { Page } from '@playwright/test';
import { expect, test } from './support/fixtures';
import { QUARTERS, file, quarters } from './support/pictures';

const LOG = '# Slip\n\nBefore.\n\n![The slip at low water](img/slip.png)\n\nAfter.\n';
/** Of a page of A4, in points. */
const WIDE = 595.276;

const editor = (page: Page) => page.getByRole('textbox', { name: 'Text of the pages' });
const bar = (page: Page) => page.getByRole('toolbar', { name: 'Text of the pages' });

interface PictureBlock {
  readonly kind: string;
  readonly digest: string;
  readonly words?: string;
  readonly wide?: number;
  readonly align?: string;
}

/** Where the picture in the editor stands on its page, in points. */
const boxOf = (page: Page) =>
  editor(page)
    .getByRole('img')
    .first()
    .evaluate((element, wide) => {
      const sheet = element.closest('stylet-typed-words')!.getBoundingClientRect();
      const { left, top, width, height } = element.getBoundingClientRect();
      const scale = wide / sheet.width;
      return {
        x: (left - sheet.left) * scale,
        y: (top - sheet.top) * scale,
        width: width * scale,
        height: height * scale,
      };
    }, WIDE);

test('a picture that comes with a text stands on its pages, is made smaller, taken out and put back', async ({
  desk,
  instance,
}) => {
  const { page } = desk;
  const png = await quarters(400, 300).png().toBuffer();
  await page.goto(instance.url);
  await page
    .locator('input[type=file]')
    .setInputFiles([
      file('Slip log.md', 'text/markdown', Buffer.from(LOG)),
      file('slip.png', 'image/png', png),
    ]);
  await page.getByRole('link', { name: 'Slip log' }).first().click();
  await desk.drawn();
  const id = /documents\/([^/?]+)/.exec(page.url())![1];
  const blocks = async () =>
    (
      (await (await fetch(`${instance.url}/api/documents/${id}/text`)).json()) as {
        text: { blocks: PictureBlock[] };
      }
    ).text.blocks;
  const inText = async () => (await blocks()).filter(({ kind }) => kind === 'picture');
  expect(await inText()).toMatchObject([{ words: 'The slip at low water' }]);

  await page.getByRole('button', { name: 'Edit text' }).click();
  await expect(editor(page)).toBeFocused();
  await expect(editor(page).getByRole('img', { name: 'The slip at low water' })).toHaveCount(1);
  const before = await boxOf(page);
  // 400 pixels are 300 pt (CSS Values 4, 6.2).
  expect(Math.abs(before.width - 300)).toBeLessThan(0.5);
  const seen = (x: number, y: number, box: typeof before) =>
    expect.poll(async () => {
      const spot = await desk.spot(1, box.x + x * box.width, box.y + y * box.height, WIDE);
      return desk.colorAt(spot);
    });
  await seen(0.75, 0.75, before).toEqual([...QUARTERS[3]]);

  // Taken with the pen, it has tools of its own.
  await desk.pen([await desk.spot(1, before.x + 50, before.y + 200, WIDE)]);
  const width = bar(page).getByRole('textbox', { name: 'Width in mm' });
  await expect(width).toHaveValue('105.8');
  await width.fill('50');
  await width.press('Enter');
  await bar(page).getByRole('button', { name: 'In the middle' }).click();
  await expect(bar(page)).toContainText('Text saved');
  await expect.poll(async () => (await boxOf(page)).width).toBeCloseTo((50 * 72) / 25.4, 0);
  const small = await boxOf(page);
  expect(small.x + small.width / 2).toBeCloseTo(WIDE / 2, 0);
  expect(await inText()).toMatchObject([{ align: 'center' }]);

  await page.keyboard.press('Delete');
  await expect(editor(page).getByRole('img')).toHaveCount(0);
  await expect.poll(inText).toEqual([]);
  await page.keyboard.press('Control+z');
  await expect(editor(page).getByRole('img')).toHaveCount(1);

  // Another one from a file, behind the words with the caret; words can follow it.
  await page.keyboard.press('Control+End');
  const chooser = page.waitForEvent('filechooser');
  await bar(page).getByRole('button', { name: 'Put a picture in' }).click();
  await (
    await chooser
  ).setFiles(file('quay.jpg', 'image/jpeg', await quarters(200, 100).jpeg().toBuffer()));
  await expect(width).toHaveValue('52.9');
  await bar(page).getByRole('button', { name: 'Words and link' }).click();
  await page.getByRole('textbox', { name: 'What it shows' }).fill('The quay');
  await page.keyboard.press('Tab');
  await page.keyboard.press('Escape');
  await bar(page).getByRole('button', { name: 'Done' }).click();
  await expect(editor(page)).toHaveCount(0);
  expect((await blocks()).map(({ kind }) => kind)).toEqual([
    ...['paragraph', 'paragraph', 'picture', 'paragraph', 'picture', 'paragraph'],
  ]);
  expect((await inText())[1]).toMatchObject({ words: 'The quay' });
  // On the page of the file it stands where it stood while it was edited.
  await seen(0.25, 0.25, small).toEqual([...QUARTERS[0]]);
});
