import { execFileSync } from 'node:child_process';
import { writeFileSync } from 'node:fs';
import type { Page } from '@playwright/test';
import { expect, test, SLIDE } from './support/fixtures';
import type { Instance } from './support/instance';
import type { DeskDriver } from './support/desk';
import { quarters } from './support/pictures';

interface Kept {
  readonly source: string;
  readonly pages: readonly { id: string; source: string; sourceIndex: number; width: number }[];
  readonly landmarks: readonly { kind: string; title?: string }[];
}

const kept = async (instance: Instance, id: string): Promise<Kept> =>
  (await (await fetch(`${instance.url}/api/documents/${id}`)).json()) as Kept;

async function openBoard(desk: DeskDriver): Promise<void> {
  await desk.page.keyboard.press('o');
  await expect(desk.page.getByRole('option', { name: 'Page 1', exact: true })).toBeVisible();
}

async function putIn(page: Page, kind: 'Paper' | 'Files' | 'Document'): Promise<void> {
  await page.getByLabel('Put in pages').click();
  await page.getByRole('radio', { name: kind, exact: true }).click();
}

test('paper is put in, written on, and in the export', async ({ desk, deck, instance }, info) => {
  const { page } = desk;
  await desk.open(instance.url, deck);
  await openBoard(desk);
  await page.getByRole('option', { name: 'Page 1', exact: true }).click();
  await putIn(page, 'Paper');
  await page.getByRole('radio', { name: 'Squared' }).click();
  await page.getByLabel('Sheets').fill('2');
  await page.getByRole('button', { name: 'Put in 2 pages' }).click();
  await expect(page.getByText('2 pages chosen')).toBeVisible();
  await desk.saved();
  const { pages, source } = await kept(instance, deck);
  expect(pages).toHaveLength(50);
  expect(pages[0].source).toBe(source);
  expect(pages[1].source).not.toBe(source);
  // The sheet is as large as the slides, and is written on like any page.
  expect(Math.abs(pages[1].width - pages[0].width)).toBeLessThan(0.01);
  await page.getByRole('option', { name: 'Page 2', exact: true }).dblclick();
  await desk.drawn();
  await desk.pen([await desk.spot(2, 80, 80, SLIDE), await desk.spot(2, 300, 120, SLIDE)]);
  await desk.saved();
  const reply = await fetch(`${instance.url}/api/documents/${deck}/export`);
  const file = info.outputPath('export.pdf');
  writeFileSync(file, Buffer.from(await reply.arrayBuffer()));
  expect(execFileSync('qpdf', ['--show-npages', file], { encoding: 'utf8' }).trim()).toBe('50');
  expect(execFileSync('qpdf', ['--check', file], { encoding: 'utf8' })).toContain('No syntax');
  // One step takes them out again.
  await page.keyboard.press('Control+z');
  await page.keyboard.press('Control+z');
  await desk.saved();
  expect((await kept(instance, deck)).pages).toHaveLength(48);
});

test('PDF files and pictures are put in together; what cannot be read is told', async ({
  desk,
  deck,
  handbook,
  instance,
}) => {
  const { page } = desk;
  const book = await fetch(`${instance.url}/api/documents/${handbook}/original`);
  await desk.open(instance.url, deck);
  await openBoard(desk);
  await putIn(page, 'Files');
  const chooser = page.waitForEvent('filechooser');
  await page.getByRole('button', { name: 'Choose files' }).click();
  await (
    await chooser
  ).setFiles([
    {
      name: 'Book.pdf',
      mimeType: 'application/pdf',
      buffer: Buffer.from(await book.arrayBuffer()),
    },
    { name: 'Broken.pdf', mimeType: 'application/pdf', buffer: Buffer.from('no PDF at all') },
    {
      name: 'Quarters.png',
      mimeType: 'image/png',
      buffer: await quarters(400, 200).png().toBuffer(),
    },
  ]);
  await expect(page.getByRole('alert')).toContainText('“Broken.pdf”: This is not a PDF.');
  await page.getByRole('combobox', { name: 'Where' }).click();
  await page.getByRole('option', { name: 'At the end' }).click();
  await page.getByRole('button', { name: 'Put in 321 pages' }).click();
  await expect(page.getByText('321 pages chosen')).toBeVisible();
  await desk.saved();
  const { pages, landmarks } = await kept(instance, deck);
  expect(pages).toHaveLength(48 + 321);
  expect(pages[48].sourceIndex).toBe(0);
  // The book's outline came along, under its name.
  const titles = landmarks.flatMap(({ kind, title }) => (kind === 'outline' ? [title] : []));
  expect(titles).toContain('Book');
  const [picture] = (await instance.annotations(deck)).filter(
    ({ pageId }) => pageId === pages.at(-1)!.id,
  );
  expect(picture).toMatchObject({ kind: 'picture', locked: true });
});

test('pages of another document are looked through and taken; copied pages are pasted there', async ({
  desk,
  deck,
  handbook,
  instance,
}) => {
  const { page } = desk;
  await desk.open(instance.url, deck);
  await openBoard(desk);
  await page.getByRole('option', { name: 'Page 2', exact: true }).click();
  await putIn(page, 'Document');
  await page.getByRole('combobox', { name: 'Document' }).click();
  await page.getByRole('option', { name: 'Field handbook' }).first().click();
  const chooser = page.getByRole('listbox', { name: 'Pages to put in' });
  await chooser.getByRole('option', { name: 'Page iii', exact: true }).click();
  await chooser
    .getByRole('option', { name: 'Page vi', exact: true })
    .click({ modifiers: ['Shift'] });
  await page.getByRole('button', { name: 'Put in 4 pages' }).click();
  await expect(page.getByText('4 pages chosen')).toBeVisible();
  // They are drawn from their own file.
  const first = page.getByRole('option', { name: 'Page iii', exact: true }).locator('canvas');
  await expect(first).toHaveAttribute('width', /\d{2,}/);
  await desk.saved();
  const { pages } = await kept(instance, deck);
  expect(pages.slice(1, 7).map(({ sourceIndex }) => sourceIndex)).toEqual([1, 2, 3, 4, 5, 2]);
  // Copied here, pasted there.
  await page.getByRole('option', { name: 'Page 1', exact: true }).click();
  await page.keyboard.press('Control+c');
  await desk.open(instance.url, handbook);
  await page.keyboard.press('o');
  await page.getByRole('option', { name: 'Page i', exact: true }).click();
  await page.keyboard.press('Control+v');
  await expect
    .poll(async () => (await kept(instance, handbook)).pages[1].source)
    .toBe(pages[0].source);
});
