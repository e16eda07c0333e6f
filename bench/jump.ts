import type { Page } from '@playwright/test';
import { pairedRatio, type Benchmark } from './benchmark';
import { openBare } from './bare';
import { launch } from './browser';
import { pagesOf, withManual } from './documents';

const RUNS = 15;

/** Pages from far apart, none of them twice. */
const pageOf = (jump: number): number => (jump % 2 === 0 ? 1020 + 4 * jump : 12 + 3 * jump);

/** From the key in the field for the page to that page, sharp, on the desk. */
async function jumpOnDesk(page: Page, number: number, label: string): Promise<number> {
  await page.waitForTimeout(400);
  return page.evaluate(
    ([wanted, words]) =>
      new Promise<number>((resolve) => {
        const field = document.querySelector<HTMLInputElement>('stylet-status-bar input.page')!;
        const start = performance.now();
        field.value = words;
        field.dispatchEvent(new KeyboardEvent('keydown', { key: 'Enter', bubbles: true }));
        const timer = setInterval(() => {
          const view = document.querySelector(`stylet-page-view[data-page="${wanted}"]`);
          const canvas = view?.querySelector<HTMLCanvasElement>('canvas.bitmap[width]');
          const sharp = canvas && Math.abs(canvas.width - view!.clientWidth * devicePixelRatio) < 2;
          if (!sharp) return;
          clearInterval(timer);
          resolve(performance.now() - start);
        }, 2);
      }),
    [number, label] as const,
  );
}

async function jumpBare(page: Page, number: number, width: number): Promise<number> {
  await page.waitForTimeout(400);
  return page.evaluate(
    ([wanted, wide]) =>
      (
        globalThis as unknown as { drawPage(number: number, width: number): Promise<number> }
      ).drawPage(wanted, wide),
    [number, width],
  );
}

export const jump1000: Benchmark = {
  name: 'jump-1000',
  about:
    'a jump over some 1,000 pages of a manual with 9,000 links to a sharp page, against bare pdf.js',
  run: () =>
    withManual(async (instance, id) => {
      const browser = await launch();
      try {
        const context = await browser.newContext({ viewport: { width: 1280, height: 800 } });
        const desk = await context.newPage();
        const bare = await openBare(context, instance, id);
        await desk.goto(`${instance.url}/documents/${id}`);
        await desk.locator('canvas.bitmap[width]').first().waitFor();
        await desk.waitForTimeout(2500);
        const width = await desk.evaluate(
          () => document.querySelector('stylet-page-view')!.clientWidth * devicePixelRatio,
        );
        const pages = await pagesOf(instance, id);
        let ours = 0;
        let theirs = 0;
        const value = await pairedRatio(
          () => {
            const number = pageOf(ours++);
            return jumpOnDesk(desk, number, pages[number - 1].label ?? `${number}`);
          },
          () => jumpBare(bare, pageOf(theirs++), width),
          RUNS,
        );
        return { kind: 'ratio', value, baseline: 'bare pdfjs-dist', goal: 1.2 };
      } finally {
        await browser.close();
      }
    }),
};
