import { newId, orderAbove, type Effect } from '@stylet/core/document';
import { samplesOf, samplesToBase64 } from '@stylet/core/ink';
import { expect, test, SLIDE } from './support/fixtures';

const LINES = 60;
const NOW = '2026-09-01T08:00:00.000Z';

/** Sixty lines on each page, far down so that there is room above. */
function linesOn(pageId: string): Effect[] {
  let order: string | undefined;
  return Array.from({ length: LINES }, (_, i) => {
    order = orderAbove(order);
    const samples = samplesOf(
      [40, 320].map((x) => ({ x, y: 60 + i * 2, pressure: 0.5, tiltX: 0, tiltY: 0, time: x })),
    );
    return {
      type: 'annotation.add',
      annotation: {
        kind: 'ink',
        id: newId(),
        pageId,
        order,
        color: '#1b3a6b',
        opacity: 1,
        author: 'Ada',
        created: NOW,
        modified: NOW,
        instrument: 'fineliner',
        width: 1,
        smoothing: 0,
        samples: samplesToBase64(samples),
      },
    };
  });
}

test('of a document full of ink what is looked at comes first, and the rest when it is looked for', async ({
  desk,
  deck,
  instance,
}) => {
  const reply = await fetch(`${instance.url}/api/documents/${deck}`);
  const { pages } = (await reply.json()) as { pages: { id: string }[] };
  for (const { id } of pages) await instance.perform(deck, ...linesOn(id));
  const read = new Set<string>();
  desk.page.on('request', (request) => {
    const { pathname, searchParams } = new URL(request.url());
    if (pathname.endsWith('/annotations')) read.add(searchParams.get('most') ?? 'pages');
  });
  await desk.open(instance.url, deck);
  const ink = await desk.spot(1, 200, 120, SLIDE);
  await expect.poll(() => desk.darkestNear(ink)).toBeLessThan(140);
  await desk.goTo(String(pages.length));
  const last = await desk.spot(pages.length, 200, 120, SLIDE);
  await expect.poll(() => desk.darkestNear(last)).toBeLessThan(140);
  expect(read).toEqual(new Set(['100', 'pages']));
  // Whoever looks into the Index finds all of it.
  await desk.page.getByRole('complementary', { name: 'Index' }).hover();
  await expect(desk.page.getByRole('button', { name: `Ink ${pages.length}` })).toBeVisible();
  const y = 30;
  await desk.pen([await desk.spot(48, 80, y, SLIDE), await desk.spot(48, 300, y, SLIDE)]);
  await desk.saved();
  // After a reload the window begins elsewhere; undo finds what is to be taken back.
  await desk.goTo('1');
  await desk.page.reload();
  await expect(desk.page.getByRole('button', { name: /^Undo/ })).toBeEnabled();
  await desk.page.keyboard.press('Control+z');
  await expect
    .poll(async () => (await instance.annotations(deck)).length)
    .toBe(LINES * pages.length);
});
