import { pathsOfText } from '@stylet/demo/stylus';
import { expect, test, SLIDE } from './support/fixtures';
import type { DeskDriver, Spot } from './support/desk';
import type { Instance } from './support/instance';

const bar = (desk: DeskDriver) => desk.page.getByRole('toolbar', { name: 'Selection' });
const menu = (desk: DeskDriver) => desk.page.getByRole('menu', { name: 'The page' });

/** Writes a word and selects all of the page; how many strokes it has. */
async function selected(desk: DeskDriver): Promise<number> {
  const at = await desk.spot(1, 330, 50, SLIDE);
  const paths = pathsOfText('tide', { x: at.x, y: at.y + 20, size: 40, typeface: 'EMSFelix' });
  await desk.pens(paths, { speed: 1200 });
  await desk.saved();
  await desk.page.keyboard.press('Control+a');
  await expect(bar(desk)).toContainText(`ink ${paths.length}`);
  return paths.length;
}

const upright = { tiltX: 0, tiltY: 0 };

async function hold(desk: DeskDriver, at: Spot): Promise<void> {
  const pen = {
    ...at,
    pointerType: 'pen',
    button: 'left',
    buttons: 1,
    force: 0.4,
    ...upright,
  } as const;
  const session = await desk.input();
  await session.send('Input.dispatchMouseEvent', { type: 'mousePressed', clickCount: 1, ...pen });
  await expect(menu(desk)).toBeVisible();
  await session.send('Input.dispatchMouseEvent', { type: 'mouseReleased', clickCount: 1, ...pen });
}

test('what is copied with a button, while a field has the focus, is pasted where a pen or a finger is held', async ({
  desk,
  deck,
  instance,
}) => {
  await desk.open(instance.url, deck);
  const count = await selected(desk);
  await desk.page.keyboard.press('Control+f');
  await desk.page.locator('stylet-find-bar input').first().focus();
  await bar(desk).getByLabel('Copy', { exact: true }).click();
  await desk.page.keyboard.press('Escape');
  await bar(desk).getByLabel('Remove', { exact: true }).click();
  await desk.saved();
  const at = await desk.spot(1, 200, 250, SLIDE);
  await hold(desk, at);
  await menu(desk).getByText('Paste here').click();
  await expect(bar(desk)).toContainText(`ink ${count}`);
  await desk.saved();
  expect(await instance.annotations(deck)).toHaveLength(count);

  const other = await desk.spot(1, 300, 120, SLIDE);
  await desk.fingers('touchStart', [other]);
  await expect(menu(desk)).toBeVisible();
  await desk.fingers('touchEnd', []);
  await menu(desk).getByText('Paste here').click();
  await desk.saved();
  expect(await instance.annotations(deck)).toHaveLength(2 * count);

  // And from the lasso's own card.
  await desk.page.getByRole('button', { name: 'Lasso, key L' }).click();
  await desk.page.getByRole('button', { name: 'Paste', exact: true }).click();
  await desk.saved();
  expect(await instance.annotations(deck)).toHaveLength(3 * count);
});

const pagesOf = async (instance: Instance, id: string): Promise<number> => {
  const reply = await fetch(`${instance.url}/api/documents/${id}`);
  return ((await reply.json()) as { pages: unknown[] }).pages.length;
};

async function board(desk: DeskDriver, url: string, id: string): Promise<void> {
  await desk.open(url, id);
  await desk.page.keyboard.press('o');
  await expect(desk.page.getByRole('option').first()).toBeVisible();
}

test('pages cut in one document and pasted into another are moved, and undo moves them back', async ({
  desk,
  deck,
  handbook,
  instance,
}) => {
  const pages = (id: string): Promise<number> => pagesOf(instance, id);
  const [before, into] = [await pages(deck), await pages(handbook)];
  await board(desk, instance.url, deck);
  await desk.page.getByRole('option', { name: 'Page 2', exact: true }).click();
  await desk.page.keyboard.press('Control+x');
  await board(desk, instance.url, handbook);
  await desk.page.getByRole('option', { name: 'Page 1', exact: true }).click();
  await desk.page.keyboard.press('Control+v');
  await expect(desk.page.getByText('Moved here from')).toBeVisible();
  await desk.saved();
  expect(await pages(handbook)).toBe(into + 1);
  await expect.poll(() => pages(deck)).toBe(before - 1);
  await desk.page.keyboard.press('Control+z');
  await expect.poll(() => pages(handbook)).toBe(into);
  await expect.poll(() => pages(deck)).toBe(before);
});

test('pages that were copied and then removed can still be pasted', async ({
  desk,
  deck,
  instance,
}) => {
  await board(desk, instance.url, deck);
  const before = await pagesOf(instance, deck);
  await desk.page.getByRole('option', { name: 'Page 2', exact: true }).click();
  await desk.page.keyboard.press('Control+c');
  await desk.page.keyboard.press('Delete');
  await desk.saved();
  await desk.page.getByRole('option', { name: 'Page 1', exact: true }).click();
  await desk.page.keyboard.press('Control+v');
  await desk.saved();
  expect(await pagesOf(instance, deck)).toBe(before);
});
