import { pathsOfText } from '@stylet/demo/stylus';
import { samplesFromBase64 } from '@stylet/core/ink';
import { expect, test, SLIDE } from './support/fixtures';
import { differing, type DeskDriver } from './support/desk';
import { fineliner } from './support/kit';

/** Points: 0.4 mm. */
const WIDTH = 1.134;

const strip = async (desk: DeskDriver) =>
  (await desk.page.locator('stylet-close-up .body').boundingBox())!;
const frame = async (desk: DeskDriver) =>
  (await desk.page.locator('stylet-close-up-frame .frame').boundingBox())!;

test('what is written in the close-up is small ink on the page, seen in both while it is drawn', async ({
  desk,
  deck,
  instance,
}) => {
  await instance.keepKit({
    version: 1,
    slots: [fineliner('plain', { width: WIDTH })],
    eraser: { by: 'stroke', target: 'both', size: 11, springsBack: false },
    buttons: { eraserEnd: 'eraser', barrel: 'eraser' },
  });
  await desk.open(instance.url, deck);
  await desk.page.keyboard.press('c');
  await desk.still();
  const [body, onPage] = [await strip(desk), await frame(desk)];
  const before = await desk.picture(onPage);
  const paths = pathsOfText('ebb', {
    x: body.x + 60,
    y: body.y + 130,
    size: 110,
    typeface: 'EMSFelix',
  });
  await desk.pens(paths.slice(0, -1), { speed: 1500 });
  const session = await desk.input();
  const last = paths[paths.length - 1];
  for (const [i, spot] of last.entries())
    await session.send('Input.dispatchMouseEvent', {
      type: i === 0 ? 'mousePressed' : 'mouseMoved',
      ...spot,
      button: 'left',
      buttons: 1,
      pointerType: 'pen',
      force: 0.5,
      tiltX: 0,
      tiltY: 0,
      clickCount: 1,
    });
  const during = await desk.rested(onPage);
  expect(differing(before, during, 40)).toBeGreaterThan(30);
  await session.send('Input.dispatchMouseEvent', {
    type: 'mouseReleased',
    ...last[last.length - 1],
    button: 'left',
    buttons: 0,
    pointerType: 'pen',
    force: 0,
    tiltX: 0,
    tiltY: 0,
    clickCount: 1,
  });
  expect(differing(during, await desk.rested(onPage), 60)).toBeLessThan(12);
  await desk.saved();
  const inks = (await instance.annotations(deck)) as { samples: string; width: number }[];
  expect(inks).toHaveLength(paths.length);
  // The strip magnifies: on the page the writing is smaller by that much, the pen as wide as ever.
  const { x } = samplesFromBase64(inks[0].samples);
  const scale = onPage.width / body.width;
  const pixels = (await desk.spot(1, 100, 0, SLIDE)).x - (await desk.spot(1, 0, 0, SLIDE)).x;
  const written = (Math.max(...x) - Math.min(...x)) * (pixels / 100);
  const drawn = paths[0].map((p) => p.x);
  expect(written / (Math.max(...drawn) - Math.min(...drawn))).toBeCloseTo(scale, 1);
  expect(inks[0].width).toBeCloseTo(WIDTH, 2);
});

test('writing at its end moves the frame on, and to the next line at the margin', async ({
  desk,
  deck,
  instance,
}) => {
  await desk.open(instance.url, deck);
  await desk.page.keyboard.press('c');
  await desk.still();
  await desk.page.getByLabel('Distance of lines in millimetres').fill('9');
  await desk.page.getByLabel('Distance of lines in millimetres').press('Enter');
  const body = await strip(desk);
  const places = [await frame(desk)];
  // In the middle nothing moves; at the end it does once the pen stays up.
  await desk.pen([
    { x: body.x + 300, y: body.y + 80 },
    { x: body.x + 360, y: body.y + 120 },
  ]);
  await desk.pause(700);
  expect((await frame(desk)).x).toBeCloseTo(places[0].x, 0);
  for (let i = 0; i < 5; i++) {
    await desk.pen([
      { x: body.x + body.width - 120, y: body.y + 80 },
      { x: body.x + body.width - 60, y: body.y + 120 },
    ]);
    const [{ x, y }] = places.slice(-1);
    await expect
      .poll(async () => Math.hypot((await frame(desk)).x - x, (await frame(desk)).y - y))
      .toBeGreaterThan(1);
    await desk.still();
    places.push(await frame(desk));
    if (places[i + 1].y > places[i].y + 1) break;
  }
  const [last, newLine] = places.slice(-2);
  expect(places.length).toBeGreaterThan(3);
  expect(last.x).toBeGreaterThan(places[0].x + 100);
  expect(newLine.x).toBeCloseTo(places[0].x, 0);
  // 9 mm at the page's scale.
  const tenth = (await desk.spot(1, 0, 7.2, SLIDE)).y - (await desk.spot(1, 0, 0, SLIDE)).y;
  expect(newLine.y - last.y).toBeCloseTo(((9 / 25.4) * 72 * tenth) / 7.2, 0);
});

test('the frame is moved and resized by hand, every tool works in the strip, and it closes', async ({
  desk,
  deck,
  instance,
}) => {
  await desk.open(instance.url, deck);
  await desk.page.getByLabel('Close-up, key C').click();
  await desk.still();
  const first = await frame(desk);
  const centre = async (label: string) => {
    const box = (await desk.page.getByLabel(label).boundingBox())!;
    return { x: box.x + box.width / 2, y: box.y + box.height / 2 };
  };
  const tab = await centre('Move the frame');
  await desk.pen([tab, { x: tab.x + 120, y: tab.y + 60 }]);
  const moved = await frame(desk);
  expect(moved.x - first.x).toBeCloseTo(120, -1);
  expect(moved.y - first.y).toBeCloseTo(60, -1);
  const corner = await centre('Width of the frame');
  await desk.pen([corner, { x: corner.x - 100, y: corner.y }]);
  expect((await frame(desk)).width).toBeCloseTo(moved.width - 100, -1);
  const margin = await centre('Right margin');
  await desk.pen([margin, { x: margin.x - 80, y: margin.y }]);
  expect((await centre('Right margin')).x).toBeCloseTo(margin.x - 80, -1);
  expect(await instance.annotations(deck)).toHaveLength(0);
  // A highlighter off the text, then the eraser over it.
  const body = await strip(desk);
  const line = [
    { x: body.x + 80, y: body.y + 150 },
    { x: body.x + 400, y: body.y + 150 },
  ];
  await desk.page.keyboard.press('1');
  await desk.pen(line);
  await desk.saved();
  expect(await instance.annotations(deck)).toHaveLength(1);
  await desk.page.keyboard.press('e');
  await desk.pen([
    { x: body.x + 240, y: body.y + 110 },
    { x: body.x + 240, y: body.y + 190 },
  ]);
  await expect.poll(async () => (await instance.annotations(deck)).length).toBe(0);
  const edge = await centre('Height of the close-up');
  await desk.pen([edge, { x: edge.x, y: edge.y - 60 }]);
  expect((await strip(desk)).height).toBeCloseTo(body.height + 60, -1);
  await desk.page.keyboard.press('c');
  await expect(desk.page.locator('stylet-close-up')).toHaveCount(0);
});
