import { readFileSync } from 'node:fs';
import { execFileSync } from 'node:child_process';
import { expect, test, SLIDE } from './support/fixtures';

const file = (name: string, buffer: Uint8Array) => ({
  name,
  mimeType: 'application/pdf',
  buffer: Buffer.from(buffer),
});

test('an empty library says what to do; files come in with progress and clear refusals', async ({
  page,
  instance,
  deckPdf,
}) => {
  await page.goto(instance.url);
  await page.setInputFiles('input[type=file]', [
    file('Slides.pdf', deckPdf),
    file('Letter.pdf', Buffer.from('no pdf at all')),
  ]);
  await expect(page.getByText('This is not a PDF.')).toBeVisible();
  await expect(page.getByText('Save or print it as a PDF')).toBeVisible();
  const card = page.locator('stylet-document-card', { hasText: 'Slides' }).first();
  await expect(card).toContainText('48 pages');
  await expect(card).toContainText('today');
  const cover = card.locator('img');
  await expect
    .poll(() => cover.evaluate((img: HTMLImageElement) => img.naturalWidth))
    .toBeGreaterThan(300);
  await page.getByRole('button', { name: 'Put away' }).click();
  await expect(page.getByText('Brought in')).toBeHidden();
});

test('files can be dropped anywhere on the library', async ({ page, instance, deckPdf }) => {
  await page.goto(instance.url);
  const data = await page.evaluateHandle(
    (bytes) => {
      const transfer = new DataTransfer();
      transfer.items.add(
        new File([Uint8Array.from(bytes)], 'Dropped.pdf', { type: 'application/pdf' }),
      );
      return transfer;
    },
    [...deckPdf],
  );
  await page.dispatchEvent('main', 'dragover', { dataTransfer: data });
  await expect(page.getByText('Let go to bring them in')).toBeVisible();
  await page.dispatchEvent('main', 'drop', { dataTransfer: data });
  await expect(page.locator('stylet-document-card', { hasText: 'Dropped' })).toBeVisible();
});

test('a damaged file is repaired, and the library says so', async ({ page, instance, deckPdf }) => {
  await page.goto(instance.url);
  await page.setInputFiles('input[type=file]', [
    file('Torn.pdf', deckPdf.subarray(0, deckPdf.length - 30)),
  ]);
  await expect(page.getByText('The file was damaged and has been repaired')).toBeVisible();
});

test('documents are renamed, duplicated, removed and brought back, by menu, right button and keys', async ({
  page,
  instance,
  deckPdf,
}) => {
  await page.goto(instance.url);
  await page.setInputFiles('input[type=file]', [file('2306.01234v2.pdf', deckPdf)]);
  // Nobody gave the file that name: it is called by its title, until one says otherwise.
  const item = page.getByRole('listitem').filter({ hasText: '2306.01234v2' });
  await item.getByRole('button', { name: 'Call it “2306.01234v2”' }).click();
  const card = (title: string) =>
    page.locator('stylet-document-card').filter({ has: page.getByText(title, { exact: true }) });
  await expect(card('2306.01234v2')).toHaveCount(1);
  await page.getByRole('button', { name: 'Put away' }).click();

  await card('2306.01234v2').getByRole('link').focus();
  await page.keyboard.press('F2');
  await page.getByRole('textbox', { name: 'Name' }).fill('Groyne survey');
  await page.keyboard.press('Enter');
  await expect(card('Groyne survey')).toHaveCount(1);
  await expect
    .poll(async () => (await page.request.get(`${instance.url}/api/documents`)).text())
    .toContain('"Groyne survey"');
  await page.reload();
  await card('Groyne survey').getByRole('link').click({ button: 'right' });
  await page.getByRole('menuitem', { name: 'Duplicate' }).click();
  await expect(card('Groyne survey (copy)')).toHaveCount(1);

  await card('Groyne survey').getByRole('link').focus();
  await page.keyboard.press('Delete');
  await expect(card('Groyne survey')).toHaveCount(0);
  await page.getByRole('button', { name: 'Undo' }).click();
  await expect(card('Groyne survey')).toHaveCount(1);
  await card('Groyne survey (copy)').getByRole('link').focus();
  await page.keyboard.press('Delete');
  await page.getByRole('link', { name: 'Trash' }).click();
  const removed = page.getByRole('listitem').filter({ hasText: 'Groyne survey (copy)' });
  await removed.getByRole('button', { name: 'Restore' }).click();
  await expect(removed).toHaveCount(0);
  await page.getByRole('link', { name: 'Library' }).click();
  await expect(card('Groyne survey (copy)')).toHaveCount(1);
});

