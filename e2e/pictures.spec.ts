import { writeFileSync } from 'node:fs';
import { mkdtempSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import sharp from 'sharp';
import { differing, type DeskDriver } from './support/desk';
import { expect, test, SLIDE } from './support/fixtures';
import { QUARTERS, file, pictures, putDown, quarters, spotIn, type Put } from './support/pictures';

const CORNERS = [
  [0.1, 0.1],
  [0.9, 0.1],
  [0.1, 0.9],
  [0.9, 0.9],
] as const;

/** The quarters show where they are meant to, `order` telling which one is where. */
async function expectQuarters(desk: DeskDriver, put: Put, page = 1): Promise<void> {
  for (const [i, corner] of CORNERS.entries()) {
    const color = await desk.colorAt(await spotIn(desk, page, put, corner, SLIDE));
    color.forEach((value, k) => expect(Math.abs(value - QUARTERS[i][k])).toBeLessThan(12));
  }
}

const png = async (width = 400, height = 300) =>
  file('quarters.png', 'image/png', await quarters(width, height).png().toBuffer());

test('a picture goes where it is tapped, upright, in its own size, and gives the pen back', async ({
  desk,
  deck,
  instance,
}) => {
  await desk.open(instance.url, deck);
  // As a camera held sideways writes it: rows run from right to left (TIFF 6.0, Orientation 6).
  const photo = await quarters(400, 300).rotate(270).jpeg({ quality: 95 }).toBuffer();
  const turned = await sharp(photo).withMetadata({ orientation: 6 }).toBuffer();
  const at = await desk.spot(1, 400, 200, SLIDE);
  await putDown(desk, [file('photo.jpg', 'image/jpeg', turned)], at);
  await desk.saved();
  const [put] = await pictures(instance, deck);
  // 400 × 300 pixels at 96 to the inch are 300 × 225 points.
  [300, 0, 0, 225, 250, 87.5].forEach((value, i) =>
    expect(Math.abs(put.transform[i] - value)).toBeLessThan(1),
  );
  await desk.page.keyboard.press('Escape');
  await expectQuarters(desk, put);
  await desk.pen([await desk.spot(1, 300, 120, SLIDE), await desk.spot(1, 380, 150, SLIDE)]);
  await desk.saved();
  expect(await instance.annotations(deck)).toHaveLength(2);
  expect(await pictures(instance, deck)).toEqual([put]);
  await desk.page.reload();
  await desk.drawn();
  await expectQuarters(desk, put);
});

test('a picture is sharp again when it is enlarged', async ({ desk, deck, instance }) => {
  await desk.open(instance.url, deck);
  const [width, height] = [1200, 900];
  const stripes = Buffer.from(
    Array.from({ length: width * height }, (_, i) => (i % 2 === 0 ? 0 : 255)),
  );
  const raw = { width, height, channels: 1 } as const;
  const fine = await sharp(stripes, { raw }).png().toBuffer();
  await putDown(
    desk,
    [file('stripes.png', 'image/png', fine)],
    await desk.spot(1, 360, 200, SLIDE),
  );
  await desk.saved();
  await desk.page.keyboard.press('Escape');
  const [put] = await pictures(instance, deck);
  const contrast = async (): Promise<number> => {
    const { x, y } = await spotIn(desk, 1, put, [0.5, 0.4], SLIDE);
    const { data } = await desk.picture({ x: x - 10, y: y - 2, width: 20, height: 4 });
    const values = Array.from({ length: data.length / 4 }, (_, i) => data[4 * i]);
    return Math.max(...values) - Math.min(...values);
  };
  // Two stripes on each pixel are grey.
  await expect.poll(contrast).toBeLessThan(90);
  const middle = await spotIn(desk, 1, put, [0.5, 0.4], SLIDE);
  await desk.page.mouse.move(middle.x, middle.y);
  await desk.page.keyboard.down('Control');
  for (let i = 0; i < 10; i++) await desk.page.mouse.wheel(0, -240);
  await desk.page.keyboard.up('Control');
  // Between its pixels it is smoothed.
  await expect.poll(contrast).toBeGreaterThan(160);
});

test('pictures come from the clipboard and by being dropped, with where they are from', async ({
  desk,
  deck,
  instance,
}) => {
  const context = desk.page.context();
  await context.grantPermissions(['clipboard-read', 'clipboard-write'], { origin: instance.url });
  await desk.open(instance.url, deck);
  const { buffer } = await png(120, 90);
  await desk.page.evaluate(async (base64) => {
    const blob = await (await fetch(`data:image/png;base64,${base64}`)).blob();
    await navigator.clipboard.write([new ClipboardItem({ 'image/png': blob })]);
  }, buffer.toString('base64'));
  const at = await desk.spot(1, 500, 100, SLIDE);
  await desk.page.mouse.move(at.x, at.y);
  await desk.page.keyboard.press('Control+v');
  await desk.saved();
  const [pasted] = await pictures(instance, deck);
  await desk.page.keyboard.press('Escape');
  await expectQuarters(desk, pasted);
  const spot = await spotIn(desk, 1, pasted, [0.5, 0.5], SLIDE);
  expect(Math.hypot(spot.x - at.x, spot.y - at.y)).toBeLessThan(3);

  // A file that is dragged in from the desktop.
  const path = join(mkdtempSync(join(tmpdir(), 'stylet-drop-')), 'dropped.webp');
  writeFileSync(path, await quarters(160, 120).webp({ lossless: true }).toBuffer());
  const to = await desk.spot(1, 300, 320, SLIDE);
  const session = await context.newCDPSession(desk.page);
  const data = { items: [], files: [path], dragOperationsMask: 1 };
  for (const type of ['dragEnter', 'dragOver', 'drop'] as const)
    await session.send('Input.dispatchDragEvent', { type, x: to.x, y: to.y, data });
  await expect.poll(async () => (await pictures(instance, deck)).length).toBe(2);
  await desk.page.keyboard.press('Escape');
  const dropped = (await pictures(instance, deck)).find(({ id }) => id !== pasted.id)!;
  await expectQuarters(desk, dropped);

  // A picture that is dragged from a page of the web brings its address.
  await desk.page.evaluate(
    ({ x, y, base64 }) => {
      const bytes = Uint8Array.from(atob(base64), (c) => c.charCodeAt(0));
      const transfer = new DataTransfer();
      transfer.items.add(new File([bytes], 'map.png', { type: 'image/png' }));
      transfer.setData('text/uri-list', 'https://tidewater.example/maps/spit.png');
      const init = { dataTransfer: transfer, clientX: x, clientY: y, bubbles: true };
      document.elementFromPoint(x, y)!.dispatchEvent(new DragEvent('drop', init));
    },
    { ...to, base64: buffer.toString('base64') },
  );
  await expect.poll(async () => (await pictures(instance, deck)).length).toBe(3);
  await desk.page.getByLabel('Where it is from').click();
  await expect(desk.page.getByRole('dialog')).toContainText(
    'https://tidewater.example/maps/spit.png',
  );
});

test('a crop by box and by hand hides the rest, and all of it comes back', async ({
  desk,
  deck,
  instance,
}) => {
  await desk.open(instance.url, deck);
  await putDown(desk, [await png()], await desk.spot(1, 400, 200, SLIDE));
  await desk.saved();
  const [whole] = await pictures(instance, deck);
  const inTopLeft = await spotIn(desk, 1, whole, [0.1, 0.1], SLIDE);
  const { page } = desk;
  await page.getByLabel('Crop', { exact: true }).click();
  const grip = (await page.getByLabel('Crop from: Top left').boundingBox())!;
  const from = { x: grip.x + grip.width / 2, y: grip.y + grip.height / 2 };
  const middle = await spotIn(desk, 1, whole, [0.5, 0.5], SLIDE);
  await desk.pen([from, middle]);
  await page.getByRole('button', { name: 'Done' }).click();
  await desk.saved();
  const [boxed] = await pictures(instance, deck);
  const [corner] = boxed.crop!;
  expect(corner.x).toBeCloseTo(0.5, 1);
  expect(corner.y).toBeCloseTo(0.5, 1);
  expect(boxed.transform).toEqual(whole.transform);
  await page.keyboard.press('Escape');
  const [r, g, b] = await desk.colorAt(inTopLeft);
  expect([r, g, b]).not.toEqual([...QUARTERS[0]]);
  const last = await spotIn(desk, 1, whole, CORNERS[3], SLIDE);
  (await desk.colorAt(last)).forEach((value, k) =>
    expect(Math.abs(value - QUARTERS[3][k])).toBeLessThan(12),
  );

  // By hand: a ring round the middle.
  await page.keyboard.press('l');
  await desk.pen([last]);
  await page.getByLabel('Crop', { exact: true }).click();
  await page.getByRole('button', { name: 'Freehand' }).click();
  const ring = Array.from({ length: 33 }, (_, i) => {
    const angle = (i * Math.PI) / 16;
    return { x: middle.x + 60 * Math.cos(angle), y: middle.y + 50 * Math.sin(angle) };
  });
  await desk.pen(ring);
  await page.getByRole('button', { name: 'Done' }).click();
  await desk.saved();
  const [ringed] = await pictures(instance, deck);
  expect(ringed.crop!.length).toBeGreaterThan(8);
  await page.keyboard.press('Escape');
  const inRing = await desk.colorAt({ x: middle.x - 20, y: middle.y - 20 });
  inRing.forEach((value, k) => expect(Math.abs(value - QUARTERS[0][k])).toBeLessThan(12));

  // Undone step by step, and at any time.
  await page.keyboard.press('Control+z');
  await page.keyboard.press('Control+z');
  await desk.saved();
  expect((await pictures(instance, deck))[0].crop).toBeUndefined();
  await expectQuarters(desk, whole);
  await page.keyboard.press('Control+Shift+z');
  await desk.pen([last]);
  await page.getByLabel('Crop', { exact: true }).click();
  await page.getByRole('button', { name: 'Whole picture' }).click();
  await page.getByRole('button', { name: 'Done' }).click();
  await desk.saved();
  expect((await pictures(instance, deck))[0].crop).toBeUndefined();
});

test('a turned picture keeps its right angles when its sides are dragged, and turns back level', async ({
  desk,
  deck,
  instance,
}) => {
  await desk.open(instance.url, deck);
  await putDown(desk, [await png()], await desk.spot(1, 360, 200, SLIDE));
  const { page } = desk;
  const centreOf = async (name: string) => {
    const box = (await page.getByLabel(name, { exact: true }).boundingBox())!;
    return { x: box.x + box.width / 2, y: box.y + box.height / 2 };
  };
  const turn = async (by: number): Promise<void> => {
    const [{ transform }] = await pictures(instance, deck);
    const put = { transform } as Put;
    const middle = await spotIn(desk, 1, put, [0.5, 0.5], SLIDE);
    const grip = await centreOf('Turn');
    const [dx, dy] = [grip.x - middle.x, grip.y - middle.y];
    const [c, s] = [Math.cos((by * Math.PI) / 180), Math.sin((by * Math.PI) / 180)];
    await desk.pen([grip, { x: middle.x + c * dx - s * dy, y: middle.y + s * dx + c * dy }]);
    await desk.saved();
  };
  await desk.saved();
  const angle = async (): Promise<number> => {
    const [{ transform }] = await pictures(instance, deck);
    return (Math.atan2(transform[1], transform[0]) * 180) / Math.PI;
  };
  await turn(30);
  expect(await angle()).toBeCloseTo(30, -0.5);
  const [before] = await pictures(instance, deck);
  const right = await centreOf('Stretch from the right');
  await desk.pen([right, { x: right.x + 52, y: right.y + 30 }]);
  await desk.saved();
  const [after] = await pictures(instance, deck);
  const [a, b, c, d] = after.transform;
  // Its sides still stand at right angles, and only its width has grown.
  expect(Math.abs(a * c + b * d)).toBeLessThan(1e-6 * (a * a + b * b + c * c + d * d));
  expect(Math.hypot(c, d)).toBeCloseTo(Math.hypot(before.transform[2], before.transform[3]), 6);
  expect(Math.hypot(a, b)).toBeGreaterThan(
    1.1 * Math.hypot(before.transform[0], before.transform[1]),
  );
  // Within ten degrees of level it is level, however it was turned before.
  await turn(-24);
  expect(await angle()).toBeCloseTo(0, 9);
});

test('neither writing, the eraser nor a scratch touches a picture; it goes in front when it is told', async ({
  desk,
  deck,
  instance,
}) => {
  await desk.open(instance.url, deck);
  await putDown(desk, [await png()], await desk.spot(1, 400, 200, SLIDE));
  await desk.saved();
  const [put] = await pictures(instance, deck);
  const { page } = desk;
  await page.keyboard.press('Escape');
  const [from, to] = [
    await spotIn(desk, 1, put, [0.2, 0.3], SLIDE),
    await spotIn(desk, 1, put, [0.45, 0.3], SLIDE),
  ];
  await desk.pen([from, to]);
  await desk.saved();
  const on = { x: (from.x + to.x) / 2, y: from.y };
  expect(await desk.darkestNear(on)).toBeLessThan(110);
  await page.keyboard.press('l');
  await desk.pen([await spotIn(desk, 1, put, CORNERS[3], SLIDE)]);
  await page.getByLabel('More for the selection').click();
  await page.getByRole('menuitem', { name: 'Order' }).hover();
  await page.getByRole('menuitem', { name: 'To the front' }).click();
  await desk.saved();
  await page.keyboard.press('Escape');
  expect(await desk.darkestNear(on)).toBeGreaterThan(150);
  await page.keyboard.press('Control+z');
  await desk.saved();
  expect(await desk.darkestNear(on)).toBeLessThan(110);
  await page.keyboard.press('e');
  await desk.pen([
    await spotIn(desk, 1, put, [0.1, 0.3], SLIDE),
    await spotIn(desk, 1, put, [0.9, 0.3], SLIDE),
  ]);
  await desk.saved();
  expect(await instance.annotations(deck)).toHaveLength(1);
  expect(await pictures(instance, deck)).toMatchObject([{ transform: put.transform }]);
});

test('files that cannot be used are told, and what to do; the others go in', async ({
  desk,
  deck,
  instance,
}) => {
  await desk.open(instance.url, deck);
  const good = await png();
  const broken = file('torn.png', 'image/png', good.buffer.subarray(0, 300));
  await putDown(desk, [broken, good], await desk.spot(1, 360, 200, SLIDE));
  await expect(desk.page.getByText('“torn.png” was not put in.')).toContainText(
    'Save it as PNG, JPEG, WebP or SVG',
  );
  await desk.saved();
  expect(await pictures(instance, deck)).toHaveLength(1);
});

test('a drawing is shown by its lines, at any size', async ({ desk, deck, instance }) => {
  await desk.open(instance.url, deck);
  const svg =
    '<svg xmlns="http://www.w3.org/2000/svg" width="200" height="150"><rect width="100" height="75" fill="#b3324b"/><rect x="100" width="100" height="75" fill="#1f6f66"/><rect y="75" width="100" height="75" fill="#b77412"/><rect x="100" y="75" width="100" height="75" fill="#2f4fb5"/></svg>';
  await putDown(
    desk,
    [file('drawing.svg', 'image/svg+xml', Buffer.from(svg))],
    await desk.spot(1, 400, 200, SLIDE),
  );
  await desk.saved();
  await desk.page.keyboard.press('Escape');
  const [put] = await pictures(instance, deck);
  expect(put.medium).toBe('lines');
  await expect
    .poll(async () => desk.colorAt(await spotIn(desk, 1, put, [0.1, 0.1], SLIDE)))
    .toEqual([...QUARTERS[0]]);
  await expectQuarters(desk, put);
});

test('with the server away a picture is put in all the same, and sent when that is back', async ({
  desk,
  deck,
  instance,
}) => {
  await desk.open(instance.url, deck);
  await desk.loaded();
  await instance.kill();
  await putDown(desk, [await png()], await desk.spot(1, 400, 200, SLIDE));
  await expect(desk.page.locator('.sync')).toContainText('Offline');
  await desk.page.keyboard.press('Escape');
  await instance.start();
  await desk.saved();
  const [put] = await pictures(instance, deck);
  await expectQuarters(desk, put);
  const reply = await fetch(`${instance.url}/api/pictures/${put.digest}`);
  expect(Buffer.from(await reply.arrayBuffer()).equals((await png()).buffer)).toBe(true);
});

test('what was used before is one tap away, and the file is kept once', async ({
  desk,
  deck,
  instance,
}) => {
  await desk.open(instance.url, deck);
  await putDown(desk, [await png()], await desk.spot(1, 300, 150, SLIDE));
  await desk.page.keyboard.press('Escape');
  await desk.page.keyboard.press('i');
  await desk.page.getByLabel('Picture, key I').click();
  await desk.page.getByRole('button', { name: 'quarters.png' }).click();
  await desk.pen([await desk.spot(1, 500, 300, SLIDE)]);
  await desk.saved();
  const [a, b] = await pictures(instance, deck);
  expect(a.digest).toBe(b.digest);
  expect(a.transform).not.toEqual(b.transform);
});

test('a picture and ink are copied into another document together', async ({
  desk,
  deck,
  deckPdf,
  instance,
}) => {
  const context = desk.page.context();
  await context.grantPermissions(['clipboard-read', 'clipboard-write'], { origin: instance.url });
  await desk.open(instance.url, deck);
  await putDown(desk, [await png()], await desk.spot(1, 360, 200, SLIDE));
  await desk.page.keyboard.press('Escape');
  await desk.pen([await desk.spot(1, 300, 150, SLIDE), await desk.spot(1, 420, 150, SLIDE)]);
  await desk.page.keyboard.press('Control+a');
  await desk.page.keyboard.press('Control+c');
  await desk.saved();
  const other = await instance.bringIn(deckPdf, 'Other.pdf');
  await desk.open(instance.url, other);
  const at = await desk.spot(1, 360, 200, SLIDE);
  await desk.page.mouse.move(at.x, at.y);
  await desk.page.keyboard.press('Control+v');
  await desk.saved();
  expect((await instance.annotations(other)).map(({ kind }) => kind).sort()).toEqual([
    'ink',
    'picture',
  ]);
  await desk.page.keyboard.press('Escape');
  const [put] = await pictures(instance, other);
  await expectQuarters(desk, put);
});

// pdf.js draws the pages themselves: what is flattened into one comes out of it.
test('pdf.js shows an exported picture as the desk does', async ({ desk, deck, instance }) => {
  await desk.open(instance.url, deck);
  const seeThrough = await quarters(400, 300)
    .joinChannel(Buffer.alloc(400 * 300, 160), { raw: { width: 400, height: 300, channels: 1 } })
    .png()
    .toBuffer();
  await putDown(
    desk,
    [file('clear.png', 'image/png', seeThrough)],
    await desk.spot(1, 400, 200, SLIDE),
  );
  await desk.saved();
  await desk.page.keyboard.press('Escape');
  const reply = await fetch(`${instance.url}/api/documents/${deck}/export?annotations=flattened`);
  const flat = await instance.bringIn(new Uint8Array(await reply.arrayBuffer()), 'Flat.pdf');
  const frame = (await desk.page.locator('stylet-page-view[data-page="1"]').boundingBox())!;
  const clip = { x: frame.x, y: frame.y, width: frame.width, height: 380 };
  const shown = await desk.picture(clip);
  await desk.open(instance.url, flat);
  expect(await instance.annotations(flat)).toHaveLength(0);
  const drawn = await desk.picture(clip);
  // Edges of letters and of the picture may be softened in other ways.
  expect(differing(shown, drawn, 24) / (shown.width * shown.height)).toBeLessThan(0.01);
});
