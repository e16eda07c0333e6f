import type { Page } from '@playwright/test';
import { pairedRatio, type Benchmark } from './benchmark';
import { bundle, launch } from './browser';
import { withManual } from './documents';

const WIDTH = 874;

/** From the click on a cover to the first page, sharp, on the desk. */
async function openOnDesk(page: Page, url: string): Promise<number> {
  // Tabs at the back are drawn once a second.
  await page.bringToFront();
  await page.goto(url);
  await page.locator('stylet-document-card a').first().waitFor();
  // Nobody picks a cover in less than a second.
  await page.waitForTimeout(1000);
  return page.evaluate(
    () =>
      new Promise<number>((resolve) => {
        const start = performance.now();
        document.querySelector<HTMLElement>('stylet-document-card a')!.click();
        const timer = setInterval(() => {
          const view = document.querySelector('stylet-page-view[data-page="1"]');
          const canvas = view?.querySelector<HTMLCanvasElement>('canvas.bitmap[width]');
          const sharp = canvas && Math.abs(canvas.width - view!.clientWidth * devicePixelRatio) < 2;
          if (!sharp) return;
          clearInterval(timer);
          resolve(performance.now() - start);
        }, 4);
      }),
  );
}

/** The same with nothing around it, on a page as fresh as the desk's. */
async function openBare(page: Page, url: string, script: string, file: string): Promise<number> {
  await page.bringToFront();
  await page.goto(`${url}/bare`);
  await page.addScriptTag({ content: script });
  await page.waitForTimeout(1000);
  return page.evaluate(
    ([from, width]) =>
      (
        globalThis as unknown as { openAndDraw(u: unknown, w: unknown): Promise<number> }
      ).openAndDraw(from, width),
    [file, WIDTH],
  );
}

export const openFirstPage: Benchmark = {
  name: 'open-first-page',
  about: 'click to first sharp page of a manual of 1,158 pages, against bare pdf.js',
  run: () =>
    withManual(async (instance, id) => {
      const browser = await launch();
      try {
        const context = await browser.newContext({ viewport: { width: 1280, height: 800 } });
        const desk = await context.newPage();
        const bare = await context.newPage();
        await bare.route('**/bare', (route) =>
          route.fulfill({ contentType: 'text/html', body: '<!doctype html><body></body>' }),
        );
        const script = await bundle('bare-pdfjs');
        const file = `${instance.url}/api/documents/${id}/file`;
        const value = await pairedRatio(
          () => openOnDesk(desk, instance.url),
          () => openBare(bare, instance.url, script, file),
          9,
        );
        return { kind: 'ratio', value, baseline: 'bare pdfjs-dist', goal: 1.2 };
      } finally {
        await browser.close();
      }
    }),
};
