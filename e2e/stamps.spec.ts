import { readFileSync } from 'node:fs';
import { PDFDocument } from '@cantoo/pdf-lib';
import { expect, test, SLIDE } from './support/fixtures';
import type { DeskDriver } from './support/desk';
import { pictures } from './support/pictures';

const drawer = (desk: DeskDriver) => desk.page.locator('stylet-stamp-drawer');
const stamp = (desk: DeskDriver, name: string) =>
  drawer(desk).getByRole('button', { name, exact: true });

/** Opens the drawer by keys: the first takes the tool, the second opens what it lays down. */
async function openDrawer(desk: DeskDriver): Promise<void> {
  await desk.page.keyboard.press('1');
  await desk.page.keyboard.press('k');
  await desk.page.keyboard.press('k');
  await expect(drawer(desk)).toBeVisible();
}

/** The corners of the box a stamp fills, in points. */
const boxOf = ({ transform: [a, b, c, d, e, f] }: { readonly transform: readonly number[] }) => ({
  width: Math.hypot(a, b),
  height: Math.hypot(c, d),
  x: e + (a + c) / 2,
  y: f + (b + d) / 2,
});

test('a stamp is laid where the pen taps, again and again, as large as it was made or is dragged', async ({
  desk,
  deck,
  instance,
}) => {
  const { page } = desk;
  await desk.open(instance.url, deck);
  await openDrawer(desk);
  await stamp(desk, 'Agreed').click();
  await expect(drawer(desk)).toHaveCount(0);
  const spots = [
    [200, 200],
    [300, 200],
  ] as const;
  for (const [x, y] of spots) {
    const at = await desk.spot(1, x, y, SLIDE);
    await desk.pen([at, at]);
  }
  const [from, to] = [await desk.spot(1, 420, 180, SLIDE), await desk.spot(1, 520, 280, SLIDE)];
  await desk.pen([from, { x: (from.x + to.x) / 2, y: (from.y + to.y) / 2 }, to]);
  await desk.saved();
  const laid = await pictures(instance, deck);
  expect(laid).toHaveLength(3);
  for (const one of laid)
    expect(one).toMatchObject({ isStamp: true, inFront: true, contents: 'Agreed' });
  const boxes = laid.map(boxOf).sort((a, b) => a.x - b.x);
  spots.forEach(([x, y], i) => {
    expect(Math.abs(boxes[i].x - x)).toBeLessThan(1);
    expect(Math.abs(boxes[i].y - y)).toBeLessThan(1);
    expect(boxes[i].width).toBeGreaterThan(28);
    expect(boxes[i].width).toBeLessThan(38);
  });
  // Dragged over 100 points both ways.
  expect(Math.max(boxes[2].width, boxes[2].height)).toBeGreaterThan(99);
  expect(Math.min(boxes[2].width, boxes[2].height)).toBeLessThan(102);
  const ring = { x: boxes[2].x - 0.46 * boxes[2].width, y: boxes[2].y };
  const onRing = await desk.spot(1, ring.x, ring.y, SLIDE);
  const isGreen = async (): Promise<boolean> => {
    const [red, green, blue] = await desk.colorAt(onRing);
    return green > red + 40 && green > blue;
  };
  await expect.poll(isGreen).toBe(true);
  await page.keyboard.press('Control+z');
  await expect.poll(isGreen).toBe(false);
  await desk.saved();
  expect(await pictures(instance, deck)).toHaveLength(2);

  // In one colour from now on; what lies there already is recoloured from the selection.
  await page.keyboard.press('k');
  await drawer(desk).getByRole('radio', { name: 'Madder' }).click();
  await expect(drawer(desk).getByRole('tab', { name: 'Lately' })).toBeVisible();
  await stamp(desk, 'Agreed').click();
  const at = await desk.spot(1, 200, 300, SLIDE);
  await desk.pen([at, at]);
  await desk.saved();
  const [tinted] = (await pictures(instance, deck)).filter((one) => 'tint' in one);
  expect(tinted).toMatchObject({ digest: laid[0].digest, tint: expect.stringMatching(/^#/) });
  await page.reload();
  await desk.drawn();
  expect(await pictures(instance, deck)).toHaveLength(3);
});

test('what was drawn is kept as a stamp, renamed, taken away and brought back, and handed on as a PDF', async ({
  desk,
  deck,
  instance,
}) => {
  const { page } = desk;
  await desk.open(instance.url, deck);
  await page.keyboard.press('1');
  for (const y of [200, 220])
    await desk.pen([await desk.spot(1, 300, y, SLIDE), await desk.spot(1, 380, y, SLIDE)]);
  await page.keyboard.press('l');
  const around = [
    [280, 180],
    [400, 180],
    [400, 240],
    [280, 240],
    [280, 180],
  ] as const;
  await desk.pen(await Promise.all(around.map(([x, y]) => desk.spot(1, x, y, SLIDE))));
  await page.getByRole('button', { name: 'Keep as a stamp' }).click();
  await page.getByLabel('Name', { exact: true }).fill('Two bars');
  await page.getByRole('button', { name: 'Keep', exact: true }).click();
  await expect(page.locator('mat-dialog-container')).toHaveCount(0);

  await openDrawer(desk);
  await drawer(desk).getByRole('searchbox').fill('BARS');
  await expect(stamp(desk, 'Two bars')).toBeVisible();
  await drawer(desk).getByRole('tab', { name: 'My stamps' }).click();
  await drawer(desk).getByRole('button', { name: 'Arrange stamps' }).click();
  await stamp(desk, 'Two bars').click();
  await drawer(desk).getByLabel('Name of the stamp').fill('Pair');
  await page.keyboard.press('Enter');
  await expect(stamp(desk, 'Pair')).toBeVisible();
  await drawer(desk).getByRole('checkbox', { name: 'Favourite' }).check();
  await expect(drawer(desk).getByRole('tab', { name: 'Favourites' })).toBeVisible();

  const download = page.waitForEvent('download');
  await drawer(desk).getByRole('button', { name: 'Hand on as PDF' }).click();
  const file = await (await download).path();
  const sheet = await PDFDocument.load(readFileSync(file));
  expect(sheet.getTitle()).toBe('My stamps');
  const { width } = sheet.getPage(0).getSize();
  expect(width).toBeGreaterThan(79);
  expect(width).toBeLessThan(90);

  await drawer(desk).getByRole('button', { name: 'Remove sheet' }).click();
  await expect(drawer(desk).getByRole('tab', { name: 'My stamps' })).toHaveCount(0);
  await page.locator('mat-snack-bar-container').getByRole('button', { name: 'Undo' }).click();
  await expect(drawer(desk).getByRole('tab', { name: 'My stamps' })).toBeVisible();

  // Handed to somebody else: of its one page, each of the two bars by itself.
  const chooser = page.waitForEvent('filechooser');
  await drawer(desk).getByRole('button', { name: 'From a PDF or pictures' }).click();
  await (
    await chooser
  ).setFiles({
    name: 'signs.pdf',
    mimeType: 'application/pdf',
    buffer: readFileSync(file),
  });
  await page.getByRole('checkbox', { name: /Each drawing by itself/ }).check();
  await expect(page.getByRole('status').filter({ hasText: '0 of 2 taken' })).toBeVisible();
  await page.getByRole('button', { name: 'Pair, 2', exact: true }).click();
  await page.getByRole('textbox', { name: 'Sheet' }).fill('From Wren');
  await page.getByRole('button', { name: 'Make stamps' }).click();
  await drawer(desk).getByRole('tab', { name: 'From Wren' }).click();
  await drawer(desk).getByRole('button', { name: 'Arrange stamps' }).click();
  await stamp(desk, 'Pair, 2').click();
  const at = await desk.spot(1, 500, 100, SLIDE);
  await desk.pen([at, at]);
  await desk.saved();
  const [part] = await pictures(instance, deck);
  expect(part).toMatchObject({ contents: 'Pair, 2', isStamp: true });
  // What of it is meant is the lower bar alone, in its own size.
  const crop = (part as unknown as { crop: { x: number; y: number }[] }).crop;
  expect(Math.min(...crop.map(({ y }) => y))).toBeGreaterThan(0.5);
  await expect.poll(async () => Math.min(...(await desk.colorAt(at)))).toBeLessThan(120);
});
