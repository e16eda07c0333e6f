import { pairedRatio, type Benchmark } from './benchmark';
import { bundle, launch } from './browser';

export const redrawZoom: Benchmark = {
  name: 'redraw-zoom',
  about: 'a page of 5,000 strokes drawn again after a zoom, against a naive Path2D a stroke',
  async run() {
    const browser = await launch();
    try {
      const page = await browser.newPage();
      await page.setContent('<!doctype html><body></body>');
      await page.addScriptTag({ content: await bundle('redraw-zoom') });
      const call = (name: string) => () =>
        page.evaluate((f) => (globalThis as unknown as Record<string, () => number>)[f](), name);
      const fit = await pairedRatio(call('oursFit'), call('naiveFit'), 9);
      const close = await pairedRatio(call('oursClose'), call('naiveClose'), 9);
      return {
        kind: 'ratio',
        // The worse of showing the whole page and a part of it.
        value: Math.max(fit, close),
        baseline: 'a Path2D a stroke',
        goal: 0.5,
        note: `${fit.toFixed(2)} for the whole page, ${close.toFixed(2)} for a third of it`,
      };
    } finally {
      await browser.close();
    }
  },
};
