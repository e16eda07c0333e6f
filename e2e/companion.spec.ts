import { expect, test } from './support/fixtures';

test('a notebook is kept beside a document, remembers the page it was written beside, and leads back', async ({
  desk,
  deck,
  instance,
}) => {
  const { page } = desk;
  await desk.open(instance.url, deck);
  await desk.goTo('6');
  await page.keyboard.press('n');
  await page.getByRole('dialog').getByLabel('Title').fill('Tide talk notes');
  await page.getByRole('radio', { name: 'Squared' }).click();
  await page.getByRole('button', { name: 'Keep beside' }).click();
  const region = page.getByRole('region', { name: 'Companion' });
  const notebook = page.frameLocator('iframe[title="Companion"]');
  await expect(notebook.locator('canvas.bitmap[width]').first()).toBeVisible();
  await expect(region).toContainText('Tide talk notes');
  await desk.still();

  const sheet = (await notebook.locator('stylet-page-view[data-page="1"]').boundingBox())!;
  await desk.pen([
    { x: sheet.x + 40, y: sheet.y + 60 },
    { x: sheet.x + 200, y: sheet.y + 90 },
  ]);
  await expect(notebook.locator('.sync')).toHaveText('Saved');
  const reply = await fetch(`${instance.url}/api/documents/${deck}`);
  const { companion, pages } = (await reply.json()) as {
    companion: { id: string };
    pages: { id: string }[];
  };
  const kept = async () =>
    (await (await fetch(`${instance.url}/api/documents/${companion.id}`)).json()) as {
      title: string;
      pages: { beside: { documentId: string; pageId: string } | null }[];
    };
  await expect
    .poll(async () => (await kept()).pages[0].beside)
    .toEqual({ documentId: deck, pageId: pages[5].id });
  expect((await kept()).title).toBe('Tide talk notes');
  expect((await kept()).pages[1].beside).toBeNull();
  expect(await instance.annotations(companion.id)).toHaveLength(1);
  expect(await instance.annotations(deck)).toHaveLength(0);

  // It opens again with its document, and leads back.
  await desk.goTo('30');
  await page.reload();
  await desk.drawn();
  await notebook.getByRole('button', { name: 'Written beside' }).click();
  await expect(page.getByLabel('Page, by label or number').first()).toHaveValue('6');

  // Docked, the pages make room for it; floating, it is moved and resized.
  const wide = (await page.getByRole('region', { name: 'Pages' }).first().boundingBox())!;
  await region.getByLabel('Dock it').click();
  await desk.still();
  const narrow = (await page.getByRole('region', { name: 'Pages' }).first().boundingBox())!;
  expect(narrow.width).toBeLessThan(wide.width - 200);
  await region.getByLabel('Let it float').click();
  await desk.still();
  const before = (await region.boundingBox())!;
  await page.mouse.move(before.x + 60, before.y + 20);
  await page.mouse.down();
  await page.mouse.move(before.x + 160, before.y + 90, { steps: 8 });
  await page.mouse.up();
  const moved = async (): Promise<number> => {
    const after = (await region.boundingBox())!;
    return Math.hypot(after.x - before.x - 100, after.y - before.y - 70);
  };
  await expect.poll(moved).toBeLessThan(5);
  await region.getByLabel('Put the companion away').click();
  await expect(region).toBeHidden();
  await page.reload();
  await desk.drawn();
  await expect(region).toBeHidden();
});

test('another document is kept beside one, and written on where it is alone leads there too', async ({
  desk,
  deckPdf,
  handbook,
  instance,
}) => {
  const { page } = desk;
  await instance.bringIn(deckPdf, 'Waves and tides.pdf');
  const companion = await fetch(`${instance.url}/api/documents/${handbook}/companion`, {
    method: 'PUT',
    headers: { 'content-type': 'application/json' },
    body: JSON.stringify({ companionId: handbook }),
  });
  expect(companion.status).toBe(400);
  await desk.open(instance.url, handbook);
  await page.keyboard.press('n');
  await page.getByRole('radio', { name: 'Document' }).click();
  await page.getByRole('combobox', { name: 'Document' }).click();
  await page.getByRole('option', { name: 'Waves and tides' }).first().click();
  await page.getByRole('button', { name: 'Keep beside' }).click();
  const notebook = page.frameLocator('iframe[title="Companion"]');
  await expect(notebook.locator('canvas.bitmap[width]').first()).toBeVisible();
  await desk.still();
  const reply = await fetch(`${instance.url}/api/documents/${handbook}`);
  const { companion: kept } = (await reply.json()) as { companion: { id: string } };
  const sheet = (await notebook.locator('stylet-page-view[data-page="1"]').boundingBox())!;
  await desk.pen([
    { x: sheet.x + 40, y: sheet.y + 60 },
    { x: sheet.x + 140, y: sheet.y + 90 },
  ]);
  await expect(notebook.locator('.sync')).toHaveText('Saved');
  await desk.still();
  await desk.open(instance.url, kept.id);
  await page.getByRole('button', { name: 'Written beside' }).click();
  await expect(page).toHaveURL(new RegExp(`/documents/${handbook}`));
  await expect(page.getByLabel('Page, by label or number').first()).toHaveValue('i');
});
