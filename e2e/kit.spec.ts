import { expect, test, SLIDE } from './support/fixtures';

test('a slot is added, named, made another pen, and is there in the next browser', async ({
  desk,
  deck,
  instance,
  browser,
}) => {
  await desk.open(instance.url, deck);
  await desk.page.getByLabel('Add a slot').click();
  await desk.page.getByLabel('Name of this slot').fill('Titles');
  await desk.page.getByLabel('Name of this slot').press('Enter');
  await desk.page.getByRole('radio', { name: 'verdigris' }).click();
  await desk.page.getByLabel('Opacity').selectOption('0.4');
  await desk.page.getByLabel('Close').click();
  await expect(desk.page.getByLabel('Titles, key 2')).toHaveAttribute('aria-pressed', 'true');
  const line = [await desk.spot(1, 400, 40, SLIDE), await desk.spot(1, 600, 40, SLIDE)];
  await desk.pen(line);
  await desk.saved();
  expect((await instance.annotations(deck))[0]).toMatchObject({
    color: '#1f6f66',
    opacity: 0.4,
  });
  // The change reaches the server within a moment.
  await expect
    .poll(async () => JSON.stringify(await (await fetch(`${instance.url}/api/kit`)).json()))
    .toContain('Titles');
  const other = await browser.newContext();
  const page = await other.newPage();
  await page.goto(`${instance.url}/documents/${deck}`);
  await expect(page.getByLabel('Titles, key 2')).toBeVisible();
  await other.close();
});

test('slots are moved by drag and by keys, and removed and put back', async ({
  desk,
  deck,
  instance,
}) => {
  await desk.open(instance.url, deck);
  const names = () =>
    desk.page
      .locator('stylet-rail button.slot')
      .evaluateAll((all) => all.map((e) => e.getAttribute('aria-label')!.split(',')[0]));
  await expect
    .poll(async () => (await names()).slice(0, 4))
    .toEqual(['Fineliner', 'Fineliner', 'Nib', 'Highlighter']);
  const from = (await desk.page.getByLabel('Highlighter, key 4').boundingBox())!;
  const to = (await desk.page.getByLabel('Fineliner, key 1').boundingBox())!;
  await desk.page.mouse.move(from.x + 20, from.y + 20);
  await desk.page.mouse.down();
  await desk.page.mouse.move(from.x + 20, from.y - 20, { steps: 4 });
  await desk.page.mouse.move(to.x + 20, to.y + 8, { steps: 8 });
  await desk.page.mouse.up();
  await expect.poll(async () => (await names())[0]).toBe('Highlighter');
  await desk.page.getByLabel('Nib, key 4').press('Alt+ArrowUp');
  await expect
    .poll(async () => (await names()).slice(0, 4))
    .toEqual(['Highlighter', 'Fineliner', 'Nib', 'Fineliner']);
  await desk.page.keyboard.press('3');
  await desk.page.getByLabel('Nib, key 3').click();
  await desk.page.getByLabel('Remove this slot').click();
  await expect
    .poll(async () => (await names()).slice(0, 3))
    .toEqual(['Highlighter', 'Fineliner', 'Fineliner']);
  await desk.page.getByRole('button', { name: 'Put back' }).click();
  await expect
    .poll(async () => (await names()).slice(0, 4))
    .toEqual(['Highlighter', 'Fineliner', 'Nib', 'Fineliner']);
});
