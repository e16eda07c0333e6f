import { test as base } from '@playwright/test';
import { readFileSync } from 'node:fs';
import { madePdf } from '@stylet/demo/testing';
import { DeskDriver } from './desk';
import { Instance } from './instance';

interface Shared {
  readonly instance: Instance;
  readonly deckPdf: Uint8Array;
  readonly handbookPdf: Uint8Array;
}

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
