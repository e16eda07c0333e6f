import { expect, test } from './support/fixtures';

test('a document without an outline gets one from its headings, in one step, without what was unticked', async ({
  desk,
  deckPdf,
  instance,
}) => {
  const { PDFDocument } = await import('@cantoo/pdf-lib');
  const bare = await PDFDocument.create();
  const deck = await PDFDocument.load(deckPdf);
  for (const page of await bare.copyPages(deck, [0, 1, 2, 3, 4, 5])) bare.addPage(page);
  const id = await instance.bringIn(await bare.save(), 'Bare.pdf');
  await desk.open(instance.url, id);
  const { page } = desk;
  const rows = page.locator('stylet-index-panel .row');
  await page.getByRole('button', { name: 'Outline from the headings' }).click();
  const dialog = page.getByRole('dialog');
  await expect(dialog.getByText('6 headings stand out')).toBeVisible();
  await dialog.getByRole('checkbox', { name: 'Overview' }).uncheck();
  await dialog.getByRole('button', { name: 'Use 5 headings' }).click();
  await desk.saved();
  await expect(rows).toHaveCount(5);
  await expect(rows.filter({ hasText: 'Overview' })).toHaveCount(0);
  await rows.filter({ hasText: 'Linear theory' }).locator('.entry').click();
  await expect(page.getByLabel('Page, by label or number')).toHaveValue('5');
  await page.keyboard.press('Control+z');
  await desk.saved();
  await expect(page.getByText('Nothing is listed yet.')).toBeVisible();
});

test('what is proposed for a document with an outline says that it takes its place', async ({
  desk,
  deck,
  instance,
}) => {
  await desk.open(instance.url, deck);
  const { page } = desk;
  await page.getByRole('button', { name: 'Further actions' }).click();
  await page.getByRole('menuitem', { name: 'Outline from the headings' }).click();
  const dialog = page.getByRole('dialog');
  await expect(dialog).toContainText('They take the place of the 46 entries there are');
  await dialog.getByRole('button', { name: 'Cancel' }).click();
  await expect(page.locator('stylet-index-panel .row').first()).toContainText('1 Waves at sea');
});
