import { expect, test, SLIDE } from './support/fixtures';
import { differing, inkOn } from './support/desk';
import { fineliner } from './support/kit';

const along = (from: { x: number; y: number }, to: { x: number; y: number }) =>
  Array.from({ length: 12 }, (_, i) => ({
    x: from.x + ((to.x - from.x) * i) / 11,
    y: from.y + ((to.y - from.y) * i) / 11 + 12 * Math.sin(i),
  }));

test('a pen stroke is under the nib at once, stays as it was drawn, and is kept', async ({
  desk,
  deck,
  instance,
}) => {
  // Pictures take their time on a busy machine: a pen that is held meanwhile means no shape.
  await instance.keepKit({
    version: 1,
    slots: [fineliner('plain', { color: '#22304a', width: 1.3 })],
    eraser: { by: 'stroke', target: 'both', size: 11, springsBack: false },
    buttons: { eraserEnd: 'eraser', barrel: 'eraser' },
  });
  // How many pixels are soft depends on the zoom: the page is as wide as it was without the Map and the second lane.
  await desk.page.setViewportSize({ width: 1345, height: 800 });
  await desk.open(instance.url, deck);
  const from = await desk.spot(1, 80, 40, SLIDE);
  const to = await desk.spot(1, 400, 60, SLIDE);
  const clip = { x: from.x - 20, y: from.y - 40, width: 560, height: 120 };
  const empty = await desk.picture(clip);
  const session = await desk.page.context().newCDPSession(desk.page);
  const path = along(from, to);
  const send = (type: string, at: { x: number; y: number }, force: number) =>
    session.send('Input.dispatchMouseEvent', {
      type: type as 'mouseMoved',
      ...at,
      button: 'left',
      buttons: force > 0 ? 1 : 0,
      pointerType: 'pen',
      force,
      clickCount: 1,
    });
  await send('mousePressed', path[0], 0.3);
  for (const [i, at] of path.entries()) await send('mouseMoved', at, 0.3 + i / 30);
  await desk.pause(100);
  const drawing = await desk.picture(clip);
  expect(differing(empty, drawing)).toBeGreaterThan(300);
  await send('mouseReleased', path[11], 0);
  const lifted = await desk.rested(clip);
  expect(differing(drawing, lifted, 8)).toBe(0);
  await desk.saved();
  await desk.page.reload();
  await desk.drawn();
  // Drawn anew, pixels at the edges may come out lighter or darker, but the ink lies where it lay.
  const again = await desk.picture(clip);
  expect(differing(lifted, again, 80)).toBe(0);
  expect(differing(lifted, again, 40)).toBeLessThan(0.05 * differing(empty, lifted));
  const [before, after] = [inkOn(empty, lifted), inkOn(empty, again)];
  // Pieces share edges, which wholes have not.
  expect(Math.abs(after.amount / before.amount - 1)).toBeLessThan(0.03);
  before.edges.forEach((edge, i) => expect(Math.abs(after.edges[i] - edge)).toBeLessThan(1.01));
  const [ink] = await instance.annotations(deck);
  expect(ink).toMatchObject({ kind: 'ink', instrument: 'fineliner', color: '#22304a' });
});

// W3C Pointer Events 3, “pressure”: hardware values are kept; a mouse reports 0.5.
test('the nib takes the pen’s pressure; the mouse draws like a pen pressed half', async ({
  desk,
  deck,
  instance,
}) => {
  await desk.open(instance.url, deck);
  await desk.page.keyboard.press('3');
  const [a, b] = [await desk.spot(1, 80, 40, SLIDE), await desk.spot(1, 300, 40, SLIDE)];
  await desk.pen([a, b], { pressure: 0.9 });
  const [c, d] = [await desk.spot(1, 80, 80, SLIDE), await desk.spot(1, 300, 80, SLIDE)];
  await desk.page.mouse.move(c.x, c.y);
  await desk.page.mouse.down();
  await desk.page.mouse.move(d.x, d.y, { steps: 10 });
  await desk.page.mouse.up();
  await desk.saved();
  // On a busy machine the second may have begun before the first was there to lie over.
  const annotations = (await instance.annotations(deck)).sort((one, other) =>
    String(one['created']) < String(other['created']) ? -1 : 1,
  );
  const pressures = await desk.page.evaluate(
    (list) => list.map((base64) => Uint8Array.from(atob(base64), (c) => c.charCodeAt(0))[1]),
    annotations.map((a) => a['samples'] as string),
  );
  // The second byte says whether pressure varies.
  expect(pressures).toEqual([1, 0]);
});

