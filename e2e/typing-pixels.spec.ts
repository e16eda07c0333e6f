import { PNG } from 'pngjs';
import type { DeskDriver } from './support/desk';
import { expect, test, SLIDE } from './support/fixtures';
import { byPoppler, likeness, type Part } from './support/poppler';

const editor = (desk: DeskDriver) => desk.page.getByRole('textbox', { name: 'Typed text' });

const shot = async ({ page }: DeskDriver, clip: Part): Promise<PNG> =>
  PNG.sync.read(await page.screenshot({ clip, caret: 'hide' }));

test('a box looks the same while it is typed in, on its page and in poppler, at 100, 200 and 400 %', async ({
  desk,
  deck,
  instance,
}) => {
  const { page } = desk;
  await desk.open(instance.url, deck);
  await page.getByLabel('Text, key T').click();
  await desk.pen([await desk.spot(1, 420, 200, SLIDE)]);
  await expect(editor(desk)).toBeFocused();
  await page.keyboard.type('Ebb office, ');
  await page.keyboard.press('Control+b');
  await page.keyboard.type('12.5 cm');
  await page.keyboard.press('Control+b');
  await page.keyboard.press('Enter');
  await page.keyboard.type('Waves AV fi, גאות');
  await page.keyboard.press('Escape');
  await desk.saved();
  const reply = await fetch(`${instance.url}/api/documents/${deck}/export?annotations=editable`);
  const pdf = new Uint8Array(await reply.arrayBuffer());
  for (const wanted of [100, 200, 400]) {
    const at = await desk.spot(1, 450, 212, SLIDE);
    await page.mouse.move(at.x, at.y);
    const zoom = async (): Promise<number> =>
      Number((await page.locator('.zoom').innerText()).replace(/\D/g, ''));
    await page.keyboard.down('Control');
    while ((await zoom()) < wanted) {
      await page.mouse.wheel(0, -60);
      await page.waitForTimeout(60);
    }
    await page.keyboard.up('Control');
    await desk.drawn();
    await desk.still();
    const sheet = (await page.locator('stylet-page-view').first().boundingBox())!;
    const corner = await desk.spot(1, 424, 204, SLIDE);
    const view = (await page.locator('.scroller').boundingBox())!;
    const [x, y] = [
      Math.ceil(Math.max(corner.x, view.x + 20)),
      Math.ceil(Math.max(corner.y, view.y + 70)),
    ];
    const scale = sheet.width / SLIDE;
    const width = Math.floor(Math.min(90 * scale, view.x + view.width - 40 - x));
    const clip = { x, y, width, height: Math.floor(Math.min(26 * scale, 400)) };

    const tap = await desk.spot(1, 450, 212, SLIDE);
    await desk.pen([tap]);
    await expect(editor(desk)).toBeFocused();
    await desk.still();
    const typed = await shot(desk, clip);
    await page.keyboard.press('Escape');
    await expect(editor(desk)).toHaveCount(0);
    await page.mouse.move(view.x + 5, view.y + view.height - 5);
    await desk.still();
    const shown = await shot(desk, clip);
    // The page need not begin at a pixel: poppler's picture is of just what lies there.
    const drawn = byPoppler(pdf, scale, { ...clip, x: x - sheet.x, y: y - sheet.y });
    expect(likeness(typed, shown)).toBeGreaterThan(0.99);
    expect(likeness(shown, drawn)).toBeGreaterThan(0.97);
  }
});

test('lines are in the small picture of a page what they are in its export', async ({
  desk,
  deck,
  instance,
}) => {
  const { page } = desk;
  await desk.open(instance.url, deck);
  await page.getByLabel('Text, key T').click();
  const [from, to] = [await desk.spot(1, 380, 40, SLIDE), await desk.spot(1, 680, 70, SLIDE)];
  await desk.pen([from, to]);
  await expect(editor(desk)).toBeFocused();
  const size = page.getByLabel('Size in points');
  await size.fill('44');
  await size.press('Enter');
  await page.keyboard.type('Ebb office opens late at the gauge, says the table');
  await page.keyboard.press('Escape');
  await desk.saved();
  const reply = await fetch(`${instance.url}/api/documents/${deck}/export?annotations=editable`);
  const pdf = new Uint8Array(await reply.arrayBuffer());
  await page.keyboard.press('o');
  const tile = page.locator('stylet-board-tile.drawn').first();
  await expect(tile).toBeVisible();
  await desk.still();
  const { x, y, width } = (await tile.locator('canvas').boundingBox())!;
  const scale = width / SLIDE;
  const [left, top] = [Math.ceil(x + 375 * scale), Math.ceil(y + 35 * scale)];
  const clip = { x: left, y: top, width: Math.floor(310 * scale), height: Math.floor(260 * scale) };
  const shown = await shot(desk, clip);
  const drawn = byPoppler(pdf, scale, { ...clip, x: left - x, y: top - y });
  // Small pictures are of whole pixels, so that letters lie a part of one beside; a word on another line leaves half of this.
  expect(likeness(shown, drawn)).toBeGreaterThan(0.93);
  const other = byPoppler(pdf, scale, { ...clip, x: left - x, y: top - y + 20 });
  expect(likeness(shown, other)).toBeLessThan(0.5);
});
