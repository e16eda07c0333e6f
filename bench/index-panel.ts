import { newId, type Effect, type OutlineEntry } from '@stylet/core/document';
import { generateNKeysBetween } from 'fractional-indexing';
import type { Page } from '@playwright/test';
import type { Benchmark, Result } from './benchmark';
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
