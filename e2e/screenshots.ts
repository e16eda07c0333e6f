// Takes the pictures of docs/screenshots from a demo that runs and that nobody has changed yet.
import { chromium, type Page } from '@playwright/test';
import { join, resolve } from 'node:path';
import { browserOptions } from './support/browser';
import { DeskDriver } from './support/desk';
import { pathsOfText } from '@stylet/demo/stylus';

const ADDRESS = process.argv[2] ?? 'http://127.0.0.1:4600';
const FOLDER = resolve(import.meta.dirname, '../docs/screenshots');
const SLIDE = 720;

const browser = await chromium.launch(browserOptions);
const context = await browser.newContext({
  viewport: { width: 1280, height: 800 },
  permissions: ['clipboard-read', 'clipboard-write'],
});
// What compiles this script names functions by it, also those that run in the page.
await context.addInitScript('globalThis.__name ??= (named) => named');
const page = await context.newPage();
const desk = new DeskDriver(page);

const shoot = async (name: string, of: Page = page): Promise<void> => {
  await of.waitForTimeout(700);
  await of.screenshot({ path: join(FOLDER, `${name}.png`) });
};
async function open(title: string, label = ''): Promise<void> {
  await page.goto(ADDRESS);
  await page.getByRole('link', { name: title }).first().click();
  await desk.drawn();
  if (label) await desk.goTo(label);
}
const spot = (number: number, x: number, y: number) => desk.spot(number, x, y, SLIDE);
async function undoAll(): Promise<void> {
  const undo = page.getByLabel('Undo', { exact: true });
  while (await undo.isEnabled()) {
    await page.keyboard.press('Control+z');
    await page.waitForTimeout(150);
  }
  await desk.saved();
}

await page.goto(ADDRESS);
await page.locator('stylet-document-card').first().waitFor();
await page.waitForFunction(() => !document.querySelector('.cover.coming'));
await shoot('library');

await open('Waves and tides', '16');
await shoot('desk');
await page.getByRole('button', { name: 'Export' }).click();
await shoot('export');
await page.keyboard.press('Escape');
await page.getByRole('dialog').waitFor({ state: 'detached' });
await page.getByLabel('Lasso, key L').click();
await desk.pen([
  await spot(16, 56, 386),
  await spot(16, 392, 380),
  await spot(16, 396, 436),
  await spot(16, 52, 436),
  await spot(16, 56, 386),
]);
await page.getByRole('toolbar', { name: 'Selection' }).waitFor();
await shoot('selection');
await page.keyboard.press('Escape');
await page.keyboard.press('Escape');

await desk.goTo('1');
await page.getByLabel('Text, key T').click();
await desk.pen([await spot(1, 420, 200), await spot(1, 680, 230)]);
await page.getByRole('textbox', { name: 'Typed text' }).waitFor();
const textBar = page.getByRole('toolbar', { name: 'Typed text' });
await textBar.getByLabel('Size in points').fill('15');
await textBar.getByLabel('Size in points').press('Enter');
await page.keyboard.type(
  'Read the gauge at the landing stage twice a day, and write down what the table says.',
);
await textBar.getByRole('button', { name: 'Save style' }).click();
await page.keyboard.press('Enter');
await page.keyboard.press('Control+b');
await page.keyboard.type('High water 06:40');
await shoot('typing');
await page.keyboard.press('Escape');
await undoAll();

await desk.goTo('22');
await page.keyboard.press('l');
await desk.pen([await spot(22, 200, 490)]);
await page.getByLabel('Crop', { exact: true }).click();
await shoot('pictures');
await page.keyboard.press('Escape');
await page.keyboard.press('Escape');
await page.keyboard.press('s');
await desk.pen([await spot(22, 400, 140), await spot(22, 700, 350)]);
await page.getByText('On the clipboard').waitFor();
await shoot('snip');
await page.keyboard.press('Escape');

await desk.goTo('20');
await page.keyboard.press('g');
await page.keyboard.press('1');
const shapes = [
  [
    [96, 420],
    [236, 420],
    [236, 500],
    [96, 500],
    [96, 422],
  ],
  [
    [300, 490],
    [440, 430],
  ],
] as const;
for (const [i, path] of shapes.entries()) {
  const points = await Promise.all(path.map(([x, y]) => spot(20, x, y)));
  await desk.pen(points, {}, i === 0 ? { hold: 900 } : undefined);
}
await shoot('shapes');
await page.keyboard.press('g');
await undoAll();