test('the highlighter follows the words and lies under them', async ({ desk, deck, instance }) => {
  await desk.open(instance.url, deck);
  await desk.goTo('16');
  await desk.page.keyboard.press('4');
  await desk.still();
  // “wavelength, the wave feels the bed” is the second line of the slide’s text.
  const from = await desk.spot(16, 100, 161, SLIDE);
  const to = await desk.spot(16, 340, 163, SLIDE);
  await desk.pen([from, to]);
  await desk.saved();
  const [mark] = await instance.annotations(deck);
  expect(mark).toMatchObject({
    kind: 'highlight',
    color: '#ffe27a',
    contents: 'wavelength, the wave feels the bed',
  });
  const clip = { x: from.x, y: from.y - 8, width: to.x - from.x, height: 16 };
  const { data } = await desk.picture(clip);
  let [darkest, yellow] = [255, 0];
  for (let i = 0; i < data.length; i += 4) {
    darkest = Math.min(darkest, data[i]);
    if (Math.min(data[i], data[i + 1]) > data[i + 2] + 60) yellow++;
  }
  expect(yellow).toBeGreaterThan(data.length / 4 / 3);
  expect(darkest).toBeLessThan(60);
});

test('off the text the highlighter is a straight translucent bar', async ({
  desk,
  deck,
  instance,
}) => {
  await desk.open(instance.url, deck);
  await desk.goTo('16');
  await desk.page.keyboard.press('4');
  await desk.still();
  await desk.pen([
    await desk.spot(16, 60, 470, SLIDE),
    await desk.spot(16, 200, 476, SLIDE),
    await desk.spot(16, 330, 470, SLIDE),
  ]);
  await desk.saved();
  expect((await instance.annotations(deck))[0]).toMatchObject({
    kind: 'ink',
    instrument: 'highlighter',
  });
  const middle = await desk.colorAt(await desk.spot(16, 200, 472, SLIDE));
  expect(middle).toEqual([0xff, 0xe2, 0x7a]);
});

test('the eraser removes whole strokes; undo and redo go back and forth', async ({
  desk,
  deck,
  instance,
}) => {
  await desk.open(instance.url, deck);
  const [a, b] = [await desk.spot(1, 80, 40, SLIDE), await desk.spot(1, 300, 40, SLIDE)];
  const [c, d] = [await desk.spot(1, 80, 80, SLIDE), await desk.spot(1, 300, 80, SLIDE)];
  await desk.pen([a, b]);
  await desk.pen([c, d]);
  await desk.saved();
  await desk.page.keyboard.press('e');
  await desk.pen([await desk.spot(1, 200, 20, SLIDE), await desk.spot(1, 200, 100, SLIDE)]);
  await desk.saved();
  expect(await instance.annotations(deck)).toHaveLength(0);
  // Both went in one sweep, so one step brings them back.
  await desk.page.keyboard.press('Control+z');
  await desk.saved();
  expect(await instance.annotations(deck)).toHaveLength(2);
  expect(await desk.darkestNear({ x: (a.x + b.x) / 2, y: a.y })).toBeLessThan(120);
  await desk.page.keyboard.press('Control+Shift+z');
  await desk.saved();
  expect(await instance.annotations(deck)).toHaveLength(0);
  await desk.page.getByLabel('Undo').click();
  await desk.page.getByLabel('Undo').click();
  await desk.saved();
  expect(await instance.annotations(deck)).toHaveLength(1);
});

