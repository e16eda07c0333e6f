import { expect, test } from './support/fixtures';

test('the map leads through the document by click, drag and keys, and Back leads back', async ({
  desk,
  handbook,
  instance,
}) => {
  await desk.open(instance.url, handbook);
  const { page } = desk;
  const field = page.getByLabel('Page, by label or number');
  const map = (await page.locator('stylet-document-map').boundingBox())!;
  const at = (share: number): [number, number] => [map.x + 10, map.y + map.height * share];
  const slider = page.getByRole('slider', { name: 'Place in the document' });
  await page.mouse.click(...at(0.5));
  await desk.drawn();
  // 320 pages of one size: half of the way down is page 161.
  expect(Math.abs(Number(await slider.getAttribute('aria-valuenow')) - 161)).toBeLessThan(3);
  await page.mouse.move(...at(0.5));
  await page.mouse.down();
  await page.mouse.move(...at(0.75), { steps: 8 });
  await page.mouse.up();
  expect(Math.abs(Number(await slider.getAttribute('aria-valuenow')) - 241)).toBeLessThan(3);
  // A drag is one way: Back leads to where it began, and then to the beginning.
  await page.getByLabel('Back', { exact: true }).click();
  expect(Math.abs(Number(await slider.getAttribute('aria-valuenow')) - 161)).toBeLessThan(3);
  await page.getByLabel('Back', { exact: true }).click();
  await expect(field).toHaveValue('i');
  await slider.focus();
  await page.keyboard.press('ArrowDown');
  await expect(slider).toHaveAttribute('aria-valuenow', '2');
  await page.keyboard.press('PageDown');
  await expect(slider).toHaveAttribute('aria-valuenow', '12');
  await page.keyboard.press('End');
  await expect(slider).toHaveAttribute('aria-valuenow', '320');
});

test('resting on the map shows the page there, and the chapter it lies in', async ({
  desk,
  handbook,
  instance,
}) => {
  await desk.open(instance.url, handbook);
  const { page } = desk;
  const map = (await page.locator('stylet-document-map').boundingBox())!;
  await page.mouse.move(map.x + 10, map.y + map.height * 0.55);
  const preview = page.locator('stylet-page-preview');
  await expect(preview).toContainText('6 Sediment');
  await expect
    .poll(() =>
      preview.locator('canvas').evaluate((canvas: HTMLCanvasElement) => {
        const { data } = canvas.getContext('2d')!.getImageData(0, 0, canvas.width, canvas.height);
        return data.filter((value, i) => i % 4 === 0 && value < 128).length;
      }),
    )
    .toBeGreaterThan(50);
  await page.mouse.move(300, 300);
  await expect(preview).toHaveCount(0);
});

test('a bookmark is marked on the map', async ({ desk, handbook, instance }) => {
  await desk.open(instance.url, handbook);
  const { page } = desk;
  const ochre = () =>
    page.locator('stylet-document-map canvas').evaluate((canvas: HTMLCanvasElement) => {
      const { data } = canvas.getContext('2d')!.getImageData(0, 0, canvas.width, canvas.height);
      let count = 0;
      for (let i = 0; i < data.length; i += 4)
        if (Math.abs(data[i] - 0x9a) + Math.abs(data[i + 1] - 0x5b) + data[i + 2] < 12) count++;
      return count;
    });
  expect(await ochre()).toBe(0);
  await desk.goTo('100');
  await page.keyboard.press('b');
  await expect.poll(ochre).toBeGreaterThan(8);
});
