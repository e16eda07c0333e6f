import { pathsOfText, ring } from '@stylet/demo/stylus';
import { expect, test, SLIDE } from './support/fixtures';
import { differing, type DeskDriver, type Spot } from './support/desk';
import type { Instance } from './support/instance';

interface Written {
  readonly id: string;
  readonly kind: string;
  readonly pageId: string;
  readonly order: string;
  readonly color: string;
  readonly created: string;
  readonly group?: string;
  readonly locked?: boolean;
  readonly transform?: readonly number[];
}

const written = async (instance: Instance, id: string): Promise<Written[]> =>
  ((await instance.annotations(id)) as unknown as Written[]).sort((a, b) =>
    a.created < b.created ? -1 : 1,
  );

const bar = (desk: DeskDriver) => desk.page.getByRole('toolbar', { name: 'Selection' });

/** Writes a word in the middle of the first slide's empty part; returns a spot within it. */
async function word(desk: DeskDriver, text = 'spit', y = 50): Promise<{ at: Spot; count: number }> {
  const at = await desk.spot(1, 330, y, SLIDE);
  const paths = pathsOfText(text, { x: at.x, y: at.y + 20, size: 40, typeface: 'EMSFelix' });
  await desk.pens(paths, { speed: 1200 });
  await desk.saved();
  const [xs, ys] = [paths.flat().map((p) => p.x), paths.flat().map((p) => p.y)];
  const middle = (values: readonly number[]): number =>
    (Math.min(...values) + Math.max(...values)) / 2;
  return { at: { x: middle(xs), y: middle(ys) }, count: paths.length };
}

async function more(desk: DeskDriver, name: string): Promise<void> {
  await desk.page.getByLabel('More for the selection').click();
  await desk.page.getByRole('menuitem', { name, exact: true }).click();
  await expect(desk.page.locator('.mat-mdc-menu-panel')).toHaveCount(0);
}

test('what is ringed is moved, enlarged and turned as one step each, and keeps its samples', async ({
  desk,
  deck,
  instance,
}) => {
  await desk.open(instance.url, deck);
  const { at, count } = await word(desk);
  const before = await written(instance, deck);
  await desk.page.keyboard.press('l');
  await desk.pen(ring({ x: at.x + 5, y: at.y }, 90, 50), { speed: 1500 });
  await expect(bar(desk)).toContainText(`ink ${count}`);
  await desk.pen([at, { x: at.x + 100, y: at.y + 60 }]);
  await desk.saved();
  const moved = await written(instance, deck);
  const points = 100 / ((await desk.spot(1, 1, 0, SLIDE)).x - (await desk.spot(1, 0, 0, SLIDE)).x);
  for (const { transform } of moved) {
    expect(transform![4]).toBeCloseTo(points, 0);
    expect(transform![0]).toBe(1);
  }
  expect(moved.map((a) => (a as unknown as { samples: string }).samples)).toEqual(
    before.map((a) => (a as unknown as { samples: string }).samples),
  );
  const grip = async (name: string): Promise<Spot> => {
    const box = (await desk.page.getByLabel(name, { exact: true }).boundingBox())!;
    return { x: box.x + box.width / 2, y: box.y + box.height / 2 };
  };
  const corner = await grip('Enlarge from the bottom right');
  await desk.pen([corner, { x: corner.x + 60, y: corner.y + 30 }]);
  await desk.saved();
  const [{ transform: enlarged }] = await written(instance, deck);
  expect(enlarged![0]).toBeGreaterThan(1.2);
  expect(enlarged![3]).toBeCloseTo(enlarged![0], 6);
  for (let i = 0; i < 2; i++) await desk.page.keyboard.press('Control+z');
  await desk.saved();
  // As they were, but for the time of the change.
  expect((await written(instance, deck)).map(({ transform }) => transform)).toEqual(
    before.map(({ transform }) => transform),
  );
  // Keys that a handle has no use for are the selection's.
  await desk.page.getByLabel('Turn', { exact: true }).focus();
  await desk.page.keyboard.press('ArrowRight');
  await expect
    .poll(async () => (await written(instance, deck)).map(({ transform }) => transform?.[4]))
    .toEqual(before.map(() => 1));
  await desk.page.keyboard.press('Backspace');
  await expect.poll(async () => (await written(instance, deck)).length).toBe(0);
});

