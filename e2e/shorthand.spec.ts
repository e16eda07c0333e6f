import { corners, pathsOfText, ring, zigzag } from '@stylet/demo/stylus';
import { PNG } from 'pngjs';
import { expect, test, SLIDE } from './support/fixtures';
import { differing, type DeskDriver, type Spot } from './support/desk';

const HOLD = { hold: 650 };

async function turnOn(desk: DeskDriver, ...names: string[]): Promise<void> {
  await desk.page.getByLabel('More').click();
  await desk.page.getByRole('menuitem', { name: 'Shorthand' }).click();
  for (const name of names) await desk.page.getByRole('checkbox', { name }).check();
  await desk.page.getByRole('button', { name: 'Done' }).click();
  await expect(desk.page.locator('mat-dialog-container')).toHaveCount(0);
}

/** Writes a word below the slide's figures; returns where it lies in the window. */
async function word(desk: DeskDriver): Promise<{ at: Spot; width: number; strokes: number }> {
  const at = await desk.spot(1, 420, 40, SLIDE);
  const paths = pathsOfText('swell', { x: at.x, y: at.y + 30, size: 44, typeface: 'EMSFelix' });
  await desk.pens(paths, { speed: 900 });
  await desk.saved();
  const xs = paths.flat().map(({ x }) => x);
  return { at, width: Math.max(...xs) - at.x, strokes: paths.length };
}

test('scratching out erases what is under it, in one step, and can be refused', async ({
  desk,
  deck,
  instance,
}) => {
  await desk.open(instance.url, deck);
  const count = async () => (await instance.annotations(deck)).length;
  const { at, width, strokes } = await word(desk);
  const scratch = zigzag({ x: at.x - 6, y: at.y - 4 }, width + 14, 46, 8);
  // Off by default: it is ink.
  await desk.pen(scratch);
  await expect.poll(count).toBe(strokes + 1);
  await desk.page.keyboard.press('Control+z');
  await turnOn(desk, 'Scratch out');
  await desk.pen(scratch);
  await expect.poll(count).toBe(0);
  await desk.page.keyboard.press('Control+z');
  await expect.poll(count).toBe(strokes);
  await desk.pen(scratch);
  await expect.poll(count).toBe(0);
  await desk.page.getByRole('button', { name: 'Keep as ink' }).click();
  await expect.poll(count).toBe(strokes + 1);
});

test('a ring that is held selects what it goes round; held on it is the shape; drawn on it is ink', async ({
  desk,
  deck,
  instance,
}) => {
  await desk.open(instance.url, deck);
  const annotations = () => instance.annotations(deck);
  const { at, width, strokes } = await word(desk);
  const around = ring({ x: at.x + width / 2, y: at.y + 16 }, width * 0.95, 44);
  await turnOn(desk, 'Ring and hold');
  await desk.pen(around, {}, HOLD);
  const bar = desk.page.getByRole('toolbar', { name: 'Selection' });
  await expect(bar).toContainText(String(strokes));
  expect(await annotations()).toHaveLength(strokes);
  // Undo lets go of the selection, and of nothing else.
  await desk.page.keyboard.press('Control+z');
  await expect(bar).toHaveCount(0);
  expect(await annotations()).toHaveLength(strokes);
  await desk.pen(around, {}, { hold: 1300 });
  await desk.saved();
  const shape = (await annotations()).find(({ kind }) => kind === 'shape');
  expect(shape).toMatchObject({ form: 'ellipse' });
  await desk.page.keyboard.press('Control+z');
  const session = await desk.input();
  const move = (type: 'mousePressed' | 'mouseMoved' | 'mouseReleased', spot: Spot) =>
    session.send('Input.dispatchMouseEvent', {
      type,
      ...spot,
      button: 'left',
      buttons: type === 'mouseReleased' ? 0 : 1,
      pointerType: 'pen',
      force: 0.5,
      tiltX: 0,
      tiltY: 0,
      clickCount: 1,
    });
  for (const [i, spot] of around.entries())
    await move(i === 0 ? 'mousePressed' : 'mouseMoved', spot);
  await desk.pause(650);
  await expect(bar).toContainText(String(strokes));
  const away = { x: at.x + width + 80, y: at.y + 60 };
  await move('mouseMoved', away);
  await move('mouseReleased', away);
  await expect(bar).toHaveCount(0);
  await desk.saved();
  const after = await annotations();
  expect(after).toHaveLength(strokes + 1);
  expect(after.every(({ kind }) => kind === 'ink')).toBe(true);
});

test('a box that is held puts what it holds on the clipboard, at print sharpness', async ({
  desk,
  deck,
  instance,
}) => {
  await desk.page
    .context()
    .grantPermissions(['clipboard-read', 'clipboard-write'], { origin: instance.url });
  await desk.open(instance.url, deck);
  const { at, width } = await word(desk);
  await turnOn(desk, 'Box and hold');
  const box = [
    { x: at.x - 20, y: at.y - 20 },
    { x: at.x + width + 20, y: at.y - 20 },
    { x: at.x + width + 20, y: at.y + 60 },
    { x: at.x - 20, y: at.y + 60 },
  ];
  const clip = { x: at.x - 20, y: at.y - 20, width: width + 40, height: 80 };
  const before = await desk.picture(clip);
  await desk.pen(corners(box), {}, HOLD);
  await expect(desk.page.getByText('Snipped: the picture is on the clipboard.')).toBeVisible();
  const base64 = await desk.page.evaluate(async () => {
    const [item] = await navigator.clipboard.read();
    const bytes = new Uint8Array(await (await item.getType('image/png')).arrayBuffer());
    return btoa(Array.from(bytes, (byte) => String.fromCharCode(byte)).join(''));
  });
  const picture = PNG.sync.read(Buffer.from(base64, 'base64'));
  // 300 pixels to the inch of the page: a slide is ten inches wide.
  const inches =
    (width + 40) / ((await desk.spot(1, 72, 0, SLIDE)).x - (await desk.spot(1, 0, 0, SLIDE)).x);
  expect(picture.width / (300 * inches)).toBeCloseTo(1, 1);
  const dark = (png: PNG): number => {
    let sum = 0;
    for (let i = 0; i < png.data.length; i += 4) sum += 255 - png.data[i];
    return sum / (png.width * png.height);
  };
  expect(dark(picture) / dark(before)).toBeCloseTo(1, 0);
  await desk.page.keyboard.press('Escape');
  expect(differing(before, await desk.picture(clip), 40)).toBe(0);
  expect((await instance.annotations(deck)).every(({ kind }) => kind === 'ink')).toBe(true);
});
