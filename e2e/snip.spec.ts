import { PNG } from 'pngjs';
import { DeskDriver, type Spot } from './support/desk';
import { expect, test, SLIDE } from './support/fixtures';
import type { Instance } from './support/instance';
import { pictures } from './support/pictures';

test.beforeEach(async ({ desk, instance }) => {
  await desk.page
    .context()
    .grantPermissions(['clipboard-read', 'clipboard-write'], { origin: instance.url });
});

const bar = (desk: DeskDriver) => desk.page.getByRole('toolbar', { name: 'Snip' });

async function region(desk: DeskDriver): Promise<[Spot, Spot]> {
  return [await desk.spot(1, 120, 150, SLIDE), await desk.spot(1, 480, 270, SLIDE)];
}

/** Writes a line through the region, and snips that. */
async function snip(desk: DeskDriver): Promise<void> {
  const [from, to] = await region(desk);
  await desk.pen([
    { x: from.x + 40, y: to.y - 15 },
    { x: to.x - 60, y: to.y - 15 },
  ]);
  await desk.page.keyboard.press('s');
  await desk.pen([from, to]);
  await expect(bar(desk)).toContainText('On the clipboard');
}

async function clipboardPicture(desk: DeskDriver): Promise<PNG> {
  const base64 = await desk.page.evaluate(async () => {
    const [item] = await navigator.clipboard.read();
    const bytes = new Uint8Array(await (await item.getType('image/png')).arrayBuffer());
    let text = '';
    for (const byte of bytes) text += String.fromCharCode(byte);
    return btoa(text);
  });
  return PNG.sync.read(Buffer.from(base64, 'base64'));
}

/** The share of a picture that is as blue as the pen in hand. */
function inkIn({ data }: PNG): number {
  let ink = 0;
  for (let i = 0; i < data.length; i += 4)
    if (Math.abs(data[i] - 0x22) + Math.abs(data[i + 1] - 0x30) + Math.abs(data[i + 2] - 0x4a) < 30)
      ink++;
  return (4 * ink) / data.length;
}

const title = async (instance: Instance, id: string): Promise<string> =>
  ((await (await fetch(`${instance.url}/api/documents/${id}`)).json()) as { title: string }).title;

test('a snip goes onto the clipboard at print sharpness, is pasted as it is drawn, and leads back', async ({
  desk,
  deck,
  instance,
}) => {
  await desk.open(instance.url, deck);
  await snip(desk);
  const picture = await clipboardPicture(desk);
  // 360 × 120 points at 300 to the inch.
  expect(Math.abs(picture.width - 1500)).toBeLessThan(15);
  expect(Math.abs(picture.height - 500)).toBeLessThan(15);
  await desk.saved();
  await expect(bar(desk)).toBeVisible();
  await desk.goTo('5');
  const at = await desk.spot(5, 360, 250, SLIDE);
  await desk.page.mouse.move(at.x, at.y);
  await desk.page.keyboard.press('Control+v');
  // Pasted before the server has cut it out, it waits for that.
  await expect.poll(async () => (await pictures(instance, deck)).length).toBe(1);
  const [put] = await pictures(instance, deck);
  expect(put).toMatchObject({ medium: 'lines', source: { documentId: deck } });
  expect(put.transform[0]).toBeCloseTo(360, -1);
  await desk.page.getByLabel('Where it is from').click();
  await expect(desk.page.getByLabel('Page, by label or number')).toHaveValue('1');
});

test('a snip goes straight into another open document, and leads back from there', async ({
  desk,
  deck,
  handbook,
  instance,
}) => {
  await desk.open(instance.url, deck);
  const other = new DeskDriver(await desk.page.context().newPage());
  await other.open(instance.url, handbook);
  await desk.page.bringToFront();
  await snip(desk);
  const name = `Put into “${await title(instance, handbook)}”`;
  await desk.page.getByRole('button', { name }).click();
  await expect(desk.page.getByText('The snip is in “Field handbook”.')).toBeVisible();
  await other.page.bringToFront();
  await expect(other.page.getByRole('toolbar', { name: 'Selection' })).toContainText('pictures 1');
  await other.saved();
  const [put] = await pictures(instance, handbook);
  expect(put.source).toMatchObject({ documentId: deck, title: await title(instance, deck) });
  await other.page.getByLabel('Where it is from').click();
  await expect(other.page).toHaveURL(new RegExp(`/documents/${deck}`));
  await other.drawn();
});

test('a window that was closed is not offered any more', async ({
  desk,
  deck,
  handbook,
  instance,
}) => {
  await desk.open(instance.url, deck);
  const other = new DeskDriver(await desk.page.context().newPage());
  await other.open(instance.url, handbook);
  await desk.page.bringToFront();
  await snip(desk);
  await expect(desk.page.getByRole('button', { name: /Put into/ })).toBeVisible();
  await other.page.close();
  await expect(desk.page.getByRole('button', { name: /Put into/ })).toHaveCount(0);
});

test('what is written comes along only if it is wanted; freehand leaves out what lies outside', async ({
  desk,
  deck,
  instance,
}) => {
  await desk.open(instance.url, deck);
  await snip(desk);
  const withInk = inkIn(await clipboardPicture(desk));
  await desk.page.keyboard.press('Escape');
  await desk.page.keyboard.press('s');
  await desk.page.getByLabel('Snip, key S').click();
  await desk.page.getByRole('checkbox', { name: 'With what is written on it' }).uncheck();
  await desk.page.getByRole('button', { name: 'Close', exact: true }).click();
  await desk.pen(await region(desk));
  await expect(bar(desk)).toContainText('On the clipboard');
  const without = inkIn(await clipboardPicture(desk));
  expect(withInk).toBeGreaterThan(without + 0.002);

  await desk.page.keyboard.press('Escape');
  await desk.page.keyboard.press('s');
  await desk.page.getByLabel('Snip, key S').click();
  await desk.page.getByRole('radio', { name: 'Freehand' }).click();
  await desk.page.getByRole('button', { name: 'Close', exact: true }).click();
  const [from, to] = await region(desk);
  await desk.pen([from, to, { x: from.x, y: to.y }, from]);
  await expect(bar(desk)).toContainText('On the clipboard');
  const { data, width, height } = await clipboardPicture(desk);
  const alphaAt = (x: number, y: number): number =>
    data[4 * (Math.round(y * height) * width + Math.round(x * width)) + 3];
  expect(alphaAt(0.2, 0.8)).toBe(255);
  expect(alphaAt(0.8, 0.2)).toBe(0);
});

test('without the server a snip still has its pixels, and says so', async ({
  desk,
  deck,
  instance,
}) => {
  await desk.open(instance.url, deck);
  await desk.loaded();
  await instance.kill();
  await desk.page.keyboard.press('s');
  await desk.page.getByLabel('Snip, key S').click();
  await desk.page.getByRole('checkbox', { name: 'With what is written on it' }).uncheck();
  await desk.page.getByRole('button', { name: 'Close', exact: true }).click();
  await desk.pen(await region(desk));
  await expect(bar(desk)).toContainText('On the clipboard');
  await expect(desk.page.getByText('The snip has only pixels')).toBeVisible();
  await instance.start();
});
