import { readFileSync } from 'node:fs';
import { smallPdf } from '../core/src/pdf/testing/small-file';
import { SLIDE, expect, test } from './support/fixtures';
import { lockedPdf } from './support/locked-pdf';

test('a PDF with a password asks for it and comes in; kept, it opens the next one too', async ({
  page,
  instance,
  deckPdf,
}) => {
  await page.goto(instance.url);
  const buffer = lockedPdf(deckPdf, 'spring tide');
  const choose = (name: string) =>
    page.locator('input[type=file]').setInputFiles({ name, mimeType: 'application/pdf', buffer });
  const rows = page.getByLabel('Files being brought in').locator('li');
  await choose('Locked.pdf');
  await rows.getByRole('button', { name: 'Give the password' }).click();
  const give = async (password: string) => {
    await page.getByLabel('Password', { exact: true }).fill(password);
    await page.keyboard.press('Enter');
  };
  await give('neap tide');
  await expect(rows.getByText('This is not its password')).toBeVisible();
  await rows.getByRole('button', { name: 'Give the password' }).click();
  await page
    .getByRole('checkbox', { name: 'Try it for other files too, until this window is closed' })
    .check();
  await give('spring tide');
  await expect(rows.getByText('Exports will not ask for its password.')).toBeVisible();
  await choose('Locked as well.pdf');
  await expect(rows.nth(1).getByRole('link', { name: 'Open' })).toBeVisible();
  await rows.nth(0).getByRole('link', { name: 'Open' }).click();
  await page.getByRole('button', { name: 'Export' }).click();
  await expect(
    page.getByText('The original asks for a password; this PDF will not.'),
  ).toBeVisible();
});

test('a change the server refuses is put aside and shown, and the others are saved', async ({
  desk,
  deck,
  instance,
}) => {
  const { page } = desk;
  await desk.withoutSocket();
  await desk.open(instance.url, deck);
  const line = async (y: number) =>
    desk.pen([await desk.spot(1, 80, y, SLIDE), await desk.spot(1, 300, y, SLIDE)]);
  let refused: string | undefined;
  await page.route('**/operations', async (route) => {
    const { operations } = route.request().postDataJSON() as { operations: { id: string }[] };
    refused ??= operations[0].id;
    if (!operations.some(({ id }) => id === refused)) return route.continue();
    return route.fulfill({
      status: 400,
      contentType: 'application/problem+json',
      body: JSON.stringify({
        type: 'urn:stylet:problem:operation-invalid',
        title: 'An operation does not fit this document',
        status: 400,
        detail: 'It was refused by a test.',
        code: 'operation-invalid',
        advice: 'Reload the document and try again.',
      }),
    });
  });
  await line(30);
  await expect(page.getByRole('button', { name: '1 change not saved' })).toBeVisible();
  await line(50);
  await line(70);
  await expect(page.locator('.sync')).toHaveText('All else saved');
  await expect.poll(async () => (await instance.annotations(deck)).length).toBe(2);
  // It is there after a reload, and goes when it is sent again.
  await page.reload();
  await desk.drawn();
  await page.getByRole('button', { name: '1 change not saved' }).click();
  const dialog = page.getByRole('dialog');
  await expect(dialog.getByText('Added ink')).toBeVisible();
  await expect(dialog.getByText('It was refused by a test.')).toBeVisible();
  const download = page.waitForEvent('download');
  await dialog.getByRole('button', { name: 'Save as a file' }).click();
  const file = JSON.parse(readFileSync(await (await download).path(), 'utf8')) as {
    operations: { id: string }[];
  };
  expect(file.operations.map(({ id }) => id)).toEqual([refused]);
  await page.unroute('**/operations');
  await dialog.getByRole('button', { name: 'Send again' }).click();
  await expect.poll(async () => (await instance.annotations(deck)).length).toBe(3);
  await expect(page.getByRole('button', { name: /not saved/ })).toHaveCount(0);
});

const certified = smallPdf([
  '<< /Type /Catalog /Pages 2 0 R /AcroForm << /Fields [4 0 R] /SigFlags 3 >> /Perms << /DocMDP 5 0 R >> /Names << /EmbeddedFiles << /Names [(a) 6 0 R] >> >> >>',
  '<< /Type /Pages /Kids [3 0 R] /Count 1 /MediaBox [0 0 720 405] >>',
  '<< /Type /Page /Parent 2 0 R /Annots [4 0 R] >>',
  '<< /Type /Annot /Subtype /Widget /FT /Sig /T (Signature) /Rect [20 20 200 60] /P 3 0 R /V 5 0 R >>',
  '<< /Type /Sig /Filter /Adobe.PPKLite /ByteRange [0 10 20 30] /Contents <00> /Reference [<< /TransformMethod /DocMDP /TransformParams << /P 1 >> >>] >>',
  '<< /Type /Filespec /UF (Readings.csv) /EF << /F 7 0 R >> >>',
  '<< /Type /EmbeddedFile /Params << /Size 9 >> /Length 9 >>\nstream\nday,metre\nendstream',
]);

test('a certified file says so, and an export against it waits for a yes; files inside are taken out', async ({
  desk,
  instance,
}) => {
  const { page } = desk;
  await page.goto(instance.url);
  await page.locator('input[type=file]').setInputFiles({
    name: 'Certified.pdf',
    mimeType: 'application/pdf',
    buffer: Buffer.from(certified),
  });
  const row = page.getByLabel('Files being brought in').locator('li').last();
  await expect(row.getByText('nothing may be changed')).toBeVisible();
  await row.getByRole('link', { name: 'Open' }).click();
  await desk.drawn();
  await desk.pen([await desk.spot(1, 80, 90, SLIDE), await desk.spot(1, 300, 90, SLIDE)]);
  await desk.saved();
  await page.getByRole('button', { name: 'Export' }).click();
  await expect(page.getByRole('button', { name: 'Download PDF' })).toBeDisabled();
  await page.getByRole('checkbox', { name: 'It may break what was signed' }).check();
  const exported = page.waitForEvent('download');
  await page.getByRole('link', { name: 'Download PDF' }).click();
  const bytes = readFileSync(await (await exported).path());
  expect(bytes.subarray(0, certified.length).equals(Buffer.from(certified))).toBe(true);
  await page.getByLabel('More', { exact: true }).click();
  await page.getByRole('menuitem', { name: 'Files inside' }).click();
  const taken = page.waitForEvent('download');
  await page.getByRole('link', { name: 'Take out Readings.csv' }).click();
  expect(readFileSync(await (await taken).path(), 'utf8')).toBe('day,metre');
});
