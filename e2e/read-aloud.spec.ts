import { expect, test } from './support/fixtures';
import { selectWavelength } from './support/one-word';

test('a page is read aloud from a word on: words are marked, sentences stepped, speed and voice chosen', async ({
  desk,
  deck,
  instance,
}) => {
  await selectWavelength(desk, instance.url, deck);
  await desk.page.getByRole('button', { name: 'Read aloud from here' }).click();
  const bar = desk.page.getByRole('toolbar', { name: 'Reading aloud' });
  const word = desk.page.locator('stylet-spoken-overlay .word');
  await expect(word).toHaveCount(1);
  const place = async (): Promise<string> => {
    const box = (await word.first().boundingBox())!;
    return `${Math.round(box.x)} ${Math.round(box.y)}`;
  };
  const first = await place();
  // The voice has come to another word.
  await expect.poll(place, { timeout: 15_000 }).not.toBe(first);

  await bar.getByRole('button', { name: 'Pause' }).click();
  await desk.still();
  const rests = await place();
  await desk.pause(800);
  expect(await place()).toBe(rests);
  await desk.page.keyboard.press('a');
  await expect(bar.getByRole('button', { name: 'Pause' })).toBeVisible();
  await expect.poll(place, { timeout: 15_000 }).not.toBe(rests);

  for (let i = 0; i < 4; i++) await bar.getByRole('button', { name: 'Faster' }).click();
  await expect(bar).toContainText('2 ×');
  await expect(bar.getByRole('button', { name: 'Faster' })).toBeDisabled();
  const sentence = desk.page.locator('stylet-spoken-overlay .sentence').first();
  const before = await sentence.getAttribute('points');
  await bar.getByRole('button', { name: 'Next sentence' }).click();
  await expect.poll(() => sentence.getAttribute('points')).not.toBe(before);
  const voice = bar.getByRole('combobox', { name: 'Voice' });
  await voice.click();
  const names = await desk.page.getByRole('option').allTextContents();
  expect(names.length).toBeGreaterThan(1);
  await desk.page.getByRole('option').nth(1).click();
  await expect(voice).toHaveText(names[1].trim());

  await bar.getByRole('button', { name: 'Stop reading aloud' }).click();
  await expect(bar).toBeHidden();
  await expect(word).toHaveCount(0);
});

test('reading aloud goes on to the next page and shows it', async ({ desk, deck, instance }) => {
  await desk.read(instance.url, deck, '16');
  await desk.page.keyboard.press('a');
  const next = desk.page.getByRole('button', { name: 'Next sentence' });
  const pageOf = () =>
    desk.page
      .locator('stylet-page-view:has(stylet-spoken-overlay)')
      .first()
      .getAttribute('data-page');
  await expect.poll(pageOf).toBe('16');
  for (let i = 0; i < 30 && (await pageOf()) === '16'; i++) {
    await next.click();
    await desk.still();
  }
  await expect.poll(pageOf).toBe('17');
  await expect(desk.page.locator('stylet-spoken-overlay .word').first()).toBeInViewport();
});
