import { execFileSync } from 'node:child_process';
import { mkdtempSync, readFileSync, rmSync, writeFileSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { PNG } from 'pngjs';
import { ssim } from 'ssim.js';
import type { DeskDriver } from './support/desk';
import { expect, test, SLIDE } from './support/fixtures';

/** A part of a picture, in pixels. */
interface Part {
  readonly x: number;
  readonly y: number;
  readonly width: number;
  readonly height: number;
}

const editor = (desk: DeskDriver) => desk.page.getByRole('textbox', { name: 'Typed text' });

const shot = async ({ page }: DeskDriver, clip: Part): Promise<PNG> =>
  PNG.sync.read(await page.screenshot({ clip, caret: 'hide' }));

/** How many times as fine as it is compared poppler draws: so its edges are of coverage, as those of canvases are. */
const FINER = 8;

/** A part of the first page of an export as poppler draws it; `part` in pixels of which there are `scale` to a point. */
function byPoppler(pdf: Uint8Array, scale: number, part: Part): PNG {
  const folder = mkdtempSync(join(tmpdir(), 'stylet-pixels-'));
  try {
    writeFileSync(join(folder, 'a.pdf'), pdf);
    const [x, y, width, height] = [part.x, part.y, part.width, part.height].map((value) =>
      String(Math.round(value * FINER)),
    );
    const how = ['-png', '-singlefile', '-cropbox', '-r', String(72 * scale * FINER)];
    const where = ['-x', x, '-y', y, '-W', width, '-H', height];
    execFileSync('pdftoppm', [...how, ...where, join(folder, 'a.pdf'), join(folder, 'a')]);
    return coarser(PNG.sync.read(readFileSync(join(folder, 'a.png'))), part);
  } finally {
    rmSync(folder, { recursive: true });
  }
}

/** A picture with `FINER` times fewer pixels each way, each the mean of those it was. */
function coarser({ data, width: across }: PNG, { width, height }: Part): PNG {
  const less = new PNG({ width, height });
  for (let y = 0; y < height; y++)
    for (let x = 0; x < width; x++)
      for (let k = 0; k < 4; k++) {
        let sum = 0;
        for (let dy = 0; dy < FINER; dy++)
          for (let dx = 0; dx < FINER; dx++)
            sum += data[4 * ((y * FINER + dy) * across + x * FINER + dx) + k];
        less.data[4 * (y * width + x) + k] = sum / FINER ** 2;
      }
  return less;
}

/** How much alike two pictures are (Z. Wang and others, Image quality assessment: from error visibility to structural similarity, 2004). */
const likeness = (one: PNG, other: PNG): number => {
  const of = ({ data, width, height }: PNG) => ({
    data: new Uint8ClampedArray(data),
    width,
    height,
  });
  return ssim(of(one) as never, of(other) as never).mssim;
};

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
