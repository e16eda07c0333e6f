import type { Page } from '@playwright/test';
import { newId, type TextBox } from '@stylet/core/document';
import { usualLook } from '@stylet/core/typed';
import { share, type Benchmark } from './benchmark';
import { launch } from './browser';
import { fillPage, pagesOf, send, withManual } from './documents';

const WORDS = 2000;
const STROKES = 5000;
/** Turns of each, letters in a turn, and ms between them. */
const TURNS = 3;
const LETTERS = 80;
const BETWEEN = 90;

/** Of a hundred words each, as people write them. */
const paragraphs = Array.from({ length: WORDS / 100 }, (_, i) =>
  Array.from(
    { length: 10 },
    (_, j) => `The gauge stands ${10 * i + j} cm over what the table says.`,
  ).join(' '),
);

/** The same words in the same width, as the browser edits them by itself. */
const BARE = `<!doctype html><body style="margin:0"><div contenteditable="true" spellcheck="false"
  style="font:7px serif;width:500px;height:700px;outline:none">${paragraphs.map((words) => `<p style="margin:0">${words}</p>`).join('')}</div></body>`;

function boxOn(pageId: string): TextBox {
  const now = new Date().toISOString();
  const { color, ...look } = usualLook;
  return {
    kind: 'textBox',
    id: newId(),
    pageId,
    order: 'z1',
    author: 'Bench',
    created: now,
    modified: now,
    opacity: 1,
    color,
    look: { ...look, size: 7 },
    paragraphs: paragraphs.map((text) => ({ runs: [{ text }] })),
    frame: { padding: 4 },
    size: { width: 500, height: 700 },
    keepsWidth: true,
    transform: [1, 0, 0, 1, 40, 40],
  };
}

/** Ms from each key that is pressed to the frame after which it is painted. */
async function typed(page: Page): Promise<number[]> {
  await page.evaluate(() => {
    const times: number[] = ((window as never as { times: number[] }).times = []);
    const { port1, port2 } = new MessageChannel();
    const waiting: number[] = [];
    // What is posted within a frame comes when that has been painted.
    port1.onmessage = () => times.push(performance.now() - waiting.shift()!);
    addEventListener(
      'keydown',
      ({ timeStamp }) =>
        requestAnimationFrame(() => {
          waiting.push(timeStamp);
          port2.postMessage(0);
        }),
      { capture: true },
    );
  });
  for (let i = 0; i < LETTERS; i++) {
    await page.keyboard.press(i % 6 === 5 ? 'Space' : 'a');
    await page.waitForTimeout(BETWEEN);
  }
  return page.evaluate(() => (window as never as { times: number[] }).times);
}

export const typeLatency: Benchmark = {
  name: 'type-latency',
  about: `key to painted in a box of ${WORDS} words on a page with ${STROKES} strokes, half of them, against a bare contenteditable of the same text`,
  run: () =>
    withManual(async (instance, id) => {
      const [{ id: pageId }] = await pagesOf(instance, id);
      await fillPage(instance, id, 0, STROKES);
      await send(instance, id, [{ type: 'annotation.add', annotation: boxOn(pageId) }]);
      const browser = await launch();
      try {
        const all = { ours: [] as number[], bare: [] as number[] };
        for (let turn = 0; turn < TURNS; turn++)
          for (const which of ['ours', 'bare'] as const) {
            const page = await browser.newPage({ viewport: { width: 1280, height: 800 } });
            if (which === 'bare') {
              await page.setContent(BARE);
              await page.locator('div').click({ position: { x: 40, y: 30 } });
            } else {
              await page.goto(`${instance.url}/documents/${id}`);
              await page.locator('canvas.bitmap[width]').first().waitFor();
              await page.getByLabel('Text, key T').click();
              const sheet = (await page.locator('stylet-page-view').first().boundingBox())!;
              const scale = sheet.width / 595;
              await page.mouse.click(sheet.x + 140 * scale, sheet.y + 90 * scale);
              await page.getByRole('textbox', { name: 'Typed text' }).waitFor();
              await page.waitForTimeout(2500);
              await page.mouse.click(sheet.x + 140 * scale, sheet.y + 90 * scale);
            }
            await page.waitForTimeout(1000);
            all[which].push(...(await typed(page)));
            await page.close();
          }
        const told = (times: readonly number[]): string =>
          `p50 ${share(times, 0.5).toFixed(1)} p90 ${share(times, 0.9).toFixed(1)} ms`;
        return {
          kind: 'ratio',
          value: share(all.ours, 0.5) / share(all.bare, 0.5),
          baseline: 'a bare contenteditable',
          goal: 1.5,
          note: `ours ${told(all.ours)}, bare ${told(all.bare)} of ${all.ours.length} and ${all.bare.length} keys`,
        };
      } finally {
        await browser.close();
      }
    }),
};
