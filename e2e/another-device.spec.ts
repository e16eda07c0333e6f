import jsQR from 'jsqr';
import { PNG } from 'pngjs';
import { expect, test } from './support/fixtures';

test('a picture of the address, read by another program, opens the document where it is; without a certificate it says how to have one', async ({
  desk,
  deck,
  instance,
}) => {
  const { page } = desk;
  let addresses = ['https://bench.test:4643', 'https://192.0.2.7:4643'];
  await page.route('**/api/addresses', (route) => route.fulfill({ json: { addresses } }));
  await desk.open(instance.url, deck);
  await desk.goTo('3');
  const open = async (): Promise<void> => {
    await page.getByRole('button', { name: 'More', exact: true }).click();
    await page.getByRole('menuitem', { name: 'Open on another device' }).click();
  };
  await open();
  const picture = page.getByRole('img', { name: 'QR code of the address' });
  const seen = async (): Promise<string | undefined> => {
    const { data, width, height } = PNG.sync.read(await picture.screenshot());
    // An implementation of ISO/IEC 18004 that shares nothing with the one that draws.
    return jsQR(new Uint8ClampedArray(data), width, height)?.data;
  };
  await expect(picture).toBeVisible();
  const reply = await fetch(`${instance.url}/api/documents/${deck}`);
  const { pages } = (await reply.json()) as { pages: { id: string }[] };
  const path = `/documents/${deck}?page=${pages[2].id}`;
  await expect.poll(seen).toBe(`https://bench.test:4643${path}`);
  await page.getByRole('button', { name: 'It does not open' }).click();
  await expect.poll(seen).toBe(`https://192.0.2.7:4643${path}`);
  await page.getByRole('button', { name: 'The device warns of the address' }).click();
  await expect.poll(seen).toBe('https://192.0.2.7:4643/authority.crt');
  await page.getByRole('button', { name: 'Close' }).click();

  addresses = [];
  await open();
  await expect(page.getByText('./stylet certificate')).toBeVisible();
  await page.goto(instance.url + path);
  await desk.drawn();
  await expect(page.getByLabel('Page, by label or number')).toHaveValue('3');
});