await page.keyboard.press('c');
await page.waitForTimeout(800);
const grip = (await page.getByLabel('Move the frame').boundingBox())!;
const to = await spot(20, 424, 92);
await page.mouse.move(grip.x + grip.width / 2, grip.y + grip.height / 2);
await page.mouse.down();
await page.mouse.move(to.x, to.y, { steps: 8 });
await page.mouse.up();
await page.waitForTimeout(900);
const strip = (await page.locator('stylet-close-up').boundingBox())!;
await desk.pens(
  pathsOfText('closure depth 6 m', {
    x: strip.x + 70,
    y: strip.y + strip.height * 0.66,
    size: 64,
    typeface: 'EMSFelix',
  }),
  { speed: 420 },
);
await shoot('close-up');
await page.keyboard.press('c');
await undoAll();

await open('Dune migration (review)');
await page.keyboard.press('Shift+M');
await page.locator('stylet-note-card .head').first().click();
await page.mouse.move(640, 700);
await shoot('margin');
await page.keyboard.press('Shift+M');

await open('Field handbook', '40');
await page.getByRole('radio', { name: 'Read' }).click();
await page.waitForTimeout(800);
const view = page.locator('stylet-page-view[data-page="54"]');
const box = (await view.boundingBox())!;
await page.mouse.dblclick(box.x + box.width * 0.24, box.y + 190);
await page.getByRole('button', { name: 'Look up' }).click();
await shoot('reading');
await page.keyboard.press('Escape');
await page.keyboard.press('Escape');
await page.getByRole('radio', { name: 'Write' }).click();
await page.getByLabel('Bookmark this page').click();
await page.getByRole('button', { name: /^Highlights/ }).click();
await page.getByRole('button', { name: /^Ink/ }).click();
const map = (await page.locator('stylet-document-map').boundingBox())!;
await page.mouse.move(map.x + 10, map.y + map.height * 0.55);
await page.waitForTimeout(600);
await shoot('index');
await undoAll();

await page.keyboard.press('Control+f');
await page.getByLabel('Find in this document').fill('“rip channel”');
await page.mouse.move(640, 700);
await page.waitForTimeout(6000);
await page.keyboard.press('Enter');
await shoot('find');
await page.keyboard.press('Escape');

await open('Waves and tides', '2');
await page.getByRole('radio', { name: 'Read' }).click();
await page.getByRole('radio', { name: 'Write' }).click();

// Another device, while somebody writes here.
const elsewhere = await browser.newContext({ viewport: { width: 1280, height: 800 } });
const other = await elsewhere.newPage();
await other.goto(page.url());
await other.locator('canvas.bitmap[width]').first().waitFor();
await page.waitForTimeout(1500);
await other.getByRole('button', { name: /, on page/ }).click();
await other.getByRole('menuitem', { name: 'Follow' }).click();
await desk.goTo('20');
await page.waitForTimeout(1500);
const under = await Promise.all(
  Array.from({ length: 30 }, (_, i) => spot(20, 100 + 8 * i, 470 + 12 * Math.sin(i / 2))),
);
const held = desk.pen(under, {}, { hold: 5000 });
await page.waitForTimeout(2500);
await shoot('presence', other);
await held;
await elsewhere.close();
await undoAll();
await desk.goTo('2');
await page.mouse.move(640, 700);
await page.keyboard.press('o');
await page.waitForTimeout(2500);
await page.getByRole('option', { name: 'Page 7', exact: true }).click();
await page.getByRole('option', { name: 'Page 9', exact: true }).click({ modifiers: ['Shift'] });
await shoot('board');
await page.keyboard.press('o');
await page.waitForTimeout(700);

const address = page.url();
await page.goto(new URL('/kept', address).href);
await shoot('on-this-device');
await page.goto(new URL('/find?typed=grain size', address).href);
await page.locator('stylet-hit-picture.drawn').nth(5).waitFor();
await shoot('find-library');
await page.goto(address);
await page.locator('canvas.bitmap[width]').first().waitFor();
await page.waitForTimeout(1500);

// The text of pages, while it is edited.
await open('Log of the second day');
await page.getByRole('button', { name: 'Edit text' }).click();
await page.getByRole('textbox', { name: 'Text of the pages' }).waitFor();
await page.waitForTimeout(1500);
await page.keyboard.press('Control+Home');
await page.keyboard.press('ArrowDown');
await page.keyboard.press('End');
await page.keyboard.press('Control+Shift+ArrowLeft');
await shoot('typed-pages');
await page.getByRole('button', { name: 'Done' }).click();
await open('Waves and tides');

// Two panes, dark.
await page.keyboard.press('d');
await page.getByLabel('All open documents').click();
await page.getByRole('menuitem', { name: '“Field handbook” beside this' }).click();
const handbook = page.frameLocator('iframe[title="Pane 2"]');
await handbook.locator('canvas.bitmap[width]').first().waitFor();
await page.frameLocator('iframe[title="Pane 1"]').locator('canvas.bitmap[width]').first().waitFor();
const field = handbook.getByLabel('Page, by label or number');
await field.fill('40');
await field.press('Enter');
await page.waitForTimeout(2000);
await shoot('panes');
await browser.close();
