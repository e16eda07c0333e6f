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

const cut = (picture: PNG, { x, y, width, height }: Part): PNG => {
  const part = new PNG({ width, height });
  PNG.bitblt(picture, part, x, y, width, height, 0, 0);
  return part;
};

const shot = async ({ page }: DeskDriver, clip: Part): Promise<PNG> =>
  PNG.sync.read(await page.screenshot({ clip, caret: 'hide' }));

/** The first page of an export, so many pixels wide, as poppler draws it. */
function byPoppler(pdf: Uint8Array, width: number): PNG {
  const folder = mkdtempSync(join(tmpdir(), 'stylet-pixels-'));
  try {
    writeFileSync(join(folder, 'a.pdf'), pdf);
    const how = ['-png', '-singlefile', '-scale-to-x', String(width), '-scale-to-y', '-1'];
    execFileSync('pdftoppm', [...how, join(folder, 'a.pdf'), join(folder, 'a')]);
    return PNG.sync.read(readFileSync(join(folder, 'a.png')));
  } finally {
    rmSync(folder, { recursive: true });
  }
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
    const drawn = byPoppler(pdf, Math.round(sheet.width));
    // The page may lie between two pixels of poppler's picture.
    const [left, top] = [Math.round(x - sheet.x), Math.round(y - sheet.y)];
    const near = [-1, 0, 1].flatMap((right) => [-1, 0, 1].map((down) => [right, down]));
    const alike = near.map(([right, down]) =>
      likeness(shown, cut(drawn, { ...clip, x: left + right, y: top + down })),
    );
    expect(likeness(typed, shown)).toBeGreaterThan(0.99);
    // Poppler's edges of letters are softer; a letter beside its place would leave half of this.
    expect(Math.max(...alike)).toBeGreaterThan(wanted === 100 ? 0.75 : 0.85);
  }
});
