import type { Benchmark } from './benchmark';
import { launch } from './browser';
import { fillPage, withManual } from './documents';

const STROKES = 5000;
/** Moves while dragging, one a frame. */
const MOVES = 120;

export const dragFrames: Benchmark = {
  name: 'drag-frames',
  about: `${STROKES} strokes selected and dragged: the longest frame`,
  run: () =>
    withManual(async (instance, id) => {
      await fillPage(instance, id, 0, STROKES);
      const browser = await launch();
      try {
        const page = await browser.newPage({ viewport: { width: 1280, height: 800 } });
        await page.goto(`${instance.url}/documents/${id}`);
        await page.locator('canvas.bitmap[width]').first().waitFor();
        await page.waitForTimeout(2500);
        await page.keyboard.press('Control+a');
        await page.getByRole('toolbar', { name: 'Selection' }).waitFor();
        // Nobody drags in the moment of selecting.
        await page.waitForTimeout(1500);
        const session = await page.context().newCDPSession(page);
        const send = (
          type: 'mousePressed' | 'mouseMoved' | 'mouseReleased',
          x: number,
          y: number,
        ) =>
          session.send('Input.dispatchMouseEvent', {
            type,
            x,
            y,
            button: 'left',
            buttons: type === 'mouseReleased' ? 0 : 1,
            pointerType: 'pen',
            force: 0.5,
            clickCount: 1,
          });
        await send('mouseMoved', 520, 400);
        await page.evaluate(() => {
          const watch = {
            last: performance.now(),
            longest: 0,
            on: true,
            step(now: number): void {
              watch.longest = Math.max(watch.longest, now - watch.last);
              watch.last = now;
              if (watch.on) requestAnimationFrame(watch.step);
            },
          };
          Object.assign(globalThis, { watch });
          requestAnimationFrame(watch.step);
        });
        await send('mousePressed', 520, 400);
        for (let i = 1; i <= MOVES; i++) {
          await send('mouseMoved', 520 + i, 400 + 40 * Math.sin(i / 12));
          await page.waitForTimeout(14);
        }
        const longest = await page.evaluate(() => {
          const { watch } = globalThis as unknown as { watch: { longest: number; on: boolean } };
          watch.on = false;
          return watch.longest;
        });
        const start = performance.now();
        await send('mouseReleased', 520 + MOVES, 400);
        await page.evaluate(
          () => new Promise((done) => requestAnimationFrame(() => setTimeout(done))),
        );
        const drop = performance.now() - start;
        return {
          kind: 'milliseconds',
          value: longest,
          goal: 33,
          note: `${Math.round(drop)} ms from letting go to the page as it then is`,
        };
      } finally {
        await browser.close();
      }
    }),
};
