import { samplesFromBase64 } from '@stylet/core/ink';
import { expect, test, SLIDE } from './support/fixtures';

interface Ink {
  readonly kind: string;
  readonly group?: string;
  readonly samples: string;
}

test('a tap writes the date in one step, as high as it is set, and the kit remembers how', async ({
  desk,
  deck,
  instance,
}) => {
  await desk.open(instance.url, deck);
  const tool = desk.page.getByLabel('Date, key J');
  await desk.page.keyboard.press('j');
  await expect(tool).toHaveAttribute('aria-pressed', 'true');
  await tool.click();
  await desk.page.getByRole('radio', { name: 'and page' }).click();
  await desk.page.getByLabel('Height of the date in millimetres').fill('8');
  const at = await desk.spot(1, 300, 300, SLIDE);
  await desk.pen([at, at]);
  await desk.saved();

  const written = (await instance.annotations(deck)) as unknown as Ink[];
  expect(written.map(({ kind }) => kind)).toEqual(written.map(() => 'ink'));
  expect(new Set(written.map(({ group }) => group)).size).toBe(1);
  const heights = written.flatMap(({ samples }) => [...samplesFromBase64(samples).y]);
  const now = new Date();
  const digits = [now.getFullYear(), now.getMonth() + 1, now.getDate()].join('').length;
  expect(written.length).toBeGreaterThan(digits);
  // It stands where the pen was: 8 mm high, and a “p” goes below the line.
  expect(Math.min(...heights)).toBeCloseTo(300 - (8 * 72) / 25.4, 0);
  expect(Math.max(...heights)).toBeGreaterThan(301);

  await desk.page.keyboard.press('Control+z');
  await desk.saved();
  expect(await instance.annotations(deck)).toEqual([]);
  await desk.page.reload();
  await desk.drawn();
  await desk.page.keyboard.press('j');
  await tool.click();
  await expect(desk.page.getByRole('radio', { name: 'and page' })).toBeChecked();
});
