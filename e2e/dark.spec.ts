import { expect, test, SLIDE } from './support/fixtures';
import { QUARTERS, file, putDown, quarters } from './support/pictures';

/** WCAG 2.2, “relative luminance” and “contrast ratio”. */
function contrast(a: readonly number[], b: readonly number[]): number {
  const luminance = (color: readonly number[]): number => {
    const [r, g, b] = color.map((c) =>
      c / 255 <= 0.04045 ? c / 255 / 12.92 : ((c / 255 + 0.055) / 1.055) ** 2.4,
    );
    return 0.2126 * r + 0.7152 * g + 0.0722 * b;
  };
  const [low, high] = [luminance(a), luminance(b)].sort((x, y) => x - y);
  return (high + 0.05) / (low + 0.05);
}

test('dark pages turn paper and ink, leave pictures alone, and are not in the export', async ({
  desk,
  deck,
  instance,
}) => {
  const { page } = desk;
  await desk.open(instance.url, deck);
  const picture = await quarters(240, 120).png().toBuffer();
  await putDown(
    desk,
    [file('Quarters.png', 'image/png', picture)],
    await desk.spot(1, 560, 80, SLIDE),
  );
  await desk.saved();
  // Flattened, the picture is one of the file's own.
  const flat = await fetch(`${instance.url}/api/documents/${deck}/export?annotations=flattened`);
  const id = await instance.bringIn(new Uint8Array(await flat.arrayBuffer()), 'Flat.pdf');
  const light = await (await fetch(`${instance.url}/api/documents/${id}/export`)).arrayBuffer();
  await desk.open(instance.url, id);
  const paper = await desk.spot(1, 400, 20, SLIDE);
  const inPicture = await desk.spot(1, 560 - 60, 80 - 20, SLIDE);
  expect(await desk.colorAt(paper)).toEqual([255, 255, 255]);
  expect(await desk.colorAt(inPicture)).toEqual([...QUARTERS[0]]);

  await page.keyboard.press('d');
  await expect(page.locator('canvas.bright').first()).toBeAttached();
  await expect.poll(async () => Math.max(...(await desk.colorAt(paper)))).toBeLessThan(40);
  const dark = await desk.colorAt(paper);
  const seen = await desk.colorAt(inPicture);
  seen.forEach((value, k) => expect(Math.abs(value - QUARTERS[0][k])).toBeLessThanOrEqual(1));

  // What is written shows light as it is drawn, and stays that.
  const [from, to] = [await desk.spot(1, 60, 20, SLIDE), await desk.spot(1, 300, 20, SLIDE)];
  await page.keyboard.press('3');
  await desk.pen([from, to], { pressure: 0.9 });
  await desk.saved();
  const clip = { x: (from.x + to.x) / 2, y: from.y - 6, width: 1, height: 12 };
  const { data } = await desk.picture(clip);
  let best = 0;
  for (let i = 0; i < data.length; i += 4)
    best = Math.max(best, contrast([data[i], data[i + 1], data[i + 2]], dark));
  expect(best).toBeGreaterThanOrEqual(4.5);

  // It is kept, and no other page or export knows of it.
  await page.reload();
  await desk.drawn();
  expect(Math.max(...(await desk.colorAt(paper)))).toBeLessThan(40);
  const after = Buffer.from(
    await (await fetch(`${instance.url}/api/documents/${id}/export`)).arrayBuffer(),
  );
  expect(after.subarray(0, light.byteLength).equals(Buffer.from(light))).toBe(true);
  await page.getByLabel('How pages lie').click();
  await page.getByRole('menuitemcheckbox', { name: 'Dark pages' }).click();
  await expect.poll(() => desk.colorAt(paper)).toEqual([255, 255, 255]);
});

test('who asks for less motion gets none; where the system gives the colours, those of pens are seen', async ({
  desk,
  deck,
  instance,
}) => {
  const { page } = desk;
  await page.emulateMedia({ reducedMotion: 'reduce', forcedColors: 'active' });
  await desk.open(instance.url, deck);
  await page.locator('stylet-rail .slot.active').click();
  const dots = page.locator('stylet-color-choice button');
  await expect(dots.first()).toBeVisible();
  const moving = await page.evaluate(
    () =>
      Array.from(document.querySelectorAll('*')).filter((element) => {
        const { transitionDuration, animationDuration } = getComputedStyle(element);
        return [transitionDuration, animationDuration]
          .flatMap((list) => list.split(', '))
          .some((duration) => parseFloat(duration) > 0.001);
      }).length,
  );
  expect(moving).toBe(0);
  const colors = await dots.evaluateAll((all) =>
    all.map((dot) => {
      const inner = getComputedStyle(dot, '::before').backgroundColor;
      return [getComputedStyle(dot).backgroundColor, inner].join();
    }),
  );
  expect(new Set(colors).size).toBeGreaterThan(5);
  const chosen = page.locator('stylet-rail .slot.active');
  expect(await chosen.evaluate((slot) => getComputedStyle(slot).outlineStyle)).toBe('solid');
});
