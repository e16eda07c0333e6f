import type { CDPSession, Page } from '@playwright/test';

/** What the browser notes of itself (Trace Event Format); `ts` and `dur` in µs. */
interface TraceEvent {
  readonly name: string;
  readonly ph: string;
  readonly ts: number;
  readonly dur?: number;
  readonly pid: number;
  readonly args: { readonly data?: { readonly startTime?: number } };
}

const MARK = 'pen-event ';

/** Notes each movement of the pen when a page first hears of it, before the page's own listeners. */
const NOTE = `{
  let last = 0;
  for (const type of ['pointermove', 'pointerrawupdate'])
    addEventListener(type, ({ buttons, timeStamp }) => {
      if (buttons === 0 || timeStamp <= last) return;
      last = timeStamp;
      performance.mark('${MARK}' + timeStamp);
    }, { capture: true });
}`;

/**
 * Ms from each pen event during `write` to the end of drawing of the first picture on the screen that has it: the
 * browser's own trace says when a page heard of an event, when it next handed over a picture of a canvas (or, where
 * it hands over none by themselves, of the page) and when the screen was next drawn.
 */
export async function timesUntilShown(
  page: Page,
  session: CDPSession,
  write: () => Promise<void>,
): Promise<number[]> {
  await page.evaluate(NOTE);
  const events: TraceEvent[] = [];
  session.on('Tracing.dataCollected', ({ value }) => events.push(...(value as never[])));
  const complete = new Promise((resolve) => session.once('Tracing.tracingComplete', resolve));
  await session.send('Tracing.start', {
    transferMode: 'ReportEvents',
    traceConfig: { includedCategories: ['blink', 'blink.user_timing', 'cc', 'viz'] },
  });
  await write();
  await session.send('Tracing.end');
  await complete;
  return timesIn(events.toSorted((a, b) => a.ts - b.ts));
}

function timesIn(events: readonly TraceEvent[]): number[] {
  const seen = events.filter(({ name, ph }) => name.startsWith(MARK) && ph !== 'E');
  const { pid } = seen[0];
  const named = (name: string): TraceEvent[] => events.filter((event) => event.name === name);
  const ofPage = (name: string): TraceEvent[] => named(name).filter((event) => event.pid === pid);
  const canvases = ofPage('CanvasResourceDispatcher::DispatchFrame');
  const handedOver = canvases.length > 0 ? canvases : ofPage('MainFrame.Draw');
  const drawn = named('Display::DrawAndSwap');
  return seen.flatMap(({ name, ts, args }) => {
    const handed = handedOver.find((event) => event.ts >= ts);
    const shown = handed && drawn.find((event) => event.ts >= handed.ts + (handed.dur ?? 0));
    if (!shown || args.data?.startTime === undefined) return [];
    const waited = args.data.startTime - Number(name.slice(MARK.length));
    return [waited + (shown.ts + (shown.dur ?? 0) - ts) / 1000];
  });
}
