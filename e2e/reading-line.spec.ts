import { expect, test, SLIDE } from './support/fixtures';

test('a reading line goes on line by line, over to the next page, and to the line that is tapped', async ({
  desk,
  deck,
  instance,
}) => {
  await desk.read(instance.url, deck, '16');
  await desk.page.keyboard.press('Shift+T');
  const line = desk.page.locator('stylet-reading-line-overlay .line');
  await expect(line).toHaveCount(1);
  const pageOf = () =>
    desk.page
      .locator('stylet-page-view:has(stylet-reading-line-overlay)')
      .getAttribute('data-page');
  const middle = async (): Promise<number> => {
    const { y, height } = (await line.boundingBox())!;
    return y + height / 2;
  };
  expect(await pageOf()).toBe('16');

  // Tapped on: the second line of text, “wavelength, the wave feels the bed”.
  const spot = await desk.spot(16, 120, 161, SLIDE);
  await desk.page.mouse.click(spot.x, spot.y);
  await expect.poll(async () => Math.abs((await middle()) - spot.y)).toBeLessThan(8);

  const before = await middle();
  await desk.page.keyboard.press('ArrowDown');
  await expect.poll(middle).toBeGreaterThan(before + 8);
  await desk.page.keyboard.press('ArrowUp');
  await expect.poll(async () => Math.abs((await middle()) - before)).toBeLessThan(1);

  for (let i = 0; i < 40 && (await pageOf()) === '16'; i++) {
    await desk.page.keyboard.press('ArrowDown');
    await desk.still();
  }
  expect(await pageOf()).toBe('17');
  await expect(line).toBeInViewport();
  await desk.page.keyboard.press('ArrowUp');
  await expect.poll(pageOf).toBe('16');

  await desk.page.keyboard.press('Shift+T');
  await expect(line).toHaveCount(0);
});
