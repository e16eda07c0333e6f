import { expect, test, SLIDE } from './support/fixtures';
import type { DeskDriver, Spot } from './support/desk';

/** Slide 16 has, as its second line of text, “wavelength, the wave feels the bed”. */
const LINE = 161;

const reading = (desk: DeskDriver, url: string, id: string): Promise<void> =>
  desk.read(url, id, '16');

async function drag(desk: DeskDriver, from: Spot, to: Spot): Promise<void> {
  await desk.page.mouse.move(from.x, from.y);
  await desk.page.mouse.down();
  await desk.page.mouse.move((from.x + to.x) / 2, (from.y + to.y) / 2, { steps: 4 });
  await desk.page.mouse.move(to.x, to.y, { steps: 4 });
  await desk.page.mouse.up();
}

const marks = async (list: Promise<Record<string, unknown>[]>) =>
  (await list)
    .map(({ kind, color, contents }) => `${kind} ${color} ${contents}`)
    .sort((a, b) => (a < b ? -1 : 1));

test('in Read words are selected by dragging, copied and marked', async ({
  desk,
  deck,
  instance,
  context,
}) => {
  await context.grantPermissions(['clipboard-read', 'clipboard-write']);
  await reading(desk, instance.url, deck);
  const place = (x: number) => desk.spot(16, x, LINE, SLIDE);
  await drag(desk, await place(100), await place(195));
  await desk.page.keyboard.press('Control+c');
  await expect
    .poll(() => desk.page.evaluate(() => navigator.clipboard.readText()))
    .toBe('wavelength, the');
  await desk.page.getByLabel('Underline').click();
  await desk.saved();
  expect(await marks(instance.annotations(deck))).toEqual(['underline #22304a wavelength, the']);
  // Off the words a drag moves the page, as ever.
  const top = () => desk.page.locator('.scroller').evaluate((e) => e.scrollTop);
  const before = await top();
  const empty = await desk.spot(16, 60, 480, SLIDE);
  await drag(desk, empty, { x: empty.x, y: empty.y - 120 });
  expect((await top()) - before).toBeGreaterThan(80);
});

test('highlights of one colour join, are split, and shortened by their ends', async ({
  desk,
  deck,
  instance,
}) => {
  await reading(desk, instance.url, deck);
  const place = (x: number) => desk.spot(16, x, LINE, SLIDE);
  await drag(desk, await place(100), await place(195));
  await desk.page.getByLabel('Highlight in celadon').click();
  await drag(desk, await place(190), await place(300));
  await desk.page.getByLabel('Highlight in celadon').click();
  await desk.saved();
  const joined = await marks(instance.annotations(deck));
  expect(joined).toHaveLength(1);
  const words = joined[0].replace('highlight #bde8b2 ', '').split(' ');
  expect(words.slice(0, 3)).toEqual(['wavelength,', 'the', 'wave']);
  // Without a word in the middle two are left.
  await drag(desk, await place(178), await place(190));
  await desk.page.getByLabel('Take marks off').click();
  await desk.saved();
  const split = await marks(instance.annotations(deck));
  expect(split).toHaveLength(2);
  expect(split[1]).toBe('highlight #bde8b2 wavelength,');
  await desk.page.keyboard.press('Control+z');
  await desk.saved();
  expect(await marks(instance.annotations(deck))).toEqual(joined);
  // A tap takes hold of the mark; its end is dragged back to the first word.
  const first = await place(100);
  await desk.page.mouse.click(first.x, first.y);
  const end = (await desk.page.getByLabel('End of the selection').boundingBox())!;
  await drag(desk, { x: end.x + end.width / 2, y: end.y + 18 }, first);
  await desk.saved();
  expect(await marks(instance.annotations(deck))).toEqual(['highlight #bde8b2 wavelength,']);
  await desk.page.getByLabel('Make it rose').click();
  await desk.saved();
  expect(await marks(instance.annotations(deck))).toEqual(['highlight #f9c0cb wavelength,']);
});

