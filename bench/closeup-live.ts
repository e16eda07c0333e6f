import { pairedRatio, type Benchmark } from './benchmark';
import { bundle, launch } from './browser';

export const closeupLive: Benchmark = {
  name: 'closeup-live',
  about:
    'a stroke at 240 Hz painted in the close-up and on the page, against in the close-up alone',
  async run() {
    const browser = await launch();
    try {
      const page = await browser.newPage();
      await page.setContent('<!doctype html><body></body>');
      await page.addScriptTag({ content: await bundle('closeup-live') });
      const call = (name: string) => () =>
        page.evaluate((f) => (globalThis as unknown as Record<string, () => number>)[f](), name);
      const value = await pairedRatio(call('both'), call('one'), 15);
      return { kind: 'ratio', value, baseline: 'one view', goal: 1.5 };
    } finally {
      await browser.close();
    }
  },
};
