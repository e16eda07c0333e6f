import type { Kit } from '@stylet/core/api';
import { expect, test, SLIDE } from './support/fixtures';
import { differing } from './support/desk';
import { fineliner as slot } from './support/kit';

const MM = 72 / 25.4;
const kit: Kit = {
  version: 1,
  slots: [
    slot('fineliner', {}),
    slot('nib', { instrument: 'nib', opacity: 0.5, width: 2 * MM }),
    slot('broad edge', { instrument: 'broadEdge', width: 3 * MM, color: '#b3324b' }),
    slot('pencil', { instrument: 'pencil', width: 0.8 * MM, opacity: 0.85 }),
    slot('wash', { instrument: 'wash', width: 4 * MM, opacity: 0.4, fills: true }),
    slot('highlighter', {
      instrument: 'highlighter',
      width: 4 * MM,
      color: '#bde8b2',
      freeform: true,
      straightens: false,
      darkens: true,
    }),
  ],
  eraser: { by: 'stroke', target: 'both', size: 11, springsBack: false },
  buttons: { eraserEnd: 'eraser', barrel: 'eraser' },
};

test.beforeEach(async ({ instance, desk }) => {
  // The desk forgets the kit of the test before.
  expect(desk).toBeDefined();
  await instance.keepKit(kit);
});

for (const [i, { name }] of kit.slots.entries()) {
  test(`${name}: the last live frame is the stroke that stays, at every zoom`, async ({
    desk,
    deck,
    instance,
  }) => {
    await desk.open(instance.url, deck);
    await expect(desk.page.getByLabel(`${name}, key`)).toBeVisible();
    for (const steps of [5, 0]) {
      await desk.page.keyboard.press(String(i + 1));
      const view = (await desk.page.locator('.scroller').boundingBox())!;
      const clip = { x: view.x + 60, y: view.y + 60, width: 500, height: 190 };
      const session = await desk.page.context().newCDPSession(desk.page);
      const send = (type: string, x: number, y: number, force: number) =>
        session.send('Input.dispatchMouseEvent', {
          type: type as 'mouseMoved',
          x,
          y,
          button: 'left',
          buttons: force > 0 ? 1 : 0,
          pointerType: 'pen',
          force,
          tiltX: 48,
          clickCount: 1,
        });
      // A loop that crosses itself.
      const at = (k: number): [number, number] => [
        clip.x + 80 + k * 3 + 70 * Math.sin(k / 9),
        clip.y + 95 + 60 * Math.cos(k / 7),
      ];
      await send('mousePressed', ...at(0), 0.4);
      for (let k = 1; k < 90; k++) await send('mouseMoved', ...at(k), 0.3 + (k % 30) / 60);
      // What was shown ahead of the pen is gone once it rests.
      await desk.pause(200);
      const drawing = await desk.rested(clip);
      await send('mouseReleased', ...at(89), 0);
      const lifted = await desk.rested(clip);
      // Two pieces that meet within a pixel, covering a and 1 - a of it, leave a(1 - a) of it open, a quarter at most
      // (Porter and Duff 1984, “over”); where they meet depends on when the pen was heard of.
      expect(differing(drawing, lifted, 64)).toBe(0);
      expect(differing(drawing, lifted, 16)).toBeLessThan(6);
      // Where the edge of a band cuts a piece, what it covers of a pixel may be reckoned a little otherwise.
      expect(differing(drawing, lifted, kit.slots[i].opacity < 1 ? 3 : 1)).toBeLessThan(80);
      await desk.page.keyboard.press('Control+z');
      expect(differing(lifted, await desk.rested(clip), 12)).toBeGreaterThan(500);
      for (let k = 0; k < steps; k++) await desk.page.keyboard.press('Control+=');
      await desk.drawn();
    }
  });
}

test('pdf.js shows a flattened export as the desk shows the ink', async ({
  desk,
  deck,
  instance,
}) => {
  await desk.open(instance.url, deck);
  await expect(desk.page.getByLabel('fineliner, key')).toBeVisible();
  for (let i = 0; i < kit.slots.length; i++) {
    await desk.page.keyboard.press(String(i + 1));
    const path = await Promise.all(
      Array.from({ length: 30 }, (_, k) =>
        desk.spot(1, 70 + 100 * i + 2.6 * k, 60 + 34 * Math.sin(k / 4), SLIDE),
      ),
    );
    await desk.pen(path, { pressure: 0.6 });
  }
  await desk.saved();
  const view = (await desk.page.locator('stylet-page-view[data-page="1"]').boundingBox())!;
  const clip = { x: view.x + 40, y: view.y + 4, width: view.width - 60, height: 150 };
  const ours = await desk.picture(clip);
  const reply = await fetch(`${instance.url}/api/documents/${deck}/export?annotations=flattened`);
  const flat = await instance.bringIn(new Uint8Array(await reply.arrayBuffer()), 'Flat.pdf');
  expect(await instance.annotations(flat)).toEqual([]);
  await desk.open(instance.url, flat);
  const theirs = await desk.rested(clip);
  // Edges and the pencil's grain are smoothed in another way; nothing else may differ.
  const blurred = (x: number) => x / (ours.width * ours.height);
  expect(blurred(differing(ours, theirs, 60))).toBeLessThan(0.012);
});
