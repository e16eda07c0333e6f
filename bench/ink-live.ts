import { pairedRatio, type Benchmark } from './benchmark';
import { bundle, launch } from './browser';

export const inkLive: Benchmark = {
  name: 'ink-live',
  about: 'a stroke at 240 Hz on a page of 5,000, against bare lineTo of the same samples',
  async run() {
    const browser = await launch();
    try {
      const page = await browser.newPage();
      await page.setContent('<!doctype html><body></body>');
      await page.addScriptTag({ content: await bundle('ink-live') });
      const call = (name: string) => () =>
        page.evaluate((f) => (globalThis as unknown as Record<string, () => number>)[f](), name);
      const value = await pairedRatio(call('ours'), call('lines'), 15);
      return { kind: 'ratio', value, baseline: 'bare canvas lineTo', goal: 1.3 };
    } finally {
      await browser.close();
    }
  },
};
