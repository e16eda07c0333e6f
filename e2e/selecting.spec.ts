import type { Locator } from '@playwright/test';
import { expect, test, HANDBOOK } from './support/fixtures';
import type { DeskDriver, Spot } from './support/desk';
import { wordsOf, type FoundWord } from './support/words-of';

const middleOf = (desk: DeskDriver, page: number, word: FoundWord): Promise<Spot> =>
  desk.spot(page, (word.x0 + word.x1) / 2, (word.y0 + word.y1) / 2, HANDBOOK);

/** Scrolls so that the end of a page lies in the middle of the view. */
async function showEndOf(desk: DeskDriver, page: number): Promise<void> {
  await desk.page.locator(`stylet-page-view[data-page="${page}"]`).evaluate((view) => {
    const scroller = view.closest('.scroller')!;
    const { bottom } = view.getBoundingClientRect();
    const { top, height } = scroller.getBoundingClientRect();
    scroller.scrollTop += bottom - top - height / 2;
  });
  await expect(
    desk.page.locator(`stylet-page-view[data-page="${page + 1}"] canvas.bitmap`),
  ).toBeVisible();
  await desk.still();
}

const areasOn = (desk: DeskDriver, page: number): Locator =>
  desk.page.locator(`stylet-page-view[data-page="${page}"] stylet-selected-words .shade polygon`);

/** Whether a spot is in a part of the window, and not at its edge. */
const isWithin = (
  { x, y }: Spot,
  box: { x: number; y: number; width: number; height: number },
): boolean =>
  x > box.x + 30 && x < box.x + box.width - 30 && y > box.y + 30 && y < box.y + box.height - 30;

/** Without what joins lines and pages. */
const bare = (text: string): string => text.replace(/[\s-]/g, '');

test('words are selected over the end of a page, copied as one text, and marked in one step', async ({
  desk,
  handbook,
  handbookPdf,
  instance,
  context,
}) => {
  await context.grantPermissions(['clipboard-read', 'clipboard-write']);
  const [here, next] = wordsOf(handbookPdf, 20, 21);
  await desk.read(instance.url, handbook, '6');
  await showEndOf(desk, 20);
  const [first, last] = [here.length - 30, 20];
  const from = await middleOf(desk, 20, here[first]);
  const to = await middleOf(desk, 21, next[last]);
  await desk.page.mouse.move(from.x, from.y);
  await desk.page.mouse.down();
  await desk.page.mouse.move(from.x + 20, from.y + 30, { steps: 4 });
  await desk.page.mouse.move(to.x, to.y, { steps: 6 });
  await expect(areasOn(desk, 21).first()).toBeVisible();
  await desk.page.mouse.up();
  await expect(areasOn(desk, 20).first()).toBeVisible();
  await desk.page.keyboard.press('Control+c');
  const expected = [...here.slice(first), ...next.slice(0, last + 1)].map(({ text }) => text);
  const copied = async (): Promise<string> =>
    desk.page.evaluate(() => navigator.clipboard.readText());
  await expect.poll(copied).toContain(` ${expected.at(-1)}`);
  // Which of the references at the foot of a page comes first is for each program to choose.
  const words = (await copied()).split(/\s+/);
  expect([...words].sort()).toEqual([...expected].sort());
  expect([words[0], words.at(-1)]).toEqual([expected[0], expected.at(-1)]);

  // Each end shows once, and one bar; the first end goes back to the page after it word by word.
  await expect(desk.page.locator('stylet-selected-words .end')).toHaveCount(2);
  await expect(desk.page.getByRole('toolbar', { name: 'Selected text' })).toHaveCount(1);
  await desk.page.getByLabel('Highlight in sky').click();
  await desk.saved();
  const marks = await instance.annotations(handbook);
  expect(new Set(marks.map(({ pageId }) => pageId)).size).toBe(2);
  const marked = marks.map(({ contents }) => contents as string).join('');
  expect(bare(marked)).toHaveLength(bare(expected.join('')).length);
  await desk.page.keyboard.press('Control+z');
  await desk.saved();
  expect(await instance.annotations(handbook)).toEqual([]);
});

