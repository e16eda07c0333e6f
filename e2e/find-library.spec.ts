import { expect, test } from './support/fixtures';

test.beforeEach(async ({ instance, handbook }) => {
  expect(handbook).not.toBe('');
  await instance.indexed();
});

// What the demo has is read in the background.
test.beforeEach(({ instance }) => instance.indexed());

test('words are found in all documents, with their places; a hit opens there, and one comes back to it', async ({
  desk,
  instance,
}) => {
  const { page } = desk;
  await page.goto(instance.url);
  const field = page.getByRole('searchbox', { name: 'Find' });
  await field.fill('groyne drift');
  await field.press('Enter');
  await expect(page).toHaveURL(/\/find\?typed=groyne/);
  await expect(page.getByRole('status').filter({ hasText: 'document' })).toContainText(
    /\d+ pages in \d+ document/,
  );
  // Tests before may have brought it in as well.
  const handbook = page.locator('section.document', { hasText: 'Field handbook' }).first();
  await expect(handbook.locator('mark').first()).toContainText(/groyne|drift/i);
  // The small picture shows the words, not an empty canvas.
  const picture = handbook.locator('stylet-hit-picture.drawn canvas').first();
  await expect(picture).toBeVisible();
  const dark = await picture.evaluate((canvas: HTMLCanvasElement) => {
    const { data } = canvas.getContext('2d')!.getImageData(0, 0, canvas.width, canvas.height);
    let pixels = 0;
    for (let i = 0; i < data.length; i += 4) if (data[i] < 110) pixels++;
    return pixels;
  });
  expect(dark).toBeGreaterThan(100);

  await handbook.getByRole('button', { name: /Show all/ }).click();
  const hits = handbook.locator('a.hit');
  await expect.poll(() => hits.count()).toBeGreaterThan(3);
  const third = hits.nth(2);
  const label = (await third.locator('.place span').first().innerText()).replace('page ', '');
  await third.scrollIntoViewIfNeeded();
  const scrolled = await page.locator('main').evaluate((main) => main.scrollTop);
  await third.click();
  await expect(page.getByLabel('Page, by label or number')).toHaveValue(label);
  await expect(page.getByLabel('Find in this document')).toHaveValue('groyne drift');
  const current = page.locator('.hit.current');
  await expect(current.first()).toBeInViewport();

  await page.goBack();
  await expect(page.locator('a.hit.opened')).toBeFocused();
  await expect.poll(() => page.locator('main').evaluate((main) => main.scrollTop)).toBe(scrolled);
  await expect.poll(() => hits.count()).toBeGreaterThan(3);
});

test('hits are gone through by key, and options are in the address', async ({ desk, instance }) => {
  const { page } = desk;
  await page.goto(`${instance.url}/find`);
  await expect(page.getByText('pages that have both')).toBeVisible();
  await page.keyboard.type('GROYNE');
  await expect(page.locator('a.hit').first()).toBeVisible();
  await page.keyboard.press('ArrowDown');
  await expect(page.locator('a.hit').first()).toBeFocused();
  await page.keyboard.press('ArrowDown');
  await expect(page.locator('a.hit').nth(1)).toBeFocused();
  await page.keyboard.press('ArrowUp');
  await page.keyboard.press('ArrowUp');
  await expect(page.getByRole('searchbox')).toBeFocused();
  await page.getByRole('button', { name: 'Same case' }).click();
  await expect(page.getByText('Nothing in your documents says “GROYNE”.')).toBeVisible();
  await page.reload();
  await expect(page.getByRole('button', { name: 'Same case' })).toHaveAttribute(
    'aria-pressed',
    'true',
  );
});

test('a misspelt word leads to its neighbour; a search is saved, renamed and used again', async ({
  desk,
  instance,
}) => {
  const { page } = desk;
  await page.goto(`${instance.url}/find?typed=sedimnet`);
  await page.getByRole('button', { name: 'sediment', exact: true }).click();
  await expect(page).toHaveURL(/typed=sediment/);
  await page.getByRole('button', { name: 'Save this search' }).click();
  await expect(page.getByRole('button', { name: 'Saved' })).toBeVisible();
  await page.goto(`${instance.url}/find`);
  await page.getByRole('button', { name: 'Rename' }).click();
  await page.getByLabel('Name of the search').fill('Grain questions');
  await page.keyboard.press('Enter');
  await page.reload();
  await page.getByRole('button', { name: 'Grain questions', exact: true }).click();
  await expect(page.locator('a.hit').first()).toBeVisible();
  await page.goto(`${instance.url}/find`);
  await page.getByRole('button', { name: 'Forget Grain questions' }).click();
  await expect(page.getByText('Saved searches')).toHaveCount(0);
});

test('what is still being read is said', async ({ desk, instance }) => {
  const { page } = desk;
  await page.route('**/api/indexing', (route) =>
    route.fulfill({
      json: {
        documents: [
          { id: crypto.randomUUID(), title: 'Almanac', pages: 200, done: 50, trouble: null },
          { id: crypto.randomUUID(), title: 'Torn', pages: 9, done: 0, trouble: 'broken' },
        ],
      },
    }),
  );
  await page.goto(`${instance.url}/find?typed=tide`);
  await expect(page.getByText('Still being read: Almanac (25 %)')).toBeVisible();
  await expect(page.getByText('The words of Torn cannot be read.')).toBeVisible();
});
