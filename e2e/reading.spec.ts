import { expect, test, HANDBOOK } from './support/fixtures';

test('the outline leads to the exact place, and Back returns', async ({
  desk,
  handbook,
  instance,
}) => {
  await desk.open(instance.url, handbook);
  const top = () => desk.page.locator('.scroller').evaluate((e) => e.scrollTop);
  const start = await top();
  await desk.page.getByTitle('Unfold 2 Surveying the beach').click();
  await desk.page.locator('.entry', { hasText: '2.3 Choosing stations' }).click();
  await desk.drawn();
  const label = await desk.page.getByLabel('Page, by label or number').inputValue();
  expect(Number(label)).toBeGreaterThan(30);
  // The entry's destination is 54 points below the page's top edge (680 − 626); it stands at the
  // top of the view, a gap below its edge.
  const view = (await desk.page.locator('.scroller').boundingBox())!;
  const index = Number(label) + 14;
  const box = (await desk.page.locator(`stylet-page-view[data-page="${index}"]`).boundingBox())!;
  const down = (54 / 680) * box.height;
  expect(Math.abs(box.y + down - view.y - 20)).toBeLessThan(2);
  await desk.page.getByLabel('Back', { exact: true }).click();
  expect(Math.abs((await top()) - start)).toBeLessThan(2);
  await desk.page.getByLabel('Forward', { exact: true }).click();
  expect(await desk.page.getByLabel('Page, by label or number').inputValue()).toBe(label);
});

test('pages are found by label and by number', async ({ desk, handbook, instance }) => {
  await desk.open(instance.url, handbook);
  await desk.goTo('xii');
  await expect(desk.page.locator('stylet-status-bar')).toContainText('page 12 of 320');
  await desk.goTo('100');
  await expect(desk.page.locator('stylet-status-bar')).toContainText('page 114 of 320');
  await desk.goTo('R-3');
  await expect(desk.page.locator('stylet-status-bar')).toContainText('page 313 of 320');
  const field = desk.page.getByLabel('Page, by label or number');
  await field.fill('zzz');
  await field.press('Enter');
  await expect(desk.page.getByText('No page “zzz”')).toBeVisible();
});

test('links live in Read, and never fire in Write', async ({ desk, deck, instance }) => {
  await desk.open(instance.url, deck);
  await desk.goTo('2');
  const spot = await desk.spot(2, 120, 145, 720);
  await desk.pen([spot, { x: spot.x + 30, y: spot.y }]);
  await expect(desk.page.getByLabel('Page, by label or number')).toHaveValue('2');
  await desk.page.getByRole('radio', { name: 'Read' }).click();
  await desk.page.getByLabel('To page 3', { exact: true }).click();
  await expect(desk.page.getByLabel('Page, by label or number')).toHaveValue('3');
  await desk.page.keyboard.press('Alt+ArrowLeft');
  await expect(desk.page.getByLabel('Page, by label or number')).toHaveValue('2');
  await desk.page.getByLabel('https://course.example/tidewater').click();
  await expect(desk.page.getByRole('dialog')).toContainText('https://course.example/tidewater');
  await desk.page.getByRole('button', { name: 'Stay here' }).click();
});

test('zooming keeps the place under the pointer, from 10 % to 800 %, and stays sharp', async ({
  desk,
  handbook,
  instance,
}) => {
  await desk.open(instance.url, handbook);
  await desk.goTo('20');
  const page = desk.page.locator('stylet-page-view[data-page="34"]');
  const place = async () => {
    const box = (await page.boundingBox())!;
    return { x: (500 - box.x) / box.width, y: (400 - box.y) / box.height };
  };
  await desk.page.mouse.move(500, 400);
  const before = await place();
  await desk.page.keyboard.down('Control');
  for (let i = 0; i < 8; i++) await desk.page.mouse.wheel(0, -120);
  await desk.page.keyboard.up('Control');
  await expect(desk.page.locator('.zoom')).toHaveText('800 %');
  const after = await place();
  expect(Math.abs(after.x - before.x)).toBeLessThan(0.02);
  expect(Math.abs(after.y - before.y)).toBeLessThan(0.02);
  // At 800 % a point is 10.7 pixels; the drawn window has as many pixels as it covers.
  // Drawn anew it is another canvas: both are asked of one.
  const missing = (): Promise<number> =>
    page
      .locator('canvas.bitmap')
      .evaluate((c: HTMLCanvasElement) => Math.abs(c.width - c.getBoundingClientRect().width));
  await expect.poll(missing).toBeLessThan(2);
  await desk.page.keyboard.down('Control');
  for (let i = 0; i < 16; i++) await desk.page.mouse.wheel(0, 120);
  await desk.page.keyboard.up('Control');
  await expect(desk.page.locator('.zoom')).toHaveText('10 %');
  expect(await desk.page.locator('stylet-page-view').count()).toBeGreaterThan(3);
  await desk.page.keyboard.press('Control+0');
  const width = (await desk.page.locator('stylet-page-view').first().boundingBox())!.width;
  expect(width).toBeGreaterThan(HANDBOOK);
});

test('only pages near the view exist, however long the book', async ({
  desk,
  handbook,
  instance,
}) => {
  await desk.open(instance.url, handbook);
  for (const label of ['50', '150', '250', '40']) {
    await desk.goTo(label);
    expect(await desk.page.locator('stylet-page-view').count()).toBeLessThan(8);
  }
});

test('pages that pass show from far off at once, until they rest and are sharp', async ({
  desk,
  handbook,
  instance,
}) => {
  // A manual is read and drawn first, behind all else that the machine has to do.
  test.slow();
  await instance.indexed();
  await instance.drawn();
  const { page } = desk;
  // What lies ahead is fetched as soon as the first page shows.
  const ahead = page.waitForResponse(/miniatures\/2$/);
  await desk.open(instance.url, handbook);
  expect((await ahead).status()).toBe(200);
  const blank = await page.evaluate(async () => {
    const scroller = document.querySelector('.scroller')!;
    const one = document.querySelector('stylet-page-view')!.clientHeight;
    const before = new Set<Element>();
    const sheets = 'stylet-passing-page, stylet-page-view';
    let [blanks, passed] = [0, 0];
    // On a slow machine more of them rest: it goes on until enough have passed.
    for (let step = 1; step <= 36 || (passed <= 10 && step <= 200); step++) {
      scroller.scrollTop = step * one * 0.6;
      await new Promise(requestAnimationFrame);
      await new Promise((done) => setTimeout(done));
      for (const sheet of Array.from(document.querySelectorAll(sheets))) {
        passed += sheet.matches('stylet-passing-page') ? 1 : 0;
        // A sheet that has just come shows with the next frame.
        if (!before.has(sheet)) before.add(sheet);
        else if (!sheet.querySelector('.frame canvas')) blanks++;
      }
    }
    return { blanks, passed };
  });
  expect(blank.passed).toBeGreaterThan(10);
  expect(blank.blanks).toBe(0);
  await expect(page.locator('stylet-page-view canvas.bitmap').first()).toBeVisible();
  await expect(page.locator('canvas.miniature')).toHaveCount(0);
});
