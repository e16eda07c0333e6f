import { pathsOfText } from '@stylet/demo/stylus';
import { expect, test, HANDBOOK, SLIDE } from './support/fixtures';
import type { DeskDriver } from './support/desk';
import type { Instance } from './support/instance';

interface Landmark {
  readonly id: string;
  readonly kind: string;
  readonly title?: string;
  readonly word?: string;
  readonly parentId?: string;
  readonly place?: { pageId: string; y?: number };
  readonly annotationIds?: string[];
  readonly color?: string;
}

async function landmarks(instance: Instance, id: string): Promise<Landmark[]> {
  const reply = await fetch(`${instance.url}/api/documents/${id}`);
  return ((await reply.json()) as { landmarks: Landmark[] }).landmarks;
}

const row = (desk: DeskDriver, words: string | RegExp) =>
  desk.page.locator('stylet-index-panel .row').filter({ hasText: words });
const chip = (desk: DeskDriver, name: RegExp) =>
  desk.page.getByRole('group', { name: 'What is listed' }).getByRole('button', { name });
const pageField = (desk: DeskDriver) => desk.page.getByLabel('Page, by label or number');

test('the outline leads to its pages, and Back leads back', async ({ desk, deck, instance }) => {
  await desk.open(instance.url, deck);
  await row(desk, 'Group speed').locator('.entry').click();
  await expect(pageField(desk)).toHaveValue('11');
  await expect(row(desk, 'Group speed').locator('.entry')).toHaveAttribute(
    'aria-current',
    'location',
  );
  await desk.page.getByLabel('Back', { exact: true }).click();
  await expect(pageField(desk)).toHaveValue('1');
});

test('a page is added, renamed, moved by keys and by dragging, and removed; each is undone', async ({
  desk,
  deck,
  instance,
}) => {
  await desk.open(instance.url, deck);
  await desk.goTo('2');
  const { page } = desk;
  await page.getByLabel('Add this page to the outline').click();
  await page.getByRole('textbox', { name: 'Name' }).fill('How to read this');
  await page.keyboard.press('Enter');
  await desk.saved();
  const entry = async (title: string) =>
    (await landmarks(instance, deck)).find((l) => l.title === title);
  expect(await entry('How to read this')).toMatchObject({ kind: 'outline' });

  // Under the one before it, and out again.
  await row(desk, 'Linear theory').locator('.entry').focus();
  await page.keyboard.press('Alt+ArrowRight');
  await desk.saved();
  const above = await entry('What a wave carries');
  expect((await entry('Linear theory'))!.parentId).toBe(above!.id);
  await expect(row(desk, 'Linear theory').locator('.entry')).toBeFocused();
  await page.keyboard.press('Alt+ArrowLeft');
  await desk.saved();
  expect((await entry('Linear theory'))!.parentId).toBe(above!.parentId);

  // Dragged above the first of its chapter.
  const moved = row(desk, 'Dispersion table');
  await moved.hover();
  const grip = (await moved.locator('.grip').boundingBox())!;
  const to = (await row(desk, 'What a wave carries').boundingBox())!;
  await page.mouse.move(grip.x + 10, grip.y + 20);
  await page.mouse.down();
  await page.mouse.move(to.x + 90, to.y + 30, { steps: 6 });
  await page.mouse.move(to.x + 90, to.y + 4, { steps: 3 });
  await page.mouse.up();
  await desk.saved();
  const shown = await page.locator('stylet-index-panel .row .words').allInnerTexts();
  expect(shown.indexOf('Dispersion table')).toBe(shown.indexOf('What a wave carries') - 1);

  await row(desk, '2 Into shallow water').locator('.entry').focus();
  await page.keyboard.press('Delete');
  await desk.saved();
  expect(await entry('2 Into shallow water')).toBeUndefined();
  expect(await entry('Bottom friction')).toBeUndefined();
  await page.keyboard.press('Control+z');
  await desk.saved();
  expect(await entry('Bottom friction')).toBeDefined();
  await page.keyboard.press('Control+z');
  await desk.saved();
  const back = await page.locator('stylet-index-panel .row .words').allInnerTexts();
  expect(back.indexOf('Dispersion table')).toBeGreaterThan(back.indexOf('What a wave carries'));
});

