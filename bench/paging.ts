import { readFileSync } from 'node:fs';
import type { Browser, Page } from '@playwright/test';
import { type Benchmark } from './benchmark';
import { launch } from './browser';
import { withManual } from './documents';

/** Opens the manual on the desk. */
async function withDesk<T>(work: (page: Page, browser: Browser) => Promise<T>): Promise<T> {
  return withManual(async (instance, id) => {
    const browser = await launch(['--js-flags=--expose-gc']);
    try {
      const page = await browser.newPage({ viewport: { width: 1280, height: 800 } });
      await page.goto(`${instance.url}/documents/${id}`);
      await page.locator('canvas.bitmap[width]').first().waitFor();
      await page.waitForTimeout(1500);
      return await work(page, browser);
    } finally {
      await browser.close();
    }
  });
}

/** Scrolls from one page to another at about seven pages a second. */
async function pageThrough(page: Page, from: number, to: number): Promise<void> {
  await page.evaluate(
    async ([first, last]) => {
      const scroller = document.querySelector('.scroller')!;
      const one = document.querySelector('stylet-page-view')!.clientHeight + 20;
      const start = performance.now();
      const rate = 7;
      for (;;) {
        const at = first + ((performance.now() - start) / 1000) * rate;
        scroller.scrollTop = Math.min(at, last) * one;
        if (at >= last) return;
        await new Promise(requestAnimationFrame);
      }
    },
    [from, to],
  );
}

interface TraceEvent {
  readonly name: string;
  readonly pid: number;
  readonly tid: number;
  readonly dur?: number;
  /** Time on a processor, without waiting for one. */
  readonly tdur?: number;
  readonly args?: { readonly name?: string };
}

const longestTask: Benchmark = {
  name: 'paging-longest-task',
  about: 'longest main-thread task, by processor time, while paging through 300 pages',
  run: () =>
    withDesk(async (page, browser) => {
      await browser.startTracing(page, { categories: ['toplevel', '__metadata'] });
      await pageThrough(page, 0, 300);
      const trace = JSON.parse((await browser.stopTracing()).toString('utf8')) as {
        traceEvents: TraceEvent[];
      };
      const mains = new Set(
        trace.traceEvents
          .filter((e) => e.name === 'thread_name' && e.args?.name === 'CrRendererMain')
          .map((e) => `${e.pid} ${e.tid}`),
      );
      const tasks = trace.traceEvents.filter(
        (e) => e.name.endsWith('RunTask') && mains.has(`${e.pid} ${e.tid}`),
      );
      if (tasks.length < 1000) throw new Error(`only ${tasks.length} tasks were traced`);
      const most = (time: 'dur' | 'tdur'): number =>
        tasks.reduce((longest, task) => Math.max(longest, task[time] ?? 0), 0) / 1000;
      return {
        kind: 'milliseconds',
        value: most('tdur'),
        goal: 50,
        note: `${Math.round(most('dur'))} ms with its waiting for one of the processors`,
      };
    }),
};

const memory: Benchmark = {
  name: 'paging-memory',
  about: 'renderer memory, garbage collected, after page 300, against after page 50',
  run: () =>
    withDesk(async (page, browser) => {
      const session = await browser.newBrowserCDPSession();
      const tab = await page.context().newCDPSession(page);
      const resident = async (): Promise<number> => {
        await page.waitForTimeout(2500);
        await tab.send('HeapProfiler.collectGarbage');
        // Garbage that waits to be collected is no use of memory; workers have heaps of their own.
        for (const worker of page.workers())
          await worker.evaluate(() => (globalThis as unknown as { gc(): void }).gc());
        await page.waitForTimeout(500);
        const { processInfo } = await session.send('SystemInfo.getProcessInfo');
        const sizes = processInfo
          .filter(({ type }) => type === 'renderer')
          .map(({ id }) =>
            Number(/VmRSS:\s+(\d+)/.exec(readFileSync(`/proc/${id}/status`, 'utf8'))![1]),
          );
        return Math.max(...sizes);
      };
      await pageThrough(page, 0, 50);
      const after50 = await resident();
      await pageThrough(page, 50, 300);
      const after300 = await resident();
      return {
        kind: 'ratio',
        value: after300 / after50,
        baseline: 'memory after page 50',
        goal: 1.1,
        note: `${Math.round(after50 / 1024)} MB, then ${Math.round(after300 / 1024)} MB`,
      };
    }),
};

export const pagingBenchmarks = [longestTask, memory];
