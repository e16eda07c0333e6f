import { DeskDriver } from './desk';
import { test as base } from './fixtures';

/** Tests in a browser of their own that keeps the program. */
export const test = base.extend<{ fresh: DeskDriver }>({
  fresh: async ({ browser }, use) => {
    const context = await browser.newContext({ viewport: { width: 1280, height: 800 } });
    await use(new DeskDriver(await context.newPage()));
    await context.close();
  },
});
