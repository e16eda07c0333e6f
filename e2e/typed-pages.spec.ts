import { execFileSync } from 'node:child_process';
import { mkdtempSync, rmSync, writeFileSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import type { Page } from '@playwright/test';
import { DeskDriver } from './support/desk';
import { expect, test } from './support/fixtures';
import type { Instance } from './support/instance';

const WORDS = 'The water rises first along the edges of the channel and last over the flats. ';
const LOG = `# Tidewater log

The gauge at the landing stage is read every ten minutes.

## Moorings

${WORDS.repeat(12)}

${WORDS.repeat(30)}

The ebb waits for nobody.
`;
/** Of a page of A4, in points. */
const WIDE = 595.276;

async function broughtIn({ url }: Instance, text = LOG): Promise<string> {
  const body = new FormData();
  body.append('file', new Blob([text]), 'Tidewater log.md');
  const reply = await fetch(`${url}/api/documents`, { method: 'POST', body });
  return ((await reply.json()) as { id: string }).id;
}

const markdownOf = async ({ url }: Instance, id: string): Promise<string> =>
  (await fetch(`${url}/api/documents/${id}/text/export?as=markdown`)).text();

const editor = (page: Page) => page.getByRole('textbox', { name: 'Text of the pages' });
const bar = (page: Page) => page.getByRole('toolbar', { name: 'Text of the pages' });

async function edit({ page }: DeskDriver): Promise<void> {
  await page.getByRole('button', { name: 'Edit text' }).click();
  await expect(editor(page)).toBeFocused();
  await page.waitForFunction(() => document.fonts.status === 'loaded');
}

/** The words and boxes of an export, page by page, as poppler finds them; in points. */
async function exportedWords(
  { url }: Instance,
  id: string,
): Promise<{ text: string; page: number; x: number; y: number; right: number; bottom: number }[]> {
  const bytes = await (
    await fetch(`${url}/api/documents/${id}/export?annotations=editable`)
  ).arrayBuffer();
  const folder = mkdtempSync(join(tmpdir(), 'stylet-typed-'));
  try {
    writeFileSync(join(folder, 'a.pdf'), new Uint8Array(bytes));
    const boxes = execFileSync('pdftotext', ['-bbox', join(folder, 'a.pdf'), '-'], {
      encoding: 'utf8',
    });
    let page = -1;
    return boxes.split('\n').flatMap((line) => {
      if (line.includes('<page ')) page++;
      const found =
        /xMin="([\d.]+)" yMin="([\d.]+)" xMax="([\d.]+)" yMax="([\d.]+)">(.*)<\/word>/.exec(line);
      if (!found) return [];
      const [x, y, right, bottom] = found.slice(1, 5).map(Number);
      return [{ text: found[5], page, x, y, right, bottom }];
    });
  } finally {
    rmSync(folder, { recursive: true });
  }
}

/** Where letters of the editor stand on its page, in points: of the first place at which words are found. */
const placeIn = (page: Page, words: string): Promise<{ x: number; y: number }> =>
  editor(page).evaluate((element, wanted) => {
    const walker = document.createTreeWalker(element, NodeFilter.SHOW_TEXT);
    const sheet = element.closest('stylet-typed-words')!.getBoundingClientRect();
    for (let node = walker.nextNode(); node; node = walker.nextNode()) {
      const at = node.nodeValue!.indexOf(wanted);
      if (at < 0) continue;
      const range = document.createRange();
      range.setStart(node, at);
      range.setEnd(node, at + 1);
      const { left, top, height } = range.getBoundingClientRect();
      const scale = 595.276 / sheet.width;
      return { x: (left - sheet.left) * scale, y: (top + height / 2 - sheet.top) * scale };
    }
    throw new Error(`There is no “${wanted}” in the editor.`);
  }, words);

test('text is typed on its pages, counted, saved, and stands in the export where it stood while it was typed', async ({
  desk,
  instance,
}) => {
  const { page } = desk;
  const id = await broughtIn(instance);
  await desk.open(instance.url, id);
  await edit(desk);
  await expect(bar(page)).toContainText('649 words on 2 pages');
  await page.keyboard.press('Control+Home');
  await page.keyboard.press('End');
  await page.keyboard.type(', second day');
  await page.keyboard.press('Enter');
  await page.keyboard.type('Offices differ: fi AV 12.5 cm, ');
  await page.keyboard.press('Control+b');
  await page.keyboard.type('says the table');
  await page.keyboard.press('Control+b');
  await page.keyboard.type('.');
  await expect(bar(page)).toContainText('660 words');
  // The browser's caret is where the letters are drawn.
  const typed = await placeIn(page, 'says the table');
  await expect(bar(page)).toContainText('Text saved');
  const words = await exportedWords(instance, id);
  const says = words.findIndex(({ text }, i) => text === 'says' && words[i + 1].text === 'the');
  expect(Math.abs(words[says].x - typed.x)).toBeLessThan(0.7);
  expect(Math.abs((words[says].y + words[says].bottom) / 2 - typed.y)).toBeLessThan(3);
  expect(await markdownOf(instance, id)).toContain(
    '# Tidewater log, second day\n\nOffices differ: fi AV 12.5 cm, **says the table**.\n',
  );
  await bar(page).getByRole('button', { name: 'Done' }).click();
  await expect(editor(page)).toHaveCount(0);
  // Headings are the outline.
  await expect(page.getByText('Tidewater log, second day').first()).toBeVisible();
  await page.reload();
  await desk.drawn();
  await edit(desk);
  await expect(bar(page)).toContainText('660 words');
});

test('what is selected over two pages goes, pages with it; undo has it back; ink stays with its words', async ({
  desk,
  instance,
}) => {
  const { page } = desk;
  const id = await broughtIn(instance);
  await desk.open(instance.url, id);
  const before = (await exportedWords(instance, id)).find(({ text }) => text === 'landing')!;
  await desk.pen([
    await desk.spot(1, before.x, before.bottom, WIDE),
    await desk.spot(1, before.right, before.bottom, WIDE),
  ]);
  await desk.saved();
  await edit(desk);
  await page.keyboard.press('Control+Home');
  await page.keyboard.type('Log: ');
  await page.keyboard.press('End');
  await page.keyboard.press('Enter');
  await page.keyboard.type('Moved down by this line.');
  await expect(bar(page)).toContainText('Text saved');
  const after = (await exportedWords(instance, id)).find(({ text }) => text === 'landing')!;
  expect(after.y - before.y).toBeGreaterThan(10);
  const [ink] = (await instance.annotations(id)) as unknown as { transform: number[] }[];
  expect(Math.abs(ink.transform[5] - (after.y - before.y))).toBeLessThan(0.5);

  await page.keyboard.press('Control+End');
  const second = page.locator('stylet-page-view').nth(1);
  await expect(second.getByRole('textbox', { name: 'Text of the pages' })).toBeFocused();
  await expect(second.locator('stylet-typed-sheet')).toBeInViewport();
  await page.keyboard.press('Control+Shift+Home');
  await expect(bar(page)).toContainText('selected');
  await page.keyboard.press('Delete');
  await expect(bar(page)).toContainText('0 words on 1 page');
  await expect(page.locator('stylet-status-bar')).toContainText('of 1');
  await page.keyboard.press('Control+z');
  await expect(bar(page)).toContainText('655 words selected');
  await expect(page.locator('stylet-status-bar')).toContainText('of 2');
});

test('two windows type in two paragraphs, and the server is away for a while: both are in the text', async ({
  desk,
  instance,
  context,
}) => {
  const { page } = desk;
  const id = await broughtIn(instance);
  await desk.open(instance.url, id);
  await edit(desk);
  const other = new DeskDriver(await context.newPage());
  await other.open(instance.url, id);
  await edit(other);
  await instance.kill();
  await other.page.keyboard.press('Control+End');
  await other.page.keyboard.type(' Typed at the end.');
  await page.bringToFront();
  await page.keyboard.press('Control+Home');
  await page.keyboard.type('First: ');
  await expect(bar(page)).not.toContainText('Text saved');
  await page.waitForTimeout(2500);
  await instance.start();
  await expect
    .poll(() => markdownOf(instance, id), { timeout: 30_000 })
    .toMatch(/^# First: Tidewater log[^]*The ebb waits for nobody. Typed at the end.\n$/);
  await expect(editor(page)).toContainText('Typed at the end.', { timeout: 30_000 });
  await expect(bar(page)).toContainText('Text saved');
  // What one types the other sees, without typing.
  await page.keyboard.type('Second: ');
  await expect(editor(other.page)).toContainText('First: Second: Tidewater', { timeout: 30_000 });
  await expect(bar(other.page)).toContainText('Text saved');
});

test('text that is pasted into the library becomes a document; a new one is typed on at once', async ({
  desk,
  instance,
}) => {
  const { page } = desk;
  await page.goto(instance.url);
  await expect(page.getByRole('button', { name: 'Bring in' })).toBeVisible();
  await page.evaluate(() => {
    const data = new DataTransfer();
    data.setData('text/html', '<h1>Ebb tide</h1><p>Low water at <b>six</b>.</p>');
    document.body.dispatchEvent(
      new ClipboardEvent('paste', { clipboardData: data, bubbles: true }),
    );
  });
  await expect(page.getByText('Brought in 1 of 1')).toBeVisible();
  await page.getByRole('link', { name: 'Ebb tide' }).first().click();
  await desk.drawn();
  await expect(page.getByRole('button', { name: 'Edit text' })).toBeVisible();
  await page.goto(instance.url);
  await page.getByRole('button', { name: 'New text' }).click();
  await page.getByLabel('Name').fill('Field notes');
  await page.getByRole('button', { name: 'Begin it' }).click();
  await expect(editor(page)).toBeFocused();
  await page.keyboard.type('Nothing was lost.');
  await expect(bar(page)).toContainText('3 words on 1 page');
  await page.keyboard.press('Escape');
  await expect(editor(page)).toHaveCount(0);
  const [, id] = /documents\/([0-9a-f-]+)/.exec(page.url())!;
  expect(await markdownOf(instance, id)).toBe('Nothing was lost.\n');
  // What was typed can be undone when the text is edited again.
  await edit(desk);
  await page.keyboard.press('Control+z');
  await expect(bar(page)).toContainText('0 words');
  await page.keyboard.press('Control+Shift+z');
  await expect(bar(page)).toContainText('3 words');
});
