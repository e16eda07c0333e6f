import { newId, type Effect, type OutlineEntry } from '@stylet/core/document';
import { generateNKeysBetween } from 'fractional-indexing';
import type { Page } from '@playwright/test';
import { median, type Benchmark, type Result } from './benchmark';
import { launch } from './browser';
import { pagesOf, send, withManual } from './documents';
import type { Instance } from '../e2e/support/instance';

const TURNS = 60;

/** An outline of so many entries in chapters of ten, in place of the manual's own. */
async function outline(instance: Instance, id: string, count: number): Promise<void> {
  const pages = await pagesOf(instance, id);
  const reply = await fetch(`${instance.url}/api/documents/${id}`);
  const { landmarks } = (await reply.json()) as { landmarks: { id: string }[] };
  const gone = landmarks.map(({ id: landmarkId }): Effect => ({
    type: 'landmark.remove',
    landmarkId,
  }));
  const orders = generateNKeysBetween(null, null, count);
  let chapter = '';
  const added = Array.from({ length: count }, (_, i): Effect => {
    const isChapter = i % 10 === 0;
    const landmark: OutlineEntry = {
      kind: 'outline',
      id: newId(),
      ...(isChapter ? {} : { parentId: chapter }),
      order: orders[i],
      title: isChapter ? `Chapter ${i / 10 + 1}` : `Section ${i}: what was seen there`,
      place: { pageId: pages[Math.floor((i * pages.length) / count)].id, y: 72 },
      open: true,
    };
    if (isChapter) chapter = landmark.id;
    return { type: 'landmark.add', landmark };
  });
  await send(instance, id, [...gone, ...added]);
}

async function withOutline(count: number, work: (page: Page) => Promise<Result>): Promise<Result> {
  return withManual(async (instance, id) => {
    await outline(instance, id, count);
    const browser = await launch();
    try {
      const page = await browser.newPage({ viewport: { width: 1280, height: 800 } });
      await page.goto(`${instance.url}/documents/${id}`);
      await page.locator('canvas.bitmap[width]').first().waitFor();
      await page.locator('stylet-index-panel .row').first().waitFor();
      await page.waitForTimeout(2500);
      return await work(page);
    } finally {
      await browser.close();
    }
  });
}

export const indexScroll: Benchmark = {
  name: 'index-scroll',
  about: 'an Index of 10,000 entries scrolled from end to end: the longest task',
  run: () =>
    withOutline(10_000, async (page) => {
      await page.evaluate(() => {
        const tasks: number[] = [];
        new PerformanceObserver((list) =>
          list.getEntries().forEach(({ duration }) => tasks.push(duration)),
        ).observe({ type: 'longtask' });
        Object.assign(globalThis, { tasks });
      });
      const box = (await page.locator('cdk-virtual-scroll-viewport').boundingBox())!;
      await page.mouse.move(box.x + 100, box.y + 200);
      for (let i = 0; i < TURNS; i++) {
        await page.mouse.wheel(0, i % 10 === 9 ? 60_000 : 900);
        await page.waitForTimeout(16);
      }
      await page.waitForTimeout(300);
      const value = await page.evaluate(() =>
        // Tasks of less than 50 ms are not reported (W3C Long Tasks).
        Math.max(0, ...(globalThis as unknown as { tasks: number[] }).tasks),
      );
      const note = value === 0 ? 'none of 50 ms or more' : undefined;
      return { kind: 'milliseconds', value, goal: 50, ...(note ? { note } : {}) };
    }),
};

/** Drags an entry up to behind another one; milliseconds from letting go to the list as it then is. */
async function dragUp(page: Page, moved: string, behind: string): Promise<number> {
  const row = (title: string) =>
    page.locator('stylet-index-panel .row').filter({ hasText: `${title}:` });
  await row(moved).hover();
  const grip = (await row(moved).locator('.grip').boundingBox())!;
  const to = (await row(behind).boundingBox())!;
  await page.mouse.move(grip.x + 8, grip.y + grip.height / 2);
  await page.mouse.down();
  await page.mouse.move(to.x + 80, to.y + to.height + 8, { steps: 8 });
  await page.mouse.move(to.x + 80, to.y + to.height - 2, { steps: 4 });
  await page.evaluate(
    ([one, other]) => {
      const settled = new Promise<number>((resolve) => {
        addEventListener(
          'pointerup',
          () => {
            const start = performance.now();
            const timer = setInterval(() => {
              const rows = document.querySelectorAll('stylet-index-panel .row .words');
              const titles = Array.from(rows, ({ textContent }) => textContent.trim());
              const at = titles.findIndex((title) => title.startsWith(`${other}:`));
              if (at < 0 || !titles[at + 1]?.startsWith(`${one}:`)) return;
              clearInterval(timer);
              // Settled is what has been painted.
              requestAnimationFrame(() => setTimeout(() => resolve(performance.now() - start)));
            }, 1);
          },
          { capture: true, once: true },
        );
      });
      Object.assign(globalThis, { settled });
    },
    [moved, behind],
  );
  await page.mouse.up();
  return page.evaluate(() => (globalThis as unknown as { settled: Promise<number> }).settled);
}

export const outlineDrag: Benchmark = {
  name: 'outline-drag',
  about: 'an outline of 5,000 entries, one dragged: from letting go to the list as it then is',
  run: () =>
    withOutline(5000, async (page) => {
      page.setDefaultTimeout(20_000);
      const times: number[] = [];
      for (let i = 0; i < 5; i++) {
        times.push(await dragUp(page, `Section ${7 - i}`, 'Section 1'));
        await page.waitForTimeout(600);
      }
      return { kind: 'milliseconds', value: median(times), goal: 100 };
    }),
};
