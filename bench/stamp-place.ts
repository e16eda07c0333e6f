import type { Page } from '@playwright/test';
import { newId, type Ink } from '@stylet/core/document';
import { samplesOf, samplesToBase64 } from '@stylet/core/ink';
import type { Benchmark } from './benchmark';
import { launch } from './browser';
import { withManual } from './documents';

const STROKES = 500;
const PLACED = 50;
/** Ms between two taps: as fast as a hand goes. */
const BETWEEN = 150;

/** Strokes of a hatched drawing, 160 by 160 points. */
function drawing(): Ink[] {
  const now = new Date().toISOString();
  const pageId = newId();
  return Array.from({ length: STROKES }, (_, i): Ink => {
    const [x, y] = [6 * (i % 25), 8 * Math.floor(i / 25)];
    const points = Array.from({ length: 12 }, (_, k) => ({
      x: x + 0.6 * k,
      y: y + 3 * Math.sin(k + i),
      pressure: 0.3 + 0.04 * k,
      tiltX: 0,
      tiltY: 0,
      time: 8 * k,
    }));
    return {
      kind: 'ink',
      id: newId(),
      pageId,
      order: 'a0',
      opacity: 1,
      author: 'Bench',
      created: now,
      modified: now,
      color: '#22304a',
      instrument: 'nib',
      width: 1.2,
      smoothing: 0.3,
      samples: samplesToBase64(samplesOf(points)),
    };
  });
}

async function asked(url: string, method: string, body: unknown): Promise<Response> {
  const headers = { 'content-type': 'application/json' };
  const reply = await fetch(url, { method, headers, body: JSON.stringify(body) });
  if (!reply.ok) throw new Error(`${url}: ${reply.status} ${await reply.text()}`);
  return reply;
}

async function keepStamp(url: string): Promise<void> {
  const reply = await asked(`${url}/api/drawings`, 'POST', { annotations: drawing() });
  const facts = (await reply.json()) as { width: number; height: number };
  const sheet = { id: newId(), name: 'Bench', order: 'Zz', removed: false };
  const stamp = {
    ...facts,
    id: newId(),
    sheet: sheet.id,
    name: 'Hatched',
    order: 'a0',
    size: { width: facts.width / 2, height: facts.height / 2 },
    favourite: false,
    removed: false,
  };
  await asked(`${url}/api/stamps`, 'PUT', { sheets: [sheet], stamps: [stamp] });
}

/** The longest tasks of the main thread from now on, in ms. */
const watch = (page: Page): Promise<void> =>
  page.evaluate(() => {
    const tasks: number[] = [];
    Object.assign(globalThis, { tasks });
    new PerformanceObserver((list) => {
      for (const { duration } of list.getEntries()) tasks.push(duration);
    }).observe({ entryTypes: ['longtask'] });
  });

export const stampPlace: Benchmark = {
  name: 'stamp-place',
  about: `a stamp of ${STROKES} strokes laid on a page ${PLACED} times: the longest task of the main thread`,
  run: () =>
    withManual(async (instance, id) => {
      await keepStamp(instance.url);
      const browser = await launch();
      try {
        const page = await browser.newPage({ viewport: { width: 1280, height: 800 } });
        await page.goto(`${instance.url}/documents/${id}`);
        await page.locator('canvas.bitmap[width]').first().waitFor();
        await page.getByLabel('Stamp, key K').click();
        await page.getByRole('tab', { name: 'Bench' }).click();
        await page.getByRole('button', { name: 'Hatched', exact: true }).click();
        await page.waitForTimeout(1500);
        const box = (await page.locator('stylet-page-view').first().boundingBox())!;
        await watch(page);
        for (let i = 0; i < PLACED; i++) {
          const [column, row] = [i % 8, Math.floor(i / 8)];
          await page.mouse.click(
            box.x + box.width * (0.12 + 0.1 * column),
            Math.max(60, box.y) + 60 + 90 * row,
          );
          await page.waitForTimeout(BETWEEN);
        }
        await page.waitForTimeout(1000);
        const tasks = await page.evaluate(
          () => (globalThis as unknown as { tasks: number[] }).tasks,
        );
        const kept = (await (
          await fetch(`${instance.url}/api/documents/${id}/annotations`)
        ).json()) as { annotations: { isStamp?: boolean }[] };
        const laid = kept.annotations.filter(({ isStamp }) => isStamp).length;
        if (laid !== PLACED) throw new Error(`${laid} stamps are there, and not ${PLACED}`);
        // What the browser does not report took less than 50 ms (W3C Long Tasks, 1).
        const value = Math.max(0, ...tasks);
        const note = `${tasks.length} tasks of 50 ms and more in ${PLACED} taps`;
        return { kind: 'milliseconds', value, goal: 50, note };
      } finally {
        await browser.close();
      }
    }),
};