test('fingers scroll and never draw', async ({ desk, deck, instance }) => {
  await desk.open(instance.url, deck);
  const session = await desk.page.context().newCDPSession(desk.page);
  const touch = (
    type: 'touchStart' | 'touchMove' | 'touchEnd',
    points: { x: number; y: number }[],
  ) => session.send('Input.dispatchTouchEvent', { type, touchPoints: points });
  const top = () => desk.page.locator('.scroller').evaluate((e) => e.scrollTop);
  const before = await top();
  await touch('touchStart', [{ x: 500, y: 600 }]);
  for (let y = 590; y >= 300; y -= 10) await touch('touchMove', [{ x: 500, y }]);
  await touch('touchEnd', []);
  await expect.poll(async () => (await top()) - before).toBeGreaterThan(250);
  const zoom = () => desk.page.locator('.zoom').textContent();
  const zoomBefore = parseInt((await zoom())!);
  await touch('touchStart', [
    { x: 450, y: 400 },
    { x: 550, y: 400 },
  ]);
  for (let d = 50; d <= 100; d += 5)
    await touch('touchMove', [
      { x: 500 - d, y: 400 },
      { x: 500 + d, y: 400 },
    ]);
  await touch('touchEnd', []);
  expect(Math.abs(parseInt((await zoom())!) - 2 * zoomBefore)).toBeLessThan(8);
  expect(await instance.annotations(deck)).toHaveLength(0);
});

test('the slot’s card changes what is drawn next', async ({ desk, deck, instance }) => {
  await desk.open(instance.url, deck);
  const slot = desk.page.getByLabel(/^Fineliner, .*key 1$/);
  await slot.click();
  await expect(desk.page.locator('stylet-slot-card')).toBeVisible();
  await desk.page.keyboard.press('Escape');
  await expect(desk.page.locator('stylet-slot-card')).toBeHidden();
  await slot.click();
  await desk.page.getByRole('radio', { name: 'madder' }).click();
  await desk.page.getByLabel('Width in millimetres').fill('1.2');
  await desk.page.getByRole('radio', { name: 'Nib' }).click();
  // The first touch of the page puts the card away and writes all the same.
  await desk.pen([await desk.spot(1, 300, 300, SLIDE), await desk.spot(1, 500, 300, SLIDE)]);
  await expect(desk.page.locator('stylet-slot-card')).toBeHidden();
  await desk.saved();
  const [ink] = await instance.annotations(deck);
  expect(ink).toMatchObject({ instrument: 'nib', color: '#b3324b' });
  expect(ink['width'] as number).toBeCloseTo((1.2 * 72) / 25.4, 2);
});

test('by area the eraser takes just what it covers, and springs back when it is set to', async ({
  desk,
  deck,
  instance,
}) => {
  await desk.open(instance.url, deck);
  const [a, b] = [await desk.spot(1, 80, 40, SLIDE), await desk.spot(1, 400, 40, SLIDE)];
  await desk.pen([a, b]);
  await desk.saved();
  await desk.page.keyboard.press('e');
  await desk.page.getByLabel('Eraser, key E').click();
  await desk.page.getByRole('radio', { name: 'By area' }).click();
  await desk.page.getByRole('checkbox', { name: 'Spring back to the pen' }).check();
  const across = [await desk.spot(1, 300, 10, SLIDE), await desk.spot(1, 300, 80, SLIDE)];
  await desk.page.mouse.move(across[0].x, across[0].y);
  // The eraser's area shows on the page at its true size: 4 mm.
  const ring = (await desk.page.locator('.ring.shown').boundingBox())!;
  const scale = (b.x - a.x) / 320;
  expect(ring.width).toBeCloseTo(((4 * 72) / 25.4) * scale, 0);
  await desk.pen(across);
  await desk.saved();
  expect(await instance.annotations(deck)).toHaveLength(2);
  expect(await desk.darkestNear({ x: across[0].x, y: a.y })).toBeGreaterThan(200);
  expect(await desk.darkestNear({ x: (a.x + across[0].x) / 2, y: a.y })).toBeLessThan(120);
  await expect(desk.page.getByLabel(/^Fineliner, .*key 1$/)).toHaveAttribute(
    'aria-pressed',
    'true',
  );
  await desk.page.keyboard.press('Control+z');
  await desk.saved();
  expect(await instance.annotations(deck)).toHaveLength(1);
});

