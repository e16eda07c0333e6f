import { expect, test, SLIDE } from './support/fixtures';

test('keywords of all documents are listed, found, and lead to their places', async ({
  desk,
  deck,
  handbook,
  instance,
}) => {
  const { page } = desk;
  await desk.open(instance.url, deck);
  await desk.pen([await desk.spot(1, 330, 60, SLIDE), await desk.spot(1, 520, 90, SLIDE)]);
  await desk.saved();
  await page.keyboard.press('Control+a');
  await page.getByLabel('More for the selection').click();
  await page.getByRole('menuitem', { name: 'Make a keyword' }).click();
  await page.getByRole('textbox', { name: 'Words, if you like' }).fill('Swash limit');
  await page.getByRole('button', { name: 'Add', exact: true }).click();
  await desk.saved();
  await page.goto(instance.url);
  await page.getByRole('link', { name: 'Keywords' }).click();
  const group = page.locator('section').filter({ hasText: 'Swash limit' });
  await expect(group).toContainText('Waves and tides');
  const face = group.locator('stylet-writing-picture canvas').first();
  await expect
    .poll(() =>
      face.evaluate((canvas: HTMLCanvasElement) => {
        const { data } = canvas.getContext('2d')!.getImageData(0, 0, canvas.width, canvas.height);
        return data.some((value, i) => i % 4 === 3 && value > 200);
      }),
    )
    .toBe(true);
  const find = page.getByLabel('Find a keyword');
  await find.fill('nowhere');
  await expect(page.getByText('No keyword has “nowhere” in it.')).toBeVisible();
  await find.fill('SWASH');
  await group.getByRole('link').first().click();
  await expect(page).toHaveURL(new RegExp(`/documents/${deck}`));
  await expect(page.getByLabel('Page, by label or number')).toHaveValue('1');
  expect(handbook).not.toBe(deck);
});

test('a page gets a keyword, which leads to it from the Index and comes back from the export', async ({
  desk,
  deck,
  instance,
}) => {
  const { page } = desk;
  await desk.open(instance.url, deck);
  await desk.goTo('9');
  await page.getByRole('button', { name: 'Further actions' }).click();
  await page.getByRole('menuitem', { name: 'Keyword for this page' }).click();
  await page.getByRole('textbox', { name: 'Keyword' }).fill('swell');
  await page.getByRole('button', { name: 'Add', exact: true }).click();
  await desk.saved();
  const reply = await fetch(`${instance.url}/api/documents/${deck}/export`);
  const again = await instance.bringIn(new Uint8Array(await reply.arrayBuffer()), 'Again.pdf');
  await desk.open(instance.url, again);
  await page
    .locator('stylet-index-panel .row')
    .filter({ hasText: /^\s*swell/ })
    .locator('.entry')
    .click();
  await expect(page.getByLabel('Page, by label or number')).toHaveValue('9');
});
