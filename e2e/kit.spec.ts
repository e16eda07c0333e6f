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
  await desk.page.getByLabel('Opacity').fill('0.4');
  await desk.page.getByLabel('Close', { exact: true }).click();
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
  const from = (await desk.page.getByLabel(/^Highlighter, .*key 4$/).boundingBox())!;
  const to = (await desk.page.getByLabel(/^Fineliner, .*key 1$/).boundingBox())!;
  await desk.page.mouse.move(from.x + 20, from.y + 20);
  await desk.page.mouse.down();
  await desk.page.mouse.move(from.x + 20, from.y - 20, { steps: 4 });
  await desk.page.mouse.move(to.x + 20, to.y + 8, { steps: 8 });
  await desk.page.mouse.up();
  await expect.poll(async () => (await names())[0]).toBe('Highlighter');
  await desk.page.getByLabel(/^Nib, .*key 4$/).press('Alt+ArrowUp');
  await expect
    .poll(async () => (await names()).slice(0, 4))
    .toEqual(['Highlighter', 'Fineliner', 'Nib', 'Fineliner']);
  await desk.page.keyboard.press('3');
  await desk.page.getByLabel(/^Nib, .*key 3$/).click();
  await desk.page.getByLabel('Remove this slot').click();
  await expect
    .poll(async () => (await names()).slice(0, 3))
    .toEqual(['Highlighter', 'Fineliner', 'Fineliner']);
  await desk.page.getByRole('button', { name: 'Put back' }).click();
  await expect
    .poll(async () => (await names()).slice(0, 4))
    .toEqual(['Highlighter', 'Fineliner', 'Nib', 'Fineliner']);
});

test('colours are mixed, typed, used again, and taken from the page', async ({
  desk,
  deck,
  instance,
}) => {
  await desk.open(instance.url, deck);
  await desk.page.getByLabel(/^Fineliner, .*key 1$/).click();
  await desk.page.getByLabel('Another colour').click();
  const hex = desk.page.getByLabel('Colour as hex');
  await hex.fill('#7a3fb0');
  await hex.press('Enter');
  await desk.page.getByLabel('Hue').fill('0');
  await expect(hex).not.toHaveValue('#7a3fb0');
  const red = await hex.inputValue();
  await expect(desk.page.getByRole('button', { name: '#7a3fb0' })).toBeVisible();
  await desk.page.getByRole('button', { name: '#7a3fb0' }).click();
  await expect(hex).toHaveValue('#7a3fb0');
  expect(Number.parseInt(red.slice(1, 3), 16)).toBeGreaterThan(150);
  // The rule under the heading of slide 16 is of the course's green.
  await desk.page.getByLabel('Close', { exact: true }).click();
  await desk.goTo('16');
  await desk.page.getByLabel(/^Fineliner, .*key 1$/).click();
  await desk.page.getByLabel('Another colour').click();
  await desk.page.getByRole('button', { name: 'From page' }).click();
  const rule = await desk.spot(16, 100, 94.5, SLIDE);
  const wanted = await desk.colorAt(rule);
  await desk.page.mouse.click(rule.x, rule.y);
  await desk.pen([await desk.spot(16, 300, 40, SLIDE), await desk.spot(16, 500, 40, SLIDE)]);
  await desk.saved();
  const [ink] = await instance.annotations(deck);
  const byte = (value: number): string => value.toString(16).padStart(2, '0');
  expect(ink['color']).toBe(`#${wanted.map(byte).join('')}`);
  expect(ink['color']).not.toBe('#ffffff');
});

test('on a narrow screen every slot stays in reach, in the rail or one tap further', async ({
  desk,
  deck,
  instance,
}) => {
  const { page } = desk;
  await page.setViewportSize({ width: 360, height: 600 });
  await desk.open(instance.url, deck);
  const tray = page.getByLabel('All pens and tools').first();
  for (let i = 0; i < 12; i++) {
    const add = page.getByLabel('Add a slot');
    if (!(await add.isVisible())) await tray.click();
    await add.click();
    await page.getByLabel('Close', { exact: true }).click();
  }
  await tray.click();
  const slots = page.getByRole('button', { name: /^(Fineliner|Nib|Highlighter), / });
  await expect(slots).toHaveCount(16);
  for (let i = 0; i < 16; i++) await expect(slots.nth(i)).toBeInViewport({ ratio: 0.9 });
  await slots.last().click();
  await expect(tray).toHaveAttribute('aria-expanded', 'false');
  // What is in hand is seen.
  await expect(page.locator('stylet-rail .slot.active')).toBeInViewport({ ratio: 0.9 });
  await desk.page.getByLabel('Eraser, key E').click();
  await expect(desk.page.getByLabel('Eraser, key E')).toHaveAttribute('aria-pressed', 'true');
  // The card fits as well.
  await desk.page.getByLabel(/^Fineliner, .*key 1$/).click();
  await desk.page.getByLabel(/^Fineliner, .*key 1$/).click();
  const card = (await desk.page.locator('stylet-slot-card').boundingBox())!;
  expect(card.x + card.width).toBeLessThanOrEqual(360);
  expect(card.y + card.height).toBeLessThanOrEqual(600);
});