test('a finger that rests on a word selects it and goes on from there', async ({
  desk,
  deck,
  instance,
}) => {
  await reading(desk, instance.url, deck);
  const session = await desk.page.context().newCDPSession(desk.page);
  const touch = (type: 'touchStart' | 'touchMove' | 'touchEnd', at?: Spot) =>
    session.send('Input.dispatchTouchEvent', { type, touchPoints: at ? [at] : [] });
  const from = await desk.spot(16, 100, LINE, SLIDE);
  const to = await desk.spot(16, 195, LINE, SLIDE);
  await touch('touchStart', from);
  await desk.pause(600);
  await touch('touchMove', { x: (from.x + to.x) / 2, y: from.y });
  await touch('touchMove', to);
  await touch('touchEnd');
  await desk.page.getByLabel('Highlight in sky').click();
  await desk.saved();
  expect(await marks(instance.annotations(deck))).toEqual(['highlight #b9ddf7 wavelength, the']);
});

test('a finger that rests on picks the line, then the paragraph', async ({
  desk,
  deck,
  instance,
}) => {
  await reading(desk, instance.url, deck);
  const session = await desk.page.context().newCDPSession(desk.page);
  const at = await desk.spot(16, 100, LINE, SLIDE);
  const areas = desk.page.locator('stylet-selected-words .shade polygon');
  await session.send('Input.dispatchTouchEvent', { type: 'touchStart', touchPoints: [at] });
  await expect(areas).toHaveCount(1);
  const width = async (): Promise<number> => (await areas.first().boundingBox())!.width;
  const word = await width();
  await expect.poll(width).toBeGreaterThan(2 * word);
  await expect.poll(() => areas.count()).toBeGreaterThan(1);
  // A finger is never quite still.
  const near = { x: at.x + 2, y: at.y + 1 };
  await session.send('Input.dispatchTouchEvent', { type: 'touchMove', touchPoints: [near] });
  await session.send('Input.dispatchTouchEvent', { type: 'touchEnd', touchPoints: [] });
  await desk.page.getByLabel('Highlight in sky').click();
  await desk.saved();
  const [mark] = await marks(instance.annotations(deck));
  expect(mark).toContain('wavelength, the wave feels the bed');
  expect(mark.split(' ').length).toBeGreaterThan(12);
});

test('with the highlighter, too, what overlaps becomes one', async ({ desk, deck, instance }) => {
  await desk.open(instance.url, deck);
  await desk.goTo('16');
  await desk.page.keyboard.press('4');
  await desk.still();
  const place = (x: number) => desk.spot(16, x, LINE, SLIDE);
  await desk.pen([await place(100), await place(195)]);
  await desk.pen([await place(190), await place(340)]);
  await desk.saved();
  expect(await marks(instance.annotations(deck))).toEqual([
    'highlight #ffe27a wavelength, the wave feels the bed',
  ]);
});

test('off the text a highlight takes the height of the handwriting, or goes its own way', async ({
  desk,
  deck,
  instance,
}) => {
  await desk.open(instance.url, deck);
  await desk.goTo('16');
  const place = (x: number, y: number) => desk.spot(16, x, y, SLIDE);
  // Three upright strokes, 24 points high, about a line at 470.
  for (const x of [80, 120, 160]) await desk.pen([await place(x, 458), await place(x, 482)]);
  await desk.page.keyboard.press('4');
  await desk.pen([await place(70, 473), await place(110, 468), await place(170, 474)]);
  await desk.saved();
  const bars = async () =>
    (await instance.annotations(deck)).filter(({ instrument }) => instrument === 'highlighter');
  const [bar] = await bars();
  // As high as the strokes with the pen's width (0.4 mm) and a little room.
  expect(bar['width']).toBeGreaterThan(24);
  expect(bar['width']).toBeLessThan(33);
  const ring = await Promise.all(
    Array.from({ length: 24 }, (_, i) =>
      place(400 + 50 * Math.cos(i / 4), 440 + 30 * Math.sin(i / 4)),
    ),
  );
  await desk.pen(ring);
  await desk.saved();
  const free = (await bars()).filter(({ freeform }) => freeform);
  expect(free).toHaveLength(1);
  expect(free[0]['width']).toBeCloseTo((5 * 72) / 25.4);
});
