import { randomBytes } from 'node:crypto';
import type { Page } from '@playwright/test';
import sharp from 'sharp';
import { pairedRatio, type Benchmark } from './benchmark';
import { launch } from './browser';
import { withManual } from './documents';

const [WIDTH, HEIGHT] = [4000, 3000];
const RUNS = 9;

/** A photograph as far as a decoder can tell: soft forms with grain on them. */
async function photograph(): Promise<Buffer> {
  const soft = { width: 40, height: 30, channels: 3 } as const;
  const grain = { width: WIDTH / 2, height: HEIGHT / 2, channels: 3 } as const;
  const noise = await sharp(randomBytes(grain.width * grain.height * 3), { raw: grain })
    .linear(0.12, 0)
    .resize(WIDTH, HEIGHT)
    .png({ compressionLevel: 1 })
    .toBuffer();
  return sharp(randomBytes(soft.width * soft.height * 3), { raw: soft })
    .resize(WIDTH, HEIGHT, { kernel: 'cubic' })
    .composite([{ input: noise, blend: 'add' }])
    .jpeg({ quality: 88 })
    .toBuffer();
}

/** From dropping the file on the page to its pixels there. */
function drop(page: Page): Promise<number> {
  return page.evaluate(async () => {
    const { photo } = globalThis as unknown as { photo: File };
    const view = document.querySelector('stylet-page-view')!;
    const paper = view.querySelector<HTMLCanvasElement>('canvas.own')!;
    const rect = view.getBoundingClientRect();
    const [clientX, clientY] = [rect.left + rect.width / 2, rect.top + 300];
    const dataTransfer = new DataTransfer();
    dataTransfer.items.add(photo);
    const start = performance.now();
    view.dispatchEvent(new DragEvent('drop', { dataTransfer, clientX, clientY, bubbles: true }));
    for (;;) {
      await new Promise((done) => setTimeout(done));
      if (paper.width === 0) continue;
      const { left, top } = paper.getBoundingClientRect();
      const pixel = paper.getContext('2d')!.getImageData(clientX - left, clientY - top, 1, 1);
      if (pixel.data[3] === 255) return performance.now() - start;
    }
  });
}

/** The same pixels on a canvas of the same size, with nothing around it. */
function bare(page: Page): Promise<number> {
  return page.evaluate(async () => {
    const { photo } = globalThis as unknown as { photo: File };
    const canvas = document.createElement('canvas');
    canvas.width = 874;
    canvas.height = 1130;
    const context = canvas.getContext('2d')!;
    context.imageSmoothingQuality = 'high';
    const start = performance.now();
    const bitmap = await createImageBitmap(photo);
    context.drawImage(bitmap, 175, 107, 524, 393);
    context.getImageData(437, 300, 1, 1);
    const elapsed = performance.now() - start;
    bitmap.close();
    return elapsed;
  });
}

export const picturePlace: Benchmark = {
  name: 'picture-place',
  about:
    'a JPEG of 12 megapixels dropped on a page, to visible, against createImageBitmap and draw',
  run: () =>
    withManual(async (instance, id) => {
      const browser = await launch();
      try {
        const page = await browser.newPage({ viewport: { width: 1280, height: 800 } });
        await page.goto(`${instance.url}/documents/${id}`);
        await page.locator('canvas.bitmap[width]').first().waitFor();
        await page.waitForTimeout(1500);
        const bytes = await photograph();
        await page.evaluate((base64) => {
          const data = Uint8Array.from(atob(base64), (c) => c.charCodeAt(0));
          const photo = new File([data], 'photo.jpg', { type: 'image/jpeg' });
          Object.assign(globalThis, { photo });
        }, bytes.toString('base64'));
        const onDesk = async (): Promise<number> => {
          const elapsed = await drop(page);
          await page.keyboard.press('Control+z');
          // The picture is sent, and taken back, before the next one.
          await page.waitForTimeout(2500);
          return elapsed;
        };
        const value = await pairedRatio(onDesk, () => bare(page), RUNS);
        const note = `${(bytes.length / 1e6).toFixed(1)} MB`;
        return { kind: 'ratio', value, baseline: 'createImageBitmap and draw', goal: 1.3, note };
      } finally {
        await browser.close();
      }
    }),
};
