import type { Page } from '@playwright/test';
import { pairedRatio, type Benchmark } from './benchmark';
import { openBare } from './bare';
import { launch } from './browser';
import { pagesOf, withManual } from './documents';

const RUNS = 11;
/** A page of the manual with text and figures, counted from 1. */
const PAGE = 205;

interface Part {
  readonly x: number;
  readonly y: number;
  readonly width: number;
  readonly height: number;
  /** Pixels a point. */
  readonly scale: number;
}

/** From choosing a zoom to the part of the page in view, sharp. */
async function zoomOnDesk(page: Page, percent: number): Promise<{ time: number; part: Part }> {
  await page.getByLabel('Zoom', { exact: true }).click();
  await page.waitForTimeout(400);
  return page.evaluate(
    ([wanted, number]) =>
      new Promise<{ time: number; part: Part }>((resolve) => {
        const items = Array.from(document.querySelectorAll<HTMLElement>('.mat-mdc-menu-item'));
        const item = items.find(({ innerText }) => innerText.trim() === `${wanted} %`)!;
        const selector = `stylet-page-view[data-page="${number}"]`;
        const before = document.querySelector(`${selector} canvas.bitmap`);
        const start = performance.now();
        const watching = new MutationObserver(() => {
          const view = document.querySelector<HTMLElement>(selector);
          const canvas = view?.querySelector<HTMLCanvasElement>('canvas.bitmap[width]');
          if (!view || !canvas || canvas === before) return;
          watching.disconnect();
          const time = performance.now() - start;
          const [width, height] = [canvas.width, canvas.height];
          const scale = (wanted / 100) * (96 / 72) * devicePixelRatio;
          const x = Math.round(canvas.offsetLeft * devicePixelRatio);
          const y = Math.round(canvas.offsetTop * devicePixelRatio);
          resolve({ time, part: { x, y, width, height, scale } });
        });
        watching.observe(document.body, { childList: true, subtree: true });
        item.click();
      }),
    [percent, PAGE] as const,
  );
}

export const zoomSharp: Benchmark = {
  name: 'zoom-sharp',
  about: 'from 100 to 400 % to sharp, against bare pdf.js drawing the same part',
  run: () =>
    withManual(async (instance, id) => {
      const browser = await launch();
      try {
        const context = await browser.newContext({ viewport: { width: 1280, height: 800 } });
        const desk = await context.newPage();
        const bare = await openBare(context, instance, id);
        await desk.goto(`${instance.url}/documents/${id}`);
        await desk.locator('canvas.bitmap[width]').first().waitFor();
        await desk.waitForTimeout(1500);
        const field = desk.getByLabel('Page, by label or number');
        const pages = await pagesOf(instance, id);
        await field.fill(pages[PAGE - 1].label ?? String(PAGE));
        await field.press('Enter');
        await desk.waitForTimeout(1500);
        let part: Part | undefined;
        const value = await pairedRatio(
          async () => {
            await zoomOnDesk(desk, 100);
            await desk.waitForTimeout(700);
            const seen = await zoomOnDesk(desk, 400);
            part = seen.part;
            await desk.waitForTimeout(700);
            return seen.time;
          },
          async () => {
            if (!part) {
              await zoomOnDesk(desk, 100);
              part = (await zoomOnDesk(desk, 400)).part;
            }
            await bare.waitForTimeout(400);
            return bare.evaluate(
              ([number, of]) =>
                (
                  globalThis as unknown as { drawPart(number: number, part: Part): Promise<number> }
                ).drawPart(number, of),
              [PAGE, part] as const,
            );
          },
          RUNS,
        );
        const { width, height } = part!;
        const note = `${width} by ${height} pixels`;
        return { kind: 'ratio', value, baseline: 'bare pdfjs-dist', goal: 1.2, note };
      } finally {
        await browser.close();
      }
    }),
};
