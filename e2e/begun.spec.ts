import { idsFor } from '@stylet/core/document';
import { expect, HANDBOOK } from './support/fixtures';
import type { Instance } from './support/instance';
import { lockedPdf } from './support/locked-pdf';
import { test } from './support/program-kept';

/** A document as the server has it. */
const onServer = async (instance: Instance, id: string) =>
  (await (await fetch(`${instance.url}/api/documents/${id}`)).json()) as {
    title: string;
    pages: { id: string }[];
    companion: { id: string } | null;
  };

test('with the server away a PDF comes in and a notebook begins; both are written on, and come to the server', async ({
  fresh,
  deck,
  handbookPdf,
  instance,
}) => {
  const { page } = fresh;
  await fresh.open(instance.url, deck);
  await fresh.keptHere();
  await page.goto(instance.url);
  await expect(page.locator('stylet-document-card').first()).toBeVisible();
  await fresh.programKept();
  await instance.kill();
  await expect(page.getByText('The server does not answer.')).toBeVisible();

  const buffer = Buffer.from(handbookPdf);
  const file = { name: 'Handbook.pdf', mimeType: 'application/pdf', buffer };
  await page.locator('input[type=file]').setInputFiles(file);
  const waiting = page.getByRole('region', { name: 'Not on the server yet' });
  await waiting.getByRole('link', { name: 'Handbook' }).click();
  await fresh.drawn();
  await expect(page.locator('stylet-status-bar')).toContainText('page 1 of 320');
  await fresh.goTo('20');
  await fresh.pen([
    await fresh.spot(34, 100, 100, HANDBOOK),
    await fresh.spot(34, 200, 130, HANDBOOK),
  ]);
  await expect(page.locator('.sync')).toHaveText('Offline · 1 change kept here');
  const [, id] = /documents\/([0-9a-f-]+)/.exec(page.url())!;
  // All of it is still there, and where one was: between two pages that the server will know by these ids. Which of
  // them is said goes by fractions of a pixel.
  const ids = idsFor(id);
  const around = Array.from({ length: 34 }, () => ids('page')).slice(-2);
  const isKept = async () => around.includes((await fresh.keptState())?.place?.pageId ?? '');
  await expect.poll(isKept).toBe(true);
  await page.reload();
  await fresh.drawn();
  await expect(page.getByLabel('Page, by label or number')).toHaveValue('20');
  const ink = await fresh.spot(34, 150, 115, HANDBOOK);
  await expect.poll(() => fresh.darkestNear(ink)).toBeLessThan(120);

  await page.goto(`${instance.url}/documents/${deck}`);
  await fresh.drawn();
  await page.keyboard.press('n');
  await page.getByRole('button', { name: 'Keep beside' }).click();
  const notebook = page.frameLocator('iframe[title="Companion"]');
  await expect(notebook.locator('canvas.bitmap[width]').first()).toBeVisible();
  await fresh.still();
  const sheet = (await notebook.locator('stylet-page-view[data-page="1"]').boundingBox())!;
  await fresh.pen([
    { x: sheet.x + 40, y: sheet.y + 60 },
    { x: sheet.x + 200, y: sheet.y + 90 },
  ]);
  await expect(notebook.locator('.sync')).toContainText('kept here');

  await instance.start();
  await expect(notebook.locator('.sync')).toHaveText('Saved');
  await expect(page.locator('.sync').first()).toHaveText('Saved');
  await expect.poll(async () => (await onServer(instance, id)).title).toBe('Handbook');
  const { pages } = await onServer(instance, id);
  await expect.poll(() => instance.annotations(id)).toHaveLength(1);
  expect((await instance.annotations(id))[0]).toMatchObject({ pageId: pages[33].id });
  const { companion } = await onServer(instance, deck);
  expect(await instance.annotations(companion!.id)).toHaveLength(1);
  // What others do to it is heard now.
  await page.goto(instance.url);
  await expect(page.locator(`stylet-document-card a[href$="${companion!.id}"]`)).toBeVisible();
  await expect(waiting).toHaveCount(0);
  await page.locator(`a[href$="${id}"]`).first().click();
  await fresh.drawn();
  await instance.perform(id, { type: 'document.rename', title: 'Handbook, marked' });
  await expect(page).toHaveTitle('Handbook, marked · Stylet');
});

test('what only the server can read waits for it; what it does not take is said, and can be had back', async ({
  desk,
  deckPdf,
  instance,
}) => {
  const { page } = desk;
  await page.goto(instance.url);
  await expect(page.getByRole('button', { name: 'Bring in' })).toBeVisible();
  await instance.kill();
  await expect(page.getByText(/server does not answer/i).first()).toBeVisible();
  const mimeType = 'application/pdf';
  await page.locator('input[type=file]').setInputFiles([
    { name: 'Locked.pdf', mimeType, buffer: lockedPdf(deckPdf, 'ebb') },
    { name: 'Torn.pdf', mimeType, buffer: Buffer.from('%PDF-1.7 and no more') },
  ]);
  const waiting = page.getByRole('region', { name: 'Not on the server yet' });
  const row = (name: string) => waiting.getByRole('listitem').filter({ hasText: name });
  await expect(row('Locked.pdf')).toContainText('opens once the server has read it');
  await expect(row('Torn.pdf')).toContainText('opens once the server has read it');
  await instance.start();
  await expect(row('Torn.pdf').getByRole('alert')).toContainText('damaged beyond repair');
  const download = page.waitForEvent('download');
  await row('Torn.pdf').getByRole('button', { name: 'Save the file' }).click();
  expect((await download).suggestedFilename()).toBe('Torn.pdf');
  await row('Torn.pdf').getByRole('button', { name: 'Let go' }).click();
  await page.getByRole('button', { name: 'Let go of it' }).click();
  await expect(row('Torn.pdf')).toHaveCount(0);
  await row('Locked.pdf').getByRole('button', { name: 'Give the password' }).click();
  await page.getByLabel('Password', { exact: true }).fill('ebb');
  await page.keyboard.press('Enter');
  await expect(page.locator('stylet-document-card', { hasText: 'Locked' })).toBeVisible();
  await expect(waiting).toHaveCount(0);
});