test('a document without an outline is told how to begin one', async ({
  desk,
  deckPdf,
  instance,
}) => {
  const { PDFDocument } = await import('@cantoo/pdf-lib');
  const bare = await PDFDocument.create();
  const [first] = await bare.copyPages(await PDFDocument.load(deckPdf), [0]);
  bare.addPage(first);
  const id = await instance.bringIn(await bare.save(), 'Bare.pdf');
  await desk.open(instance.url, id);
  await expect(desk.page.getByText('Nothing is listed yet.')).toBeVisible();
  await desk.page.getByLabel('Add this page to the outline').click();
  await desk.page.getByRole('textbox', { name: 'Name' }).press('Enter');
  await desk.saved();
  // What the page says first is its name until it is given another.
  await expect(row(desk, 'Waves and tides')).toHaveCount(1);
});

test('a page is bookmarked with one tap, found in the list, coloured, and let go', async ({
  desk,
  handbook,
  instance,
}) => {
  await desk.open(instance.url, handbook);
  await desk.goTo('12');
  const { page } = desk;
  await page.getByLabel('Bookmark this page').click();
  await desk.saved();
  const [mark] = (await landmarks(instance, handbook)).filter(({ kind }) => kind === 'bookmark');
  // It is named after the section it lies in or what the page says, never just by its number.
  expect(mark.title!.length).toBeGreaterThan(3);
  expect(mark.title).not.toMatch(/^Page /);
  await chip(desk, /^Outline/).click();
  await expect(page.locator('stylet-index-panel .row')).toHaveCount(1);
  await desk.goTo('1');
  await row(desk, mark.title!).locator('.entry').click();
  await expect(pageField(desk)).toHaveValue('12');
  await row(desk, mark.title!).hover();
  await row(desk, mark.title!).locator('.more').click();
  await page.getByRole('menuitem', { name: 'Colour' }).click();
  await page.getByRole('menuitem', { name: 'Madder' }).click();
  await desk.saved();
  expect((await landmarks(instance, handbook)).find(({ id }) => id === mark.id)!.color).toBe(
    '#b3324b',
  );
  await page.keyboard.press('b');
  await desk.saved();
  expect((await landmarks(instance, handbook)).filter(({ kind }) => kind === 'bookmark')).toEqual(
    [],
  );
});

test('handwriting shows itself in the list, leads to where it is, and becomes a keyword', async ({
  desk,
  deck,
  instance,
}) => {
  await desk.open(instance.url, deck);
  const at = await desk.spot(1, 330, 60, SLIDE);
  const paths = pathsOfText('tide', { x: at.x, y: at.y + 20, size: 40, typeface: 'EMSFelix' });
  await desk.pens(paths, { speed: 1200 });
  await desk.saved();
  const { page } = desk;
  await chip(desk, /^Ink 1$/).click();
  const written = page.locator('stylet-index-panel .row').filter({ has: page.locator('.face') });
  await expect(written).toHaveCount(1);
  // Its picture shows ink.
  const face = written.locator('canvas');
  await expect(face).toHaveJSProperty(
    'width',
    await face.evaluate((c: HTMLCanvasElement) => c.width),
  );
  const isDrawn = await face.evaluate((canvas: HTMLCanvasElement) => {
    const { data } = canvas.getContext('2d')!.getImageData(0, 0, canvas.width, canvas.height);
    return data.some((value, i) => i % 4 === 3 && value > 200);
  });
  expect(isDrawn).toBe(true);
  await chip(desk, /^Outline/).click();
  await desk.goTo('20');
  await written.locator('.entry').click();
  await expect(pageField(desk)).toHaveValue('1');
  await expect(page.getByRole('toolbar', { name: 'Selection' })).toContainText(
    `ink ${paths.length}`,
  );
  await page.getByLabel('More for the selection').click();
  await page.getByRole('menuitem', { name: 'Make a keyword' }).click();
  await page.getByRole('button', { name: 'Add', exact: true }).click();
  await desk.saved();
  const [keyword] = (await landmarks(instance, deck)).filter(({ kind }) => kind === 'keyword');
  expect(keyword.annotationIds).toHaveLength(paths.length);
  await expect(chip(desk, /^Keywords 1$/)).toBeVisible();
});

