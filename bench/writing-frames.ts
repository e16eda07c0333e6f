import type { CDPSession, Page } from '@playwright/test';
import { replay } from '@stylet/demo/stylus';
import type { Benchmark } from './benchmark';
import { launch } from './browser';
import { fillPage, withManual } from './documents';
import { handwriting } from './handwriting';

const STROKES = 5000;
/** A minute of writing all in all, half of it on each page, in turns. */
const TURNS = 4;
const TURN = 7500;
const FRAME = 16.7;

/** Frames of a page while it is written on: how many took too long, and the longest task. */
async function frames(page: Page, session: CDPSession, seed: number): Promise<[number, number]> {
  await page.evaluate(() => {
    const watch = {
      last: performance.now(),
      lengths: [] as number[],
      longest: 0,
      on: true,
      step(now: number): void {
        watch.lengths.push(now - watch.last);
        watch.last = now;
        if (watch.on) requestAnimationFrame(watch.step);
      },
    };
    Object.assign(globalThis, { watch });
    requestAnimationFrame(watch.step);
    new PerformanceObserver((list) => {
      for (const { duration } of list.getEntries())
        watch.longest = Math.max(watch.longest, duration);
    }).observe({ entryTypes: ['longtask'] });
  });
  await replay(session as never, handwriting(seed, TURN), { realTime: true });
  return page.evaluate((limit) => {
    const { watch } = globalThis as unknown as {
      watch: { lengths: number[]; longest: number; on: boolean };
    };
    watch.on = false;
    const late = watch.lengths.filter((length) => length > limit + 1).length;
    return [late / watch.lengths.length, watch.longest] as [number, number];
  }, FRAME);
}

export const writingFrames: Benchmark = {
  name: 'writing-frames',
  about: 'a minute of writing on a page of 5,000 strokes: late frames more than on an empty page',
  run: () =>
    withManual(async (instance, id) => {
      await fillPage(instance, id, 0, STROKES);
      const browser = await launch();
      try {
        const late = { full: 0, empty: 0 };
        let longest = 0;
        for (let turn = 0; turn < TURNS; turn++) {
          for (const where of ['full', 'empty'] as const) {
            const page = await browser.newPage({ viewport: { width: 1280, height: 800 } });
            await page.goto(`${instance.url}/documents/${id}`);
            await page.locator('canvas.bitmap[width]').first().waitFor();
            if (where === 'empty') {
              const field = page.getByLabel('Page, by label or number');
              await field.fill('40');
              await field.press('Enter');
            }
            await page.waitForTimeout(2500);
            const session = await page.context().newCDPSession(page);
            const [share, task] = await frames(page, session, turn + 1);
            late[where] += share / TURNS;
            if (where === 'full') longest = Math.max(longest, task);
            await page.close();
          }
        }
        const percent = (share: number): string => `${(100 * share).toFixed(1)} %`;
        return {
          kind: 'points',
          value: 100 * (late.full - late.empty),
          goal: 1,
          note: `${percent(late.full)} late on the full page, ${percent(late.empty)} on the empty one; longest task ${longest === 0 ? 'under 50' : Math.round(longest)} ms`,
        };
      } finally {
        await browser.close();
      }
    }),
};