test('dragged onto another page, it is on that page', async ({ desk, deck, instance }) => {
  await desk.open(instance.url, deck);
  const { count } = await word(desk);
  await desk.page.getByRole('button', { name: 'Fit page' }).click();
  for (let i = 0; i < 4; i++) await desk.page.getByRole('button', { name: 'Zoom out' }).click();
  await desk.drawn();
  await desk.page.keyboard.press('Control+a');
  await expect(bar(desk)).toContainText(`ink ${count}`);
  const frame = (await desk.page.locator('stylet-selected-annotations polygon').boundingBox())!;
  const from = { x: frame.x + frame.width / 2, y: frame.y + frame.height / 2 };
  const to = await desk.spot(2, 350, 100, SLIDE);
  await desk.pen([from, to], { speed: 900 });
  await desk.saved();
  const pages = new Set((await written(instance, deck)).map(({ pageId }) => pageId));
  const reply = await fetch(`${instance.url}/api/documents/${deck}`);
  const document = (await reply.json()) as { pages: { id: string }[] };
  expect([...pages]).toEqual([document.pages[1].id]);
  await expect(bar(desk)).toContainText(`ink ${count}`);
  await desk.page.keyboard.press('Control+z');
  await expect
    .poll(async () =>
      (await written(instance, deck)).every((a) => a.pageId === document.pages[0].id),
    )
    .toBe(true);
});

test('chips narrow, taps with Shift add, groups stay together, what is locked stays put', async ({
  desk,
  deck,
  instance,
}) => {
  await desk.open(instance.url, deck);
  const { at, count } = await word(desk);
  await desk.page.keyboard.press('4');
  const mark = [await desk.spot(1, 330, 150, SLIDE), await desk.spot(1, 400, 150, SLIDE)];
  await desk.pen(mark);
  await desk.saved();
  await desk.page.keyboard.press('Control+a');
  await expect(bar(desk)).toContainText(`ink ${count}`);
  await expect(bar(desk)).toContainText('highlights 1');
  await bar(desk)
    .getByRole('button', { name: `ink ${count}` })
    .click();
  await expect(bar(desk)).not.toContainText('highlights');
  await more(desk, 'Group');
  await desk.page.keyboard.press('Escape');
  // One of a group brings all of it.
  const onMark = await desk.spot(1, 370, 150, SLIDE);
  await desk.pen([onMark, onMark]);
  await expect(bar(desk)).toContainText('highlights 1');
  await more(desk, 'Lock');
  await expect.poll(async () => (await written(instance, deck)).at(-1)!.locked).toBe(true);
  const place = (await written(instance, deck)).at(-1)!.transform;
  await expect(bar(desk)).toContainText('highlights 1');
  await desk.pen([onMark, { x: onMark.x + 60, y: onMark.y }]);
  await expect(bar(desk)).toContainText('highlights 1', { timeout: 2000 });
  expect((await written(instance, deck)).at(-1)!.transform).toEqual(place);
  await desk.page.keyboard.press('Escape');
  await desk.pen(ring({ x: at.x, y: at.y }, 100, 55), { speed: 1500 });
  await expect(bar(desk)).toContainText(`ink ${count}`);
  await expect(bar(desk)).not.toContainText('highlights');
  const groups = new Set((await written(instance, deck)).slice(0, count).map(({ group }) => group));
  expect(groups.size).toBe(1);
});

test('copied and cut things are pasted at the pointer, in place, and in another document', async ({
  desk,
  deck,
  handbook,
  instance,
}) => {
  await desk.open(instance.url, deck);
  const { at, count } = await word(desk);
  await desk.page.keyboard.press('Control+a');
  await desk.page.keyboard.press('Control+c');
  await desk.page.mouse.move(at.x + 200, at.y + 160);
  await desk.page.keyboard.press('Control+v');
  await desk.saved();
  expect(await written(instance, deck)).toHaveLength(2 * count);
  await expect(bar(desk)).toContainText(`ink ${count}`);
  await desk.page.keyboard.press('Control+x');
  await expect.poll(async () => (await written(instance, deck)).length).toBe(count);
  await desk.page.keyboard.press('Control+Shift+v');
  await expect.poll(async () => (await written(instance, deck)).length).toBe(2 * count);
  // Another document.
  await desk.open(instance.url, handbook);
  await desk.page.keyboard.press('Control+v');
  await expect.poll(async () => (await written(instance, handbook)).length).toBe(count);
});

