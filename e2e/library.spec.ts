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
    'Fineliner, key 1',
    'Highlighter, key 4',
    'Eraser, key E',
    'Undo',
    'Export',
    'Back',
  ]) {
    const box = (await page
      .getByLabel(name, { exact: true })
      .or(page.getByRole('button', { name, exact: true }))
      .first()
      .boundingBox())!;
    expect(box.x).toBeGreaterThanOrEqual(0);
    expect(box.x + box.width).toBeLessThanOrEqual(360);
  }
});