test('selected words become an entry of the outline and a keyword, where they are', async ({
  desk,
  handbook,
  instance,
}) => {
  await desk.open(instance.url, handbook);
  await desk.goTo('9');
  const { page } = desk;
  await page.getByRole('radio', { name: 'Read' }).click();
  await desk.still();
  const reply = await fetch(`${instance.url}/api/documents/${handbook}`);
  const { pages } = (await reply.json()) as { pages: { label: string }[] };
  const number = pages.findIndex(({ label }) => label === '9') + 1;
  const from = await desk.spot(number, 90, 150, HANDBOOK);
  await page.mouse.move(from.x, from.y);
  await page.mouse.down();
  await page.mouse.move(from.x + 140, from.y, { steps: 5 });
  await page.mouse.up();
  await page.getByLabel('Add to the outline').click();
  await page.getByLabel('Make a keyword').click();
  await desk.saved();
  const all = await landmarks(instance, handbook);
  const keyword = all.find(({ kind }) => kind === 'keyword')!;
  const entry = all.find(({ kind, title }) => kind === 'outline' && title === keyword.word)!;
  expect(keyword.word!.length).toBeGreaterThan(3);
  expect(entry.place).toEqual(keyword.place);
  expect(entry.place!.y).toBeGreaterThan(0);
});

test('the list is narrowed down to annotated pages and to a colour', async ({
  desk,
  deck,
  instance,
}) => {
  await desk.open(instance.url, deck);
  const { page } = desk;
  await desk.goTo('6');
  await desk.pen([await desk.spot(6, 330, 60, SLIDE), await desk.spot(6, 520, 90, SLIDE)]);
  await page.keyboard.press('2');
  await desk.pen([await desk.spot(6, 330, 200, SLIDE), await desk.spot(6, 520, 230, SLIDE)]);
  await desk.saved();
  await chip(desk, /^Ink 2$/).click();
  const rows = page.locator('stylet-index-panel .row');
  await page.getByRole('button', { name: 'Filter' }).click();
  await page.getByRole('menuitemradio', { name: 'Annotated pages only' }).click();
  await page.keyboard.press('Escape');
  // The slide's entry, and two pieces of ink.
  await expect(rows).toHaveCount(3);
  await expect(chip(desk, /^Outline 1$/)).toBeVisible();
  await page.getByRole('button', { name: 'Filter' }).click();
  await page.getByRole('menuitemcheckbox', { name: 'ultramarine, 1' }).click();
  await page.keyboard.press('Escape');
  await expect(rows).toHaveCount(1);
  await page.getByRole('button', { name: 'Filter' }).click();
  await page.getByRole('menuitem', { name: 'Show everything' }).click();
  await expect.poll(() => rows.count()).toBeGreaterThan(8);
});

test('what is in the list goes into the export, and comes back', async ({
  desk,
  deck,
  instance,
}) => {
  await desk.open(instance.url, deck);
  await desk.page.keyboard.press('b');
  await desk.goTo('5');
  await desk.page.getByLabel('Add this page to the outline').click();
  await desk.page.getByRole('textbox', { name: 'Name' }).fill('Where theory begins');
  await desk.page.keyboard.press('Enter');
  await desk.saved();
  const reply = await fetch(`${instance.url}/api/documents/${deck}/export`);
  const again = await instance.bringIn(new Uint8Array(await reply.arrayBuffer()), 'Again.pdf');
  await desk.open(instance.url, again);
  await expect(chip(desk, /^Bookmarks 1$/)).toBeVisible();
  await row(desk, 'Where theory begins').locator('.entry').click();
  await expect(pageField(desk)).toHaveValue('5');
});

// WAI-ARIA 1.2, 6.6: aria-level, aria-posinset and aria-setsize; APG, tree view: one item is in the tab order. From memory.
test('the Index is a tree of items that keys go through, with the menu of each', async ({
  desk,
  deck,
  instance,
}) => {
  const { page } = desk;
  await desk.open(instance.url, deck);
  const tree = page.getByRole('tree', { name: 'Index' });
  const first = tree.getByRole('treeitem').first();
  await first.focus();
  await expect(tree.locator('[role=treeitem][tabindex="0"]')).toHaveCount(1);
  await expect(first).toHaveAttribute('aria-posinset', '1');
  await expect(first).toHaveAttribute('aria-expanded', 'true');
  const count = Number(await first.getAttribute('aria-setsize'));
  await page.keyboard.press('ArrowDown');
  const second = tree.locator('[aria-posinset="2"]');
  await expect(second).toBeFocused();
  await expect(second).toHaveAttribute('aria-level', '2');
  await page.keyboard.press('End');
  await expect(tree.locator(`[aria-posinset="${count}"]`)).toBeFocused();
  await page.keyboard.press('Home');
  await expect(first).toBeFocused();
  await page.keyboard.press('ArrowLeft');
  await expect(first).toHaveAttribute('aria-expanded', 'false');
  await page.keyboard.press('ContextMenu');
  await expect(page.getByRole('menuitem', { name: 'Rename' })).toBeVisible();
  await page.keyboard.press('Escape');
  await expect(first).toBeFocused();
});
