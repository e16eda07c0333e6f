import { browserOptions } from './support/browser';
import { expect, test, SLIDE } from './support/fixtures';
import { pictures } from './support/pictures';

// Chromium's own made-up camera: a green picture with a moving sign on it.
const FAKE = ['--use-fake-device-for-media-stream', '--use-fake-ui-for-media-stream'];
test.use({ launchOptions: { ...browserOptions, args: [...browserOptions.args, ...FAKE] } });

test('a picture is taken with the camera and goes where it is tapped', async ({
  desk,
  deck,
  instance,
}) => {
  await desk.open(instance.url, deck);
  const { page } = desk;
  await page.getByLabel('Picture, key I').click();
  await page.getByRole('button', { name: 'Camera' }).click();
  await page.getByRole('button', { name: 'Take the picture' }).click();
  await expect(page.getByText('Tap where the picture is to go')).toBeVisible();
  await desk.pen([await desk.spot(1, 360, 200, SLIDE)]);
  await desk.saved();
  const [put] = await pictures(instance, deck);
  expect(put.medium).toBe('pixels');
  const reply = await fetch(`${instance.url}/api/pictures/${put.digest}`);
  expect(reply.headers.get('content-type')).toBe('image/jpeg');
  await page.keyboard.press('Escape');
  const [r, g, b] = await desk.colorAt(await desk.spot(1, 360, 200, SLIDE));
  expect(Math.max(r, g, b) - Math.min(r, g, b)).toBeGreaterThan(20);
});
