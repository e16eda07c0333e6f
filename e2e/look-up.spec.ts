import { expect, test, SLIDE } from './support/fixtures';
import { selectWavelength } from './support/one-word';

test('a word is looked up where it stands; the words it is explained by lead on, and back', async ({
  desk,
  deck,
  instance,
}) => {
  const { y } = await selectWavelength(desk, instance.url, deck);
  await desk.page.getByRole('button', { name: 'Look up' }).click();
  const card = desk.page.getByRole('dialog', { name: 'What “wavelength,” means' });
  await expect(card.getByRole('heading', { name: 'wavelength', exact: true })).toBeVisible();
  // WordNet 3.1, “wavelength”, first noun sense.
  await expect(card).toContainText(
    'the distance (measured in the direction of propagation) between two points in the same phase in consecutive cycles of a wave',
  );
  await expect(card).toContainText('From WordNet');
  // What it is about stays in view.
  const box = (await card.boundingBox())!;
  expect(y < box.y || y > box.y + box.height).toBe(true);

  await card.getByRole('button', { name: 'distance' }).first().click();
  const next = desk.page.getByRole('dialog', { name: 'What “distance” means' });
  await expect(next.getByRole('heading', { name: 'distance noun' })).toBeVisible();
  await next.getByRole('button', { name: 'Back to the word before' }).click();
  await expect(card.getByRole('heading', { name: 'wavelength noun' })).toBeVisible();
  await desk.page.keyboard.press('Escape');
  await expect(card).toBeHidden();
});

test('several words are looked up together; what no dictionary has is said, with what to do', async ({
  desk,
  deck,
  instance,
}) => {
  await desk.read(instance.url, deck, '16');
  const from = await desk.spot(16, 120, 161, SLIDE);
  const to = await desk.spot(16, 195, 161, SLIDE);
  await desk.page.mouse.move(from.x, from.y);
  await desk.page.mouse.down();
  await desk.page.mouse.move(to.x, to.y, { steps: 5 });
  await desk.page.mouse.up();
  await desk.page.getByRole('button', { name: 'Look up' }).click();
  await expect(desk.page.getByRole('dialog', { name: /wavelength, the/ })).toContainText(
    'No dictionary has this word. Select less, or a single word.',
  );
  // A press beside the card closes it.
  await desk.page.mouse.click(from.x, from.y + 200);
  await expect(desk.page.getByRole('dialog')).toHaveCount(0);
});

test('a dictionary that is added says what it has, until it is taken away', async ({
  desk,
  deck,
  instance,
}) => {
  await selectWavelength(desk, instance.url, deck);
  await desk.page.getByRole('button', { name: 'Look up' }).click();
  const card = desk.page.getByRole('dialog', { name: 'What “wavelength,” means' });
  await card.getByRole('button', { name: 'Dictionaries' }).click();
  const dialog = desk.page.getByRole('dialog', { name: 'Dictionaries' });
  const files = dialog.locator('input[type=file]');

  await files.setInputFiles({
    name: 'Odd.txt',
    mimeType: 'text/plain',
    buffer: Buffer.from('no tab'),
  });
  await expect(dialog.getByRole('alert')).toContainText(
    'Line 1 has no word, tab and meaning. Add a text file with a word, a tab and its meaning on each line',
  );
  await files.setInputFiles({
    name: 'Shore words.txt',
    mimeType: 'text/plain',
    buffer: Buffer.from('wavelength\tfrom one crest to the next\nset-up\ta raised mean level\n'),
  });
  await expect(dialog).toContainText('Shore words2 words');
  await dialog.getByRole('button', { name: 'Rename' }).click();
  await dialog.getByRole('textbox', { name: 'Title of the dictionary' }).fill('Field words');
  await desk.page.keyboard.press('Enter');
  await expect(dialog).toContainText('Field words2 words');
  await dialog.getByRole('button', { name: 'Done' }).click();

  await expect(card).toContainText('from one crest to the next');
  await expect(card.locator('section').first()).toContainText('From Field words');
  await expect(card.locator('section').last()).toContainText('From WordNet');
  await card.getByRole('button', { name: 'Dictionaries' }).click();
  await dialog.getByRole('button', { name: 'Remove Field words' }).click();
  await expect(dialog).not.toContainText('Field words');
  await dialog.getByRole('button', { name: 'Done' }).click();
  await expect(card.locator('section')).toHaveCount(1);
});
