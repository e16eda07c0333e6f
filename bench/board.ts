import type { Benchmark } from './benchmark';
import { launch } from './browser';
import { withManual } from './documents';

const PICTURES = 24;
const TURNS = 40;

export const boardFirst: Benchmark = {
  name: 'board-first',
  about: `the page board of a manual opened and scrolled through: the longest task`,
  run: () =>
    withManual(async (instance, id) => {
      const browser = await launch();
      try {
        const page = await browser.newPage({ viewport: { width: 1280, height: 800 } });
        await page.addInitScript(() => localStorage.setItem('stylet.board', '8'));
        await page.goto(`${instance.url}/documents/${id}`);
        await page.locator('canvas.bitmap[width]').first().waitFor();
        await page.waitForTimeout(2500);
        await page.evaluate(() => {
          const tasks: number[] = [];
          new PerformanceObserver((list) =>
            list.getEntries().forEach(({ duration }) => tasks.push(duration)),
          ).observe({ type: 'longtask' });
          Object.assign(globalThis, { tasks });
        });
        const first = await page.evaluate(
          (count) =>
            new Promise<number>((resolve) => {
              const start = performance.now();
              document.body.dispatchEvent(
                new KeyboardEvent('keydown', { key: 'o', bubbles: true }),
              );
              const timer = setInterval(() => {
                if (document.querySelectorAll('stylet-board-tile.drawn').length < count) return;
                clearInterval(timer);
                resolve(performance.now() - start);
              }, 4);
            }),
          PICTURES,
        );
        await page.mouse.move(500, 400);
        for (let i = 0; i < TURNS; i++) {
          await page.mouse.wheel(0, i % 10 === 9 ? 9000 : 500);
          await page.waitForTimeout(30);
        }
        await page.waitForTimeout(1000);
        const value = await page.evaluate(() =>
          // Tasks of less than 50 ms are not reported (W3C Long Tasks).
          Math.max(0, ...(globalThis as unknown as { tasks: number[] }).tasks),
        );
        const none = value === 0 ? 'no task of 50 ms or more; ' : '';
        const note = `${none}first ${PICTURES} pictures after ${Math.round(first)} ms`;
        return { kind: 'milliseconds', value, goal: 50, note };
      } finally {
        await browser.close();
      }
    }),
};
