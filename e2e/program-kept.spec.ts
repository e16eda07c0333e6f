import { expect } from './support/fixtures';
import { test } from './support/program-kept';

test('Stylet can be installed, by what Chromium itself says', async ({ fresh, instance }) => {
  await fresh.page.goto(instance.url);
  const session = await fresh.page.context().newCDPSession(fresh.page);
  // W3C Web Application Manifest, parsed by the browser.
  const { errors, data, url } = await session.send('Page.getAppManifest');
  expect([errors, url]).toEqual([[], `${instance.url}/manifest.webmanifest`]);
  expect(JSON.parse(data!)).toMatchObject({ name: 'Stylet', display: 'standalone' });
  const { installabilityErrors } = await session.send('Page.getInstallabilityErrors');
  // A window without traces counts as private, in which nothing can be installed.
  expect(installabilityErrors.filter(({ errorId }) => errorId !== 'in-incognito')).toEqual([]);
});

test('after one visit the program, the library and what was open start with no server', async ({
  fresh,
  deck,
  instance,
}) => {
  const { page } = fresh;
  await fresh.open(instance.url, deck);
  await fresh.keptHere();
  await page.goto(instance.url);
  const covers = page.locator('stylet-document-card');
  await expect(covers.first()).toBeVisible();
  await fresh.programKept();
  await instance.kill();
  await page.reload();
  await expect(covers.first()).toBeVisible();
  await page.locator(`a[href$="${deck}"]`).first().click();
  await fresh.drawn();
  await page.reload();
  await fresh.drawn();
  await expect(page.locator('.sync')).toHaveText('Offline');
  await instance.start();
  await expect(page.locator('.sync')).toHaveText('Saved');
});
