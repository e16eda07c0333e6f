import type { Page } from '@playwright/test';
import { expect, test } from './support/fixtures';

const LOG = `# Heights

Before the table.

| Place | Height |
| --- | ---: |
| Quay | 2.10 m |

Behind the table.
`;

const editor = (page: Page) => page.getByRole('textbox', { name: 'Text of the pages' });
const bar = (page: Page) => page.getByRole('toolbar', { name: 'Text of the pages' });

test('cells of a table are typed in where they stand, rows and columns come and go, and all of it is saved', async ({
  desk,
  instance,
}) => {
  const { page } = desk;
  const body = new FormData();
  body.append('file', new Blob([LOG]), 'Heights.md');
  const reply = await fetch(`${instance.url}/api/documents`, { method: 'POST', body });
  const { id } = (await reply.json()) as { id: string };
  const markdown = async () =>
    (await fetch(`${instance.url}/api/documents/${id}/text/export?as=markdown`)).text();
  await desk.open(instance.url, id);
  await page.getByRole('button', { name: 'Edit text' }).click();
  await expect(editor(page)).toBeFocused();
  await page.waitForFunction(() => document.fonts.status === 'loaded');

  // With the pen behind “Quay”.
  const quay = editor(page).getByRole('cell', { name: 'Quay' });
  const box = (await quay.boundingBox())!;
  await desk.pen([{ x: box.x + box.width + 3, y: box.y + box.height / 2 }]);
  await page.keyboard.type(' steps');
  // The caret is behind what was typed, in the cell that grew.
  const caret = await editor(page).evaluate(() => {
    const { left, top } = getSelection()!.getRangeAt(0).getBoundingClientRect();
    return { left, top };
  });
  const grown = (await editor(page).getByRole('cell', { name: 'Quay steps' }).boundingBox())!;
  expect(Math.abs(caret.left - grown.x - grown.width)).toBeLessThan(3);
  await page.keyboard.press('Tab');
  await page.keyboard.press('End');
  await page.keyboard.press('Tab');
  await page.keyboard.type('Slip');
  await page.keyboard.press('Tab');
  await page.keyboard.press('Control+b');
  await page.keyboard.type('1.85 m');
  // Up and down go from row to row, as in a paragraph.
  await page.keyboard.press('ArrowUp');
  await page.keyboard.press('End');
  await page.keyboard.type(' at noon');
  await expect(bar(page)).toContainText('Text saved');
  expect(await markdown()).toContain(
    '| Place | Height |\n| --- | --: |\n| Quay steps | 2.10 m at noon |\n| Slip | **1.85 m** |\n',
  );

  await bar(page).getByRole('button', { name: 'Table' }).click();
  await page.getByRole('menuitem', { name: 'Column behind' }).click();
  await page.keyboard.type('read by hand');
  // Backspace at the start of a cell joins nothing.
  await page.keyboard.press('Home');
  await page.keyboard.press('Backspace');
  await bar(page).getByRole('button', { name: 'Table' }).click();
  await page.getByRole('menuitem', { name: 'Row above' }).click();
  await expect(editor(page).getByRole('row')).toHaveCount(4);
  await page.keyboard.press('Control+z');
  await expect(editor(page).getByRole('row')).toHaveCount(3);
  await expect(bar(page)).toContainText('Text saved');
  expect(await markdown()).toContain('| Quay steps | 2.10 m at noon | read by hand |');

  // A new one, at the end.
  await page.keyboard.press('Control+End');
  await bar(page).getByRole('button', { name: 'Put a table in' }).click();
  await page.keyboard.type('Hour');
  await bar(page).getByRole('button', { name: 'Done' }).click();
  await expect(editor(page)).toHaveCount(0);
  expect(await markdown()).toContain('Behind the table.\n\n| Hour |  |  |\n| --- |');
});