test('recoloured, reordered, flipped, duplicated and nudged: what shows is what is kept', async ({
  desk,
  deck,
  instance,
}) => {
  await desk.open(instance.url, deck);
  const { count } = await word(desk);
  await desk.page.keyboard.press('Control+a');
  await desk.page.getByLabel('Colour and opacity').click();
  await desk.page.getByRole('button', { name: 'madder', exact: true }).click();
  await desk.page.keyboard.press('Escape');
  await expect
    .poll(async () => (await written(instance, deck)).every(({ color }) => color === '#b3324b'))
    .toBe(true);
  await more(desk, 'Duplicate');
  await expect.poll(async () => (await written(instance, deck)).length).toBe(2 * count);
  await more(desk, 'Flip across');
  await desk.page.keyboard.press('Shift+ArrowDown');
  await desk.saved();
  const copies = (await written(instance, deck)).slice(count);
  for (const { transform } of copies) expect(transform![0]).toBe(-1);
  await desk.page.getByLabel('More for the selection').click();
  await desk.page.getByRole('menuitem', { name: 'Order' }).hover();
  await desk.page.getByRole('menuitem', { name: 'To the back' }).click();
  await expect
    .poll(async () => {
      const all = await written(instance, deck);
      return all.slice(count).every(({ order }) => order < all[0].order);
    })
    .toBe(true);
  await expect(desk.page.locator('.mat-mdc-menu-panel')).toHaveCount(0);
  await desk.page.keyboard.press('Escape');
  await expect(bar(desk)).toHaveCount(0);
  // The page as it is drawn after a reload is the page as it was changed.
  const clip = { x: 300, y: 60, width: 560, height: 260 };
  await desk.page.mouse.move(20, 700);
  const shown = await desk.rested(clip);
  await desk.page.reload();
  await desk.drawn();
  expect(differing(shown, await desk.picture(clip), 60)).toBeLessThan(20);
});

test('the lasso can be a rectangle, take all it touches, and only some sorts', async ({
  desk,
  deck,
  instance,
}) => {
  await desk.open(instance.url, deck);
  const { at } = await word(desk, 'l');
  await desk.page.keyboard.press('l');
  await desk.page.getByLabel('Lasso, key L').click();
  await desk.page.getByRole('radio', { name: 'Rectangle' }).click();
  await desk.page.getByRole('radio', { name: 'All it touches' }).click();
  // A corner of it, from well outside.
  const corner = [
    { x: at.x + 160, y: at.y + 120 },
    { x: at.x - 26, y: at.y + 2 },
  ];
  await desk.pen(corner);
  await expect(bar(desk)).toContainText('ink 1');
  await desk.page.keyboard.press('Escape');
  await desk.page.getByLabel('Lasso, key L').click();
  await desk.page.getByRole('checkbox', { name: 'Ink', exact: true }).uncheck();
  await desk.pen(corner);
  await expect(bar(desk)).toHaveCount(0);
});

test('what is dragged to an edge takes the pages along, and the bar of a selection stays in view', async ({
  desk,
  deck,
  instance,
}) => {
  await desk.open(instance.url, deck);
  const { at, count } = await word(desk);
  const scroller = desk.page.locator('.scroller');
  const view = (await scroller.boundingBox())!;
  await desk.page.keyboard.press('Control+a');
  await expect(bar(desk)).toContainText(`ink ${count}`);
  // Scrolled out at the top, the bar is still there.
  await scroller.evaluate((element) => element.scrollTo(0, 90));
  const box = (await bar(desk).boundingBox())!;
  expect(box.y).toBeGreaterThanOrEqual(view.y - 1);
  await scroller.evaluate((element) => element.scrollTo(0, 0));
  await desk.page.mouse.move(at.x, at.y);
  await desk.page.mouse.down();
  await desk.page.mouse.move(at.x, view.y + view.height - 10, { steps: 8 });
  await expect
    .poll(() => scroller.evaluate((element) => element.scrollTop), { timeout: 5000 })
    .toBeGreaterThan(500);
  await desk.page.mouse.up();
  await desk.saved();
  // They went on to a page further down.
  const pages = (await (await fetch(`${instance.url}/api/documents/${deck}`)).json()) as {
    pages: { id: string }[];
  };
  const [{ pageId }] = await written(instance, deck);
  expect(pages.pages.findIndex(({ id }) => id === pageId)).toBeGreaterThan(0);
});
