import { calmHand, pathsOfText, replay, write } from '@stylet/demo/stylus';
import type { Sample } from '@stylet/core/ink';
import type { Page } from '@playwright/test';
import type { Benchmark } from './benchmark';
import { launch } from './browser';
import { withManual } from './documents';

/** Turns of each, and how long one lasts, in ms of writing. */
const TURNS = 3;
const TURN = 6000;

function writing(seed: number): Sample[][] {
  const lines = [0, 1, 2, 3].flatMap((line) =>
    pathsOfText('tide turns at ten past four', {
      x: 200,
      y: 220 + 90 * line,
      size: 46,
      typeface: 'EMSFelix',
    }),
  );
  const strokes = write(lines, { ...calmHand, seed, speed: 420, rate: 240 });
  return strokes.filter((stroke) => stroke[stroke.length - 1].time < TURN);
}

/** A canvas over the window that draws lines after the pen, with what the platform has for low latency. */
const BARE = `<!doctype html><body style="margin:0"><canvas width="1280" height="800"></canvas><script>
  const canvas = document.querySelector('canvas');
  const context = canvas.getContext('2d', { desynchronized: true });
  context.lineWidth = 2;
  let last;
  canvas.addEventListener('pointerdown', (e) => { last = e; canvas.setPointerCapture(e.pointerId); });
  canvas.addEventListener('pointermove', (e) => {
    if (!last) return;
    context.beginPath();
    context.moveTo(last.clientX, last.clientY);
    for (const one of e.getCoalescedEvents()) context.lineTo(one.clientX, one.clientY);
    context.stroke();
    last = e;
  });
  canvas.addEventListener('pointerup', () => (last = undefined));
</script></body>`;

/** Ms from pen events to the frame that shows them: its picture is done when a task runs after it. */
async function latencies(page: Page, seed: number): Promise<number[]> {
  await page.evaluate(() => {
    const seen: number[] = [];
    Object.assign(globalThis, { seen });
    let waiting: number[] = [];
    addEventListener(
      'pointermove',
      ({ buttons, timeStamp }) => {
        if (buttons === 0) return;
        if (waiting.length === 0)
          requestAnimationFrame(() => {
            const events = waiting;
            waiting = [];
            const { port1, port2 } = new MessageChannel();
            port1.onmessage = () => {
              const now = performance.now();
              for (const at of events) seen.push(now - at);
            };
            port2.postMessage(0);
          });
        waiting.push(timeStamp);
      },
      { capture: true },
    );
  });
  const session = await page.context().newCDPSession(page);
  await replay(session as never, writing(seed), { realTime: true });
  return page.evaluate(() => (globalThis as unknown as { seen: number[] }).seen);
}

const share = (times: readonly number[], part: number): number =>
  [...times].sort((a, b) => a - b)[Math.min(times.length - 1, Math.floor(times.length * part))];

export const inkLatency: Benchmark = {
  name: 'ink-latency',
  about:
    'from a pen event to the frame that shows it, half of them, against a bare desynchronized canvas',
  run: () =>
    withManual(async (instance, id) => {
      const browser = await launch();
      try {
        const all = { ours: [] as number[], bare: [] as number[] };
        for (let turn = 0; turn < TURNS; turn++) {
          for (const which of ['ours', 'bare'] as const) {
            const page = await browser.newPage({ viewport: { width: 1280, height: 800 } });
            if (which === 'bare') await page.setContent(BARE);
            else {
              await page.goto(`${instance.url}/documents/${id}`);
              await page.locator('canvas.bitmap[width]').first().waitFor();
            }
            await page.waitForTimeout(2500);
            all[which].push(...(await latencies(page, turn + 1)));
            await page.close();
          }
        }
        const [ours, bare] = [all.ours, all.bare];
        const told = (times: readonly number[]): string =>
          `p50 ${share(times, 0.5).toFixed(1)} p99 ${share(times, 0.99).toFixed(1)} ms`;
        return {
          kind: 'ratio',
          value: Math.max(
            share(ours, 0.5) / share(bare, 0.5),
            share(ours, 0.99) / share(bare, 0.99),
          ),
          baseline: 'a bare desynchronized canvas',
          goal: 1.1,
          note: `ours ${told(ours)}, bare ${told(bare)}; the worse of the two ratios`,
        };
      } finally {
        await browser.close();
      }
    }),
};
