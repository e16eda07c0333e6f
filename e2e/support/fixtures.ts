import { test as base, type BrowserContext } from '@playwright/test';
import { readFileSync } from 'node:fs';
import { madePdf } from '@stylet/demo/testing';
import { DeskDriver } from './desk';
import { Instance } from './instance';

interface Shared {
  /** One for all tests of a worker: docs/decisions/0051-tests-in-the-shell.md. */
  readonly browserContext: BrowserContext;
  readonly instance: Instance;
  readonly deckPdf: Uint8Array;
  readonly handbookPdf: Uint8Array;
}

const VIEWPORT = { width: 1280, height: 800 };

/** Tests get a running instance, the demo files, a fresh document of each, and a driver of the desk. */
export const test = base.extend<{ desk: DeskDriver; deck: string; handbook: string }, Shared>({
  instance: [
    async ({}, use, worker) => {
      const instance = await Instance.create(`e2e_${worker.workerIndex}`);
      await instance.start();
      await use(instance);
      await instance.remove();
    },
    { scope: 'worker' },
  ],
  browserContext: [
    async ({ browser }, use) => {
      // What a service worker keeps of the program is tried where it says so; elsewhere each test has what was built.
      const context = await browser.newContext({ viewport: VIEWPORT, serviceWorkers: 'block' });
      await use(context);
      await context.close();
    },
    { scope: 'worker' },
  ],
  context: async ({ browserContext }, use) => {
    await use(browserContext);
    for (const page of browserContext.pages()) await page.close();
    await browserContext.clearPermissions();
  },
  page: async ({ context, instance }, use) => {
    const page = await context.newPage();
    // Nothing is left of the tests before but what the browser has fetched and compiled.
    const session = await context.newCDPSession(page);
    const all = { origin: instance.url, storageTypes: 'all' };
    await session.send('Storage.clearDataForOrigin', all);
    await session.detach();
    await use(page);
  },
  deckPdf: [async ({}, use) => use(readFileSync(madePdf('makeDeck'))), { scope: 'worker' }],
  handbookPdf: [
    async ({}, use) => use(readFileSync(madePdf('makeHandbook'))),
    { scope: 'worker', timeout: 60_000 },
  ],
  deck: async ({ instance, deckPdf }, use) =>
    use(await instance.bringIn(deckPdf, 'Waves and tides.pdf')),
  handbook: async ({ instance, handbookPdf }, use) =>
    use(await instance.bringIn(handbookPdf, 'Field handbook.pdf')),
  desk: async ({ page, instance }, use) => {
    instance.forgetKit();
    await use(new DeskDriver(page));
  },
});

export { expect } from '@playwright/test';

/** Width of a slide and of a handbook page, in points. */
export const SLIDE = 720;
export const HANDBOOK = 482;
