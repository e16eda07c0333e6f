import { expect, test, SLIDE } from './support/fixtures';
import type { DeskDriver } from './support/desk';

/** The events of a page and of what is written on, each as its type and, where it tells, its pointer's type. */
async function watch(desk: DeskDriver): Promise<() => Promise<string[]>> {
  await desk.page.evaluate(() => {
    const seen: string[] = [];
    Object.assign(globalThis, { seen });
    const page = document.querySelector('stylet-page-view[data-page="1"]')!;
    const own = [page, page.querySelector('canvas.input')];
    for (const type of ['over', 'enter', 'down', 'move', 'up', 'cancel', 'out', 'leave'])
      page.addEventListener(`pointer${type}`, (event) => {
        if (own.includes(event.target as Element))
          seen.push(`${(event as PointerEvent).pointerType} ${type}`);
      });
    for (const type of ['gotpointercapture', 'lostpointercapture'])
      page.addEventListener(type, () => seen.push(type.replace('pointer', '')));
  });
  return () => desk.page.evaluate(() => (globalThis as unknown as { seen: string[] }).seen);
}

/** The events without those that only repeat the one before. */
const order = (events: readonly string[]): string[] =>
  events.filter((event, i) => event !== events[i - 1]);

// W3C Pointer Events 3, 4.2 “Pointer Event types”: over and enter come before down; a pointer that is
// captured gets gotpointercapture before any other event, and lostpointercapture after up; a device that
// cannot hover leaves (out, leave) after it is lifted, one that can does not. Whoever captures is where the
// pointer is (“pointer capture”): it goes out of what is pressed and over the page, and back at the end.
test('the simulated pen and fingers send events in the order the standard has', async ({
  desk,
  deck,
  instance,
}) => {
  await desk.open(instance.url, deck);
  const events = await watch(desk);
  await desk.pen([await desk.spot(1, 100, 40, SLIDE), await desk.spot(1, 300, 60, SLIDE)]);
  // The machine's own mouse, wherever it is, may be told that it is over something.
  const pen = (await events()).filter((event) => !event.startsWith('mouse'));
  expect(order(pen)).toEqual([
    'pen over',
    'pen enter',
    'pen down',
    'pen out',
    'pen over',
    'gotcapture',
    'pen move',
    'pen up',
    'lostcapture',
    'pen out',
    'pen over',
  ]);
  await desk.page.evaluate(() => ((globalThis as unknown as { seen: string[] }).seen.length = 0));
  const at = await desk.spot(1, 300, 250, SLIDE);
  await desk.fingers('touchStart', [at]);
  await desk.fingers('touchMove', [{ x: at.x, y: at.y + 4 }]);
  await desk.fingers('touchEnd', []);
  const touch = order(await events()).filter((event) => event.startsWith('touch'));
  expect(touch).toEqual([
    'touch over',
    'touch enter',
    'touch down',
    'touch move',
    'touch up',
    'touch out',
    'touch leave',
  ]);
});

// W3C Pointer Events 3, 4.1: each pointer has an id of its own, and each kind its own primary one.
test('a pen and a palm are told apart by kind, id and width', async ({ desk, deck, instance }) => {
  await desk.open(instance.url, deck);
  await desk.page.evaluate(() => {
    const kinds: Record<string, { ids: number[]; width: number; isPrimary: boolean }> = {};
    Object.assign(globalThis, { kinds });
    addEventListener(
      'pointermove',
      ({ pointerType, pointerId, width, isPrimary }) => {
        const kind = (kinds[pointerType] ??= { ids: [], width: 0, isPrimary });
        if (!kind.ids.includes(pointerId)) kind.ids.push(pointerId);
        kind.width = Math.max(kind.width, width);
      },
      { capture: true },
    );
  });
  const path = [await desk.spot(1, 100, 40, SLIDE), await desk.spot(1, 300, 60, SLIDE)];
  await desk.pens([path], {}, { rests: true, realTime: true });
  const kinds = await desk.page.evaluate(
    () =>
      (
        globalThis as unknown as {
          kinds: Record<string, { ids: number[]; width: number; isPrimary: boolean }>;
        }
      ).kinds,
  );
  expect(Object.keys(kinds).sort()).toEqual(['pen', 'touch']);
  expect(kinds['pen'].ids).toHaveLength(1);
  expect(kinds['touch'].ids).not.toContain(kinds['pen'].ids[0]);
  expect(kinds['pen'].isPrimary && kinds['touch'].isPrimary).toBe(true);
  expect(kinds['touch'].width).toBeGreaterThan(60);
});
