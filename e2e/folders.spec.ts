import type { Page } from '@playwright/test';
import { expect, test } from './support/fixtures';

const card = (page: Page, title: string) =>
  page.locator('stylet-document-card').filter({ hasText: title });
const folder = (page: Page, name: string) =>
  page.locator('stylet-folder-tile').filter({ hasText: name });

async function makeFolder(page: Page, name: string): Promise<void> {
  await page.getByRole('button', { name: 'New folder' }).click();
  await page.getByRole('textbox', { name: 'Name' }).fill(name);
  await page.getByRole('textbox', { name: 'Name' }).press('Enter');
  await expect(folder(page, name)).toBeVisible();
}

/** Chooses from the menu of a cover or a folder. */
async function choose(page: Page, of: string, what: string): Promise<void> {
  await page.getByLabel(`What can be done with ${of}`, { exact: true }).click();
  await page.getByRole('menuitem', { name: what }).click();
}

test.beforeEach(async ({ page, instance, deckPdf, handbookPdf }) => {
  instance.sql(`
    delete from documents where title like '%for folders';
    update documents set folder_id = null;
    delete from folders`);
  await instance.bringIn(deckPdf, 'Slides for folders.pdf');
  await instance.bringIn(handbookPdf, 'Book for folders.pdf');
  await page.goto(instance.url);
  await expect(card(page, 'Slides for folders')).toBeVisible();
});

test('documents go into folders by menu and by dragging, and come out again; a way leads back', async ({
  page,
}) => {
  await makeFolder(page, 'Season');
  await choose(page, 'Slides for folders', 'Put into a folder');
  await page.getByRole('dialog').getByRole('button', { name: 'Season' }).click();
  await expect(card(page, 'Slides for folders')).toHaveCount(0);
  await expect(folder(page, 'Season')).toContainText('1 document');
  await card(page, 'Book for folders').getByRole('link').dragTo(folder(page, 'Season'));
  await expect(folder(page, 'Season')).toContainText('2 documents');
  await page.getByRole('button', { name: 'Undo' }).click();
  await expect(card(page, 'Book for folders')).toBeVisible();

  await folder(page, 'Season').getByRole('link').click();
  await expect(page.getByRole('heading', { name: 'Season' })).toBeVisible();
  await expect(page.locator('stylet-document-card')).toHaveCount(1);
  await makeFolder(page, 'Week 1');
  await folder(page, 'Week 1').getByRole('link').click();
  await expect(page.getByText('This folder is empty.')).toBeVisible();
  const way = page.getByRole('navigation', { name: 'Folders around this one' });
  await way.getByRole('link', { name: 'Season' }).click();
  await choose(page, 'Slides for folders', 'Put into a folder');
  await page.getByRole('dialog').getByRole('button', { name: 'Library, in no folder' }).click();
  await expect(page.locator('stylet-document-card')).toHaveCount(0);
  await way.getByRole('link', { name: 'Library' }).click();
  await expect(card(page, 'Slides for folders')).toBeVisible();
  await page.reload();
  await expect(folder(page, 'Season')).toContainText('0 documents · 1 folder');
});

test('a folder is renamed, moved and taken away; nothing in it is lost, and Undo brings it back', async ({
  page,
}) => {
  await makeFolder(page, 'Season');
  await makeFolder(page, 'Notes');
  await choose(page, 'Notes', 'Rename');
  await page.getByRole('textbox', { name: 'Name' }).fill('Field notes');
  await page.getByRole('textbox', { name: 'Name' }).press('Enter');
  await choose(page, 'Book for folders', 'Put into a folder');
  await page.getByRole('dialog').getByRole('button', { name: 'Field notes' }).click();
  await choose(page, 'Field notes', 'Move into a folder');
  await page.getByRole('dialog').getByRole('button', { name: 'Season' }).click();
  await expect(folder(page, 'Field notes')).toHaveCount(0);
  await expect(folder(page, 'Season')).toContainText('1 document · 1 folder');
  // A folder is not offered to itself.
  await choose(page, 'Season', 'Move into a folder');
  await expect(page.getByRole('dialog').getByRole('listitem')).toHaveCount(1);
  await page.getByRole('button', { name: 'Cancel' }).click();

  await folder(page, 'Season').getByRole('link').click();
  await choose(page, 'Field notes', 'Take the folder away');
  await expect(card(page, 'Book for folders')).toBeVisible();
  await page.getByRole('button', { name: 'Undo' }).click();
  await expect(folder(page, 'Field notes')).toContainText('1 document');
  await expect(card(page, 'Book for folders')).toHaveCount(0);
});

test('what is brought in in a folder is in it, and words are found in a folder alone', async ({
  page,
  instance,
  deckPdf,
}) => {
  await instance.indexed();
  await makeFolder(page, 'Season');
  await folder(page, 'Season').getByRole('link').click();
  await expect(page.getByText('This folder is empty.')).toBeVisible();
  const file = { name: 'In season.pdf', mimeType: 'application/pdf', buffer: Buffer.from(deckPdf) };
  await page.locator('input[type=file]').setInputFiles(file);
  await expect(card(page, 'In season')).toBeVisible();
  const field = page.getByRole('searchbox', { name: 'Find' });
  await field.fill('shoaling');
  await field.press('Enter');
  await expect(page.locator('section.document h2')).toHaveText([/In season/]);
  const where = page.getByRole('button', { name: 'In “Season”' });
  await where.click();
  await page.getByRole('menuitem', { name: 'In all documents' }).click();
  await expect.poll(() => page.locator('section.document').count()).toBeGreaterThan(1);
  await page.getByRole('button', { name: 'In all documents' }).click();
  await page.getByRole('menuitem', { name: 'Season' }).click();
  await expect(page.locator('section.document h2')).toHaveText([/In season/]);
});