test('a drag to the edge scrolls along, and an end is dragged back over pages', async ({
  desk,
  handbook,
  handbookPdf,
  instance,
}) => {
  const [here] = wordsOf(handbookPdf, 20);
  await desk.read(instance.url, handbook, '6');
  const from = await middleOf(desk, 20, here[25]);
  await desk.page.mouse.move(from.x, from.y);
  await desk.page.mouse.down();
  const scroller = (await desk.page.locator('.scroller').boundingBox())!;
  await desk.page.mouse.move(from.x, from.y + 60, { steps: 4 });
  await desk.page.mouse.move(from.x, scroller.y + scroller.height - 4, { steps: 4 });
  // The pages between have no words in view, and are selected all the same.
  await expect(areasOn(desk, 22).first()).toBeVisible();
  await desk.page.mouse.move(from.x, scroller.y + scroller.height / 2);
  await desk.page.mouse.up();
  await desk.page.getByLabel('Underline').click();
  await desk.saved();
  const marked = async (): Promise<number> =>
    new Set((await instance.annotations(handbook)).map(({ pageId }) => pageId)).size;
  expect(await marked()).toBe(3);
  await desk.page.keyboard.press('Control+z');
  await desk.saved();

  // Now the end that is dragged leaves its page.
  await desk.goTo('6');
  await showEndOf(desk, 20);
  const start = await middleOf(desk, 20, here.at(-25)!);
  await desk.page.mouse.dblclick(start.x, start.y);
  await expect(areasOn(desk, 20)).toHaveCount(1);
  const end = (await desk.page.getByLabel('End of the selection').boundingBox())!;
  await desk.page.mouse.move(end.x + end.width / 2, end.y + 20);
  await desk.page.mouse.down();
  const below = await desk.spot(21, HANDBOOK / 2, 120, HANDBOOK);
  await desk.page.mouse.move(below.x, below.y, { steps: 8 });
  await expect(areasOn(desk, 21).first()).toBeVisible();
  const above = await desk.spot(20, HANDBOOK / 2, here.at(-25)!.y0 - 40, HANDBOOK);
  await desk.page.mouse.move(above.x, above.y, { steps: 8 });
  await expect(areasOn(desk, 21)).toHaveCount(0);
  await desk.page.mouse.up();
  await expect(areasOn(desk, 20).first()).toBeVisible();
});

test('what is selected lies on the glyphs at every zoom, as pdftotext -bbox has them', async ({
  desk,
  handbook,
  handbookPdf,
  instance,
}) => {
  const { page } = desk;
  const [words] = wordsOf(handbookPdf, 20);
  await desk.read(instance.url, handbook, '6');
  for (const step of [
    'Control+0',
    'Control+-',
    'Control+-',
    'Control+=',
    'Control+=',
    'Control+=',
  ]) {
    await page.keyboard.press(step);
    await desk.goTo('6');
    const scroller = (await page.locator('.scroller').boundingBox())!;
    const beside = await desk.spot(20, 12, 0, HANDBOOK);
    let checked = 0;
    for (const word of words.filter(({ text }) => /^\p{L}{5,}$/u.test(text)).slice(0, 12)) {
      const at = await middleOf(desk, 20, word);
      if (!isWithin(at, scroller)) continue;
      // A click beside the words lets go of what was selected.
      await page.mouse.click(beside.x, at.y);
      await expect(areasOn(desk, 20)).toHaveCount(0);
      await page.mouse.dblclick(at.x, at.y);
      await expect(areasOn(desk, 20)).toHaveCount(1);
      const shown = (await areasOn(desk, 20).boundingBox())!;
      const [tl, br] = [
        await desk.spot(20, word.x0, word.y0, HANDBOOK),
        await desk.spot(20, word.x1, word.y1, HANDBOOK),
      ];
      // Side bearings are all that two programs may see differently.
      const slack = 0.02 * (br.x - tl.x) + 0.6;
      expect(Math.abs(shown.x - tl.x)).toBeLessThan(slack);
      expect(Math.abs(shown.x + shown.width - br.x)).toBeLessThan(slack);
      // How high a line is, is a matter of taste; where it stands is not.
      expect(shown.y).toBeLessThan((tl.y + at.y) / 2);
      expect(shown.y + shown.height).toBeGreaterThan((br.y + at.y) / 2);
      expect(Math.abs(shown.y + shown.height / 2 - at.y)).toBeLessThan(0.2 * (br.y - tl.y) + 0.6);
      checked++;
    }
    expect(checked).toBeGreaterThan(3);
  }
});