test('from bringing in to handing over', async ({ page, desk, instance, deckPdf }, info) => {
  await page.goto(instance.url);
  await page.setInputFiles('input[type=file]', [file('Whole way.pdf', deckPdf)]);
  await page.locator('stylet-document-card', { hasText: 'Whole way' }).locator('a').click();
  await desk.drawn();
  await desk.pen([await desk.spot(1, 80, 60, SLIDE), await desk.spot(1, 400, 60, SLIDE)]);
  await desk.saved();
  await page.getByRole('button', { name: 'Export' }).click();
  const download = page.waitForEvent('download');
  await page.getByRole('link', { name: 'Download PDF' }).click();
  const path = info.outputPath('export.pdf');
  await (await download).saveAs(path);
  expect((await download).suggestedFilename()).toBe('Whole way.pdf');
  const bytes = readFileSync(path);
  expect(bytes.subarray(0, deckPdf.length).equals(Buffer.from(deckPdf))).toBe(true);
  execFileSync('pdftoppm', ['-r', '72', '-singlefile', '-f', '1', '-l', '1', '-png', path, path]);
  expect(execFileSync('qpdf', ['--check', path], { encoding: 'utf8' })).toContain('No syntax');
});

test('a document can be renamed on the desk', async ({ page, desk, deck, instance }) => {
  await desk.open(instance.url, deck);
  const title = page.getByLabel('Title');
  await title.fill('Week one');
  await title.press('Enter');
  await desk.saved();
  await page.getByLabel('Library').click();
  await expect(page.locator('stylet-document-card', { hasText: 'Week one' })).toBeVisible();
});

test('nothing is out of reach on a narrow screen', async ({ page, desk, deck, instance }) => {
  await page.setViewportSize({ width: 360, height: 740 });
  await desk.open(instance.url, deck);
  for (const name of [
    /^Fineliner, .*key 1$/,
    /^Highlighter, .*key 4$/,
    /^Eraser, key E$/,
    /^Undo$/,
    /^Export$/,
    /^Back$/,
  ]) {
    const box = (await page
      .getByLabel(name)
      .or(page.getByRole('button', { name }))
      .first()
      .boundingBox())!;
    expect(box.x).toBeGreaterThanOrEqual(0);
    expect(box.x + box.width).toBeLessThanOrEqual(360);
  }
  // The kit ends above the status bar, and leads to what there is more of it; menus can be read.
  await page.setViewportSize({ width: 400, height: 480 });
  const rail = (await page.locator('stylet-rail').boundingBox())!;
  const status = (await page.locator('stylet-status-bar').boundingBox())!;
  expect(rail.y + rail.height).toBeLessThanOrEqual(status.y);
  await expect(page.getByLabel('All pens and tools')).toBeVisible();
  await page.getByLabel('How pages lie').click();
  const words = (await page.getByRole('menuitemradio', { name: 'Nine at a time' }).boundingBox())!;
  expect(words.width).toBeGreaterThan(150);
  await page.keyboard.press('Escape');
  await page.getByRole('button', { name: 'Zoom', exact: true }).click();
  await page.getByRole('menuitem', { name: '200 %' }).click();
  await expect(page.getByRole('button', { name: 'Zoom', exact: true })).toHaveText(/200 %/);
});
