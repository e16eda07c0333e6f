import type { Benchmark } from './benchmark';
import { launch } from './browser';
import { withManual } from './documents';

const PAGES = 300;
/** Pages a second, as a flick of a finger moves them. */
const RATE = 40;

export const flingFrames: Benchmark = {
  name: 'fling-frames',
  about: `share of frames over 16.7 ms while flinging through ${PAGES} pages`,
  run: () =>
    withManual(async (instance, id) => {
      const browser = await launch();
      try {
        const page = await browser.newPage({ viewport: { width: 1280, height: 800 } });
        await page.goto(`${instance.url}/documents/${id}`);
        await page.locator('canvas.bitmap[width]').first().waitFor();
        await page.waitForTimeout(2500);
        const frames = await page.evaluate(
          async ([pages, rate]) => {
            const scroller = document.querySelector('.scroller')!;
            const one = document.querySelector('stylet-page-view')!.clientHeight + 20;
            const lengths: number[] = [];
            const start = performance.now();
            let last = start;
            for (;;) {
              const now = await new Promise<number>(requestAnimationFrame);
              lengths.push(now - last);
              last = now;
              const at = ((now - start) / 1000) * rate;
              scroller.scrollTop = Math.min(at, pages) * one;
              if (at >= pages) return lengths.slice(1);
            }
          },
          [PAGES, RATE] as const,
        );
        // Frames come with the screen: one that took longer has missed a whole one.
        const late = frames.filter((length) => length > 17).length;
        return {
          kind: 'points',
          value: (100 * late) / frames.length,
          goal: 2,
          note: `${late} of ${frames.length}, the longest ${Math.round(Math.max(...frames))} ms`,
        };
      } finally {
        await browser.close();
      }
    }),
};
