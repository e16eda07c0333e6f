import type { CDPSession, Page } from '@playwright/test';
import type { Instance } from '../e2e/support/instance';
import { DeskDriver } from '../e2e/support/desk';
import { median, pairedRatio, type Benchmark } from './benchmark';
import { launch } from './browser';
import { annotateInk, manualPath } from './documents';
import { bringInAll, withPrepared } from './prepared';

const PAGES = 600;
const STROKES = 50_000;
const RUNS = 7;
/** What comes after the first page has come by then, in ms. */
const RESTS = 3000;

/** One document twice: with fifty thousand strokes on its first 600 pages, and with none. */
const withBoth = <T>(
  work: (instance: Instance, ids: { heavy: string; light: string }) => Promise<T>,
): Promise<T> =>
  withPrepared(
    'heavy',
    async (instance) => {
      const [heavy, light] = await bringInAll(instance, [manualPath, manualPath]);
      await annotateInk(instance, heavy, STROKES, PAGES);
      return { heavy, light };
    },
    work,
  );

/** A window in which documents are opened one after the other. */
class Reader {
  readonly heaps = new Map<string, number[]>();
  private constructor(
    private readonly page: Page,
    private readonly session: CDPSession,
    private readonly url: string,
  ) {}

  static async of(page: Page, url: string): Promise<Reader> {
    return new Reader(page, await page.context().newCDPSession(page), url);
  }

  /** From the click on a cover to the first page, sharp, with its ink if it has any; in ms. */
  async open(
    id: string,
    hasInk: boolean,
    before: () => Promise<void> = () => Promise.resolve(),
  ): Promise<number> {
    await this.page.goto(this.url);
    await this.page.locator(`stylet-document-card a[href$="${id}"]`).first().waitFor();
    // Nobody picks a cover in less than a second.
    await this.page.waitForTimeout(1000);
    await before();
    const time = await this.page.evaluate(
      ([document_, ink]) =>
        new Promise<number>((resolve) => {
          const start = performance.now();
          const card = `stylet-document-card a[href$="${document_}"]`;
          document.querySelector<HTMLElement>(card)!.click();
          const timer = setInterval(() => {
            const view = document.querySelector('stylet-page-view[data-page="1"]');
            const canvas = view?.querySelector<HTMLCanvasElement>('canvas.bitmap[width]');
            if (!canvas || Math.abs(canvas.width - view!.clientWidth * devicePixelRatio) >= 2)
              return;
            const over = view!.querySelector<HTMLCanvasElement>('canvas.own:not(.under, .paper)')!;
            if (ink && over.width < 400) return;
            clearInterval(timer);
            resolve(performance.now() - start);
          }, 4);
        }),
      [id, hasInk] as const,
    );
    await this.page.waitForTimeout(RESTS);
    await this.session.send('HeapProfiler.collectGarbage');
    const { usedSize } = await this.session.send('Runtime.getHeapUsage');
    this.heaps.set(id, [...(this.heaps.get(id) ?? []), usedSize]);
    return time;
  }

  /** Waits until documents are kept in this browser. */
  async kept(ids: readonly string[]): Promise<void> {
    for (const id of ids) {
      await this.page.goto(`${this.url}/documents/${id}`);
      await new DeskDriver(this.page).keptHere();
    }
    this.heaps.clear();
  }

  /** Forgets what this browser has kept of documents. */
  async forget(): Promise<void> {
    await this.page.goto('about:blank');
    const all = { origin: this.url, storageTypes: 'indexeddb' };
    await this.session.send('Storage.clearDataForOrigin', all);
  }

  /** What the heap holds with one document as a multiple of that with another. */
  heapRatio(one: string, other: string): string {
    const [a, b] = [one, other].map((id) => median(this.heaps.get(id)!) / 1e6);
    return `heap ${a.toFixed(0)} MB of ${b.toFixed(0)} MB: ${(a / b).toFixed(2)} x`;
  }
}

/** Runs something with a window for both documents. */
const withReader = <T>(
  work: (reader: Reader, instance: Instance, ids: { heavy: string; light: string }) => Promise<T>,
): Promise<T> =>
  withBoth(async (instance, ids) => {
    const browser = await launch();
    try {
      const context = await browser.newContext({ viewport: { width: 1280, height: 800 } });
      return await work(await Reader.of(await context.newPage(), instance.url), instance, ids);
    } finally {
      await browser.close();
    }
  });

export const openFirstHeavy: Benchmark = {
  name: 'open-first-heavy',
  about: 'click to first sharp page with ink, 50,000 strokes never seen, against none',
  run: () =>
    withReader(async (reader, _instance, { heavy, light }) => {
      const opened = async (id: string, hasInk: boolean): Promise<number> => {
        await reader.forget();
        return reader.open(id, hasInk);
      };
      const value = await pairedRatio(
        () => opened(heavy, true),
        () => opened(light, false),
        RUNS,
      );
      const note = reader.heapRatio(heavy, light);
      return { kind: 'ratio', value, baseline: 'the same without ink', goal: 1.2, note };
    }),
};

export const openAgain: Benchmark = {
  name: 'open-again',
  about: 'the same kept in the browser, with the server and without it',
  run: () =>
    withReader(async (reader, instance, { heavy, light }) => {
      await reader.kept([heavy, light]);
      const value = await pairedRatio(
        () => reader.open(heavy, true),
        () => reader.open(light, false),
        RUNS,
      );
      const heaps = reader.heapRatio(heavy, light);
      const alone = async (id: string, hasInk: boolean): Promise<number> => {
        const time = await reader.open(id, hasInk, () => instance.kill());
        await instance.start();
        return time;
      };
      const away = await pairedRatio(
        () => alone(heavy, true),
        () => alone(light, false),
        RUNS,
      );
      const note = `without the server ${away.toFixed(2)} x (goal <= 1.1); ${heaps} (goal <= 1.5)`;
      return { kind: 'ratio', value, baseline: 'the same without ink', goal: 1.1, note };
    }),
};
