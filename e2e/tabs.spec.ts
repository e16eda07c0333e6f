import type { Locator, Page } from '@playwright/test';
import { expect, test, SLIDE } from './support/fixtures';

const strip = (page: Page): Locator => page.getByRole('list', { name: 'Open documents' });
const titles = (page: Page): Promise<string[]> =>
  strip(page)
    .getByRole('listitem')
    .evaluateAll((tabs) =>
      tabs.map(
        (tab) => tab.querySelector('input')?.value ?? tab.querySelector('a')!.textContent.trim(),
      ),
    );

test('open documents have tabs, each with its place; they are closed, and opened again', async ({
  desk,
  deck,
  handbook,
  instance,
}) => {
  const { page } = desk;
  await desk.open(instance.url, deck);
  await desk.goTo('7');
  await desk.pen([await desk.spot(7, 300, 300, SLIDE), await desk.spot(7, 420, 330, SLIDE)]);
  await desk.saved();
  await page.getByRole('link', { name: 'Library' }).click();
  await page.locator(`a[href="/documents/${handbook}"]`).first().click();
  await desk.drawn();
  await expect.poll(() => titles(page)).toEqual(['Waves and tides', 'Field handbook']);
  await desk.goTo('20');
  // There, where one was, with what can be undone; Back is the other document's own.
  await page.getByRole('link', { name: 'Waves and tides' }).click();
  await desk.drawn();
  await expect(page.getByLabel('Page, by label or number')).toHaveValue('7');
  await expect(page.getByLabel('Back', { exact: true })).toBeDisabled();
  await page.keyboard.press('Control+z');
  await desk.saved();
  expect(await instance.annotations(deck)).toHaveLength(0);

  await page.reload();
  await desk.drawn();
  expect(await titles(page)).toEqual(['Waves and tides', 'Field handbook']);
  await page.getByRole('button', { name: 'Close Waves and tides' }).click();
  await expect(page).toHaveURL(new RegExp(`/documents/${handbook}`));
  await desk.drawn();
  await expect(page.getByLabel('Page, by label or number')).toHaveValue('20');
  await page.getByLabel('All open documents').click();
  await page.getByRole('menuitem', { name: 'Open “Waves and tides” again' }).click();
  await desk.drawn();
  await expect.poll(() => titles(page)).toEqual(['Field handbook', 'Waves and tides']);
});

test('tabs are put in order by dragging and by keys, and many stay in reach', async ({
  desk,
  deckPdf,
  instance,
}) => {
  const { page } = desk;
  const names = Array.from({ length: 9 }, (_, i) => `Lecture ${i + 1}`);
  for (const name of names) {
    const id = await instance.bringIn(deckPdf, `${name}.pdf`);
    await page.goto(`${instance.url}/documents/${id}`);
    await expect.poll(() => titles(page)).toContain(name);
  }
  expect(await titles(page)).toEqual(names);
  // The one that is shown is in view, however many there are.
  const shown = (await page.getByLabel('Title').boundingBox())!;
  const list = (await strip(page).boundingBox())!;
  expect(shown.x).toBeGreaterThanOrEqual(list.x - 1);
  expect(shown.x + shown.width).toBeLessThanOrEqual(list.x + list.width + 1);
  await page.getByLabel('All open documents').click();
  await page.getByRole('menuitem', { name: 'Lecture 1', exact: true }).click();
  await desk.drawn();
  const [first, third] = [
    (await page.getByLabel('Title').boundingBox())!,
    (await page.getByRole('link', { name: 'Lecture 3' }).boundingBox())!,
  ];
  await page.mouse.move(first.x + first.width + 8, first.y + 17);
  const from = (await page.getByRole('link', { name: 'Lecture 2' }).boundingBox())!;
  await page.mouse.move(from.x + 20, from.y + 17);
  await page.mouse.down();
  await page.mouse.move(from.x + 40, from.y + 17, { steps: 4 });
  await page.mouse.move(third.x + third.width - 4, third.y + 17, { steps: 8 });
  await page.mouse.up();
  await expect
    .poll(async () => (await titles(page)).slice(0, 3))
    .toEqual(['Lecture 1', 'Lecture 3', 'Lecture 2']);
  await page.getByRole('link', { name: 'Lecture 3' }).focus();
  await page.keyboard.press('Alt+ArrowDown');
  await expect
    .poll(async () => (await titles(page)).slice(0, 3))
    .toEqual(['Lecture 1', 'Lecture 2', 'Lecture 3']);
});