test('a page is cleared in one step that can be taken back', async ({ desk, deck, instance }) => {
  await desk.open(instance.url, deck);
  for (const y of [30, 60, 90])
    await desk.pen([await desk.spot(1, 80, y, SLIDE), await desk.spot(1, 300, y, SLIDE)]);
  await desk.saved();
  await desk.page.keyboard.press('e');
  await desk.page.getByLabel('Eraser, key E').click();
  await desk.page.getByRole('button', { name: 'Clear this page' }).click();
  await desk.saved();
  expect(await instance.annotations(deck)).toHaveLength(0);
  await desk.page.getByRole('button', { name: 'Undo' }).last().click();
  await desk.saved();
  expect(await instance.annotations(deck)).toHaveLength(3);
});

// W3C Pointer Events 3, table of buttons: a pen's barrel is bit 2, its eraser bit 32.
test('the pen’s own buttons do what they are set to', async ({ desk, deck, instance }) => {
  await desk.open(instance.url, deck);
  const line = [await desk.spot(1, 400, 40, SLIDE), await desk.spot(1, 600, 40, SLIDE)];
  await desk.pen(line);
  await desk.saved();
  const session = await desk.page.context().newCDPSession(desk.page);
  const middle = { x: (line[0].x + line[1].x) / 2, y: line[0].y };
  const press = async (buttons: number): Promise<void> => {
    for (const type of ['mousePressed', 'mouseMoved', 'mouseReleased'] as const)
      await session.send('Input.dispatchMouseEvent', {
        type,
        ...middle,
        button: 'right',
        buttons: type === 'mouseReleased' ? 0 : buttons,
        pointerType: 'pen',
        force: 0.5,
        clickCount: 1,
      });
  };
  await press(2);
  await desk.saved();
  expect(await instance.annotations(deck)).toHaveLength(0);
  await desk.page.keyboard.press('Control+z');
  await desk.saved();
  expect(await instance.annotations(deck)).toHaveLength(1);
  await desk.page.keyboard.press('e');
  await desk.page.getByLabel('Eraser, key E').click();
  await desk.choose('Side button', 'undoes');
  const before = (await instance.annotations(deck)).length;
  await press(2);
  await desk.saved();
  expect(await instance.annotations(deck)).toHaveLength(before - 1);
});

test('what was written is erased by a stroke that follows before anything has been painted', async ({
  desk,
  deck,
  instance,
}) => {
  await desk.open(instance.url, deck);
  const [from, to] = [await desk.spot(1, 80, 40, SLIDE), await desk.spot(1, 400, 40, SLIDE)];
  await desk.pen([await desk.spot(1, 80, 90, SLIDE), await desk.spot(1, 400, 90, SLIDE)]);
  // Both strokes and the key between them within one task, as on a busy machine.
  await desk.page.evaluate(
    ({ path, across }) => {
      // Only pointers that the browser knows of can be captured.
      Element.prototype.setPointerCapture = () => undefined;
      const page = document.querySelector('stylet-page-view[data-page="1"]')!;
      for (const stroke of [path, across]) {
        for (const [i, at] of stroke.entries()) {
          const isLast = i === stroke.length - 1;
          page.dispatchEvent(
            new PointerEvent(i === 0 ? 'pointerdown' : isLast ? 'pointerup' : 'pointermove', {
              clientX: at.x,
              clientY: at.y,
              pointerId: 77,
              pointerType: 'pen',
              isPrimary: true,
              button: i === 0 || isLast ? 0 : -1,
              buttons: isLast ? 0 : 1,
              pressure: isLast ? 0 : 0.5,
              bubbles: true,
              cancelable: true,
            }),
          );
        }
        document.body.dispatchEvent(new KeyboardEvent('keydown', { key: 'e', bubbles: true }));
      }
    },
    {
      path: along(from, to),
      across: along({ x: from.x + 60, y: from.y - 20 }, { x: from.x + 60, y: from.y + 30 }),
    },
  );
  await desk.saved();
  expect(await instance.annotations(deck)).toHaveLength(1);
});
