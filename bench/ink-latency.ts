import { replay } from '@stylet/demo/stylus';
import { share, type Benchmark } from './benchmark';
import { launch } from './browser';
import { withManual } from './documents';
import { handwriting } from './handwriting';
import { timesUntilShown } from './shown';

/** Turns of each, and how long one lasts, in ms of writing. */
const TURNS = 3;
const TURN = 6000;
/** Events a second, in Hz; what screens with a stylus report lies between 120 and 240 (common practice, no source). */
const RATE = 120;

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
            if (which === 'bare') {
              // Coalesced events are for secure contexts: the page comes from the same place.
              const bare = `${instance.url}/bare`;
              await page.route(bare, (way) =>
                way.fulfill({ contentType: 'text/html', body: BARE }),
              );
              await page.goto(bare);
            } else {
              await page.goto(`${instance.url}/documents/${id}`);
              await page.locator('canvas.bitmap[width]').first().waitFor();
            }
            await page.waitForTimeout(2500);
            const session = await page.context().newCDPSession(page);
            const times = await timesUntilShown(page, session, () =>
              replay(session as never, handwriting(turn + 1, TURN, RATE), {
                realTime: true,
                unanswered: true,
              }),
            );
            all[which].push(...times);
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
          note: `ours ${told(ours)}, bare ${told(bare)} of ${ours.length} and ${bare.length} events; the worse of the two ratios`,
        };
      } finally {
        await browser.close();
      }
    }),
};
