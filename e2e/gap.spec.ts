import { expect, test, SLIDE } from './support/fixtures';
import type { DeskDriver } from './support/desk';
import type { Instance } from './support/instance';

interface Written {
  readonly pageId: string;
  readonly created: string;
  readonly transform?: readonly number[];
}

const written = async (instance: Instance, id: string): Promise<Written[]> =>
  ((await instance.annotations(id)) as unknown as Written[]).sort((a, b) =>
    a.created < b.created ? -1 : 1,
  );

/** A stroke across the first slide at each of some heights, in points. */
async function lines(desk: DeskDriver, heights: readonly number[]): Promise<void> {
  for (const y of heights)
    await desk.pen([await desk.spot(1, 500, y, SLIDE), await desk.spot(1, 640, y + 4, SLIDE)]);
  await desk.saved();
}

test('a gap pushes what is below further down, or up, in one step, and leaves the rest', async ({
  desk,
  deck,
  instance,
}) => {
  await desk.open(instance.url, deck);
  await lines(desk, [40, 120, 200]);
  await desk.page.getByLabel('Gap, key P').click();
  await desk.pen([await desk.spot(1, 300, 80, SLIDE), await desk.spot(1, 310, 140, SLIDE)]);
  await desk.saved();
  const moved = await written(instance, deck);
  expect(moved[0].transform).toBeUndefined();
  for (const { transform } of moved.slice(1)) {
    expect(transform![4]).toBe(0);
    expect(transform![5]).toBeCloseTo(60, 0);
  }
  await desk.page.keyboard.press('Control+z');
  await desk.saved();
  for (const { transform } of await written(instance, deck)) expect(transform).toBeUndefined();
  // Closed again: from below the first line up.
  await desk.pen([await desk.spot(1, 300, 110, SLIDE), await desk.spot(1, 300, 60, SLIDE)]);
  await desk.saved();
  const closed = await written(instance, deck);
  expect(closed[1].transform![5]).toBeCloseTo(-50, 0);
  expect(closed[0].transform).toBeUndefined();
});

test('what falls off the page goes to the next one, if wanted', async ({
  desk,
  deck,
  instance,
}) => {
  await desk.open(instance.url, deck);
  await lines(desk, [40, 400, 450]);
  await desk.page.keyboard.press('p');
  await desk.pen([await desk.spot(1, 300, 330, SLIDE), await desk.spot(1, 300, 510, SLIDE)]);
  await expect(desk.page.getByText('2 things have fallen off the page.')).toBeVisible();
  await desk.page.getByRole('button', { name: 'Take to the next page' }).click();
  await desk.saved();
  const reply = await fetch(`${instance.url}/api/documents/${deck}`);
  const { pages } = (await reply.json()) as { pages: { id: string }[] };
  const after = await written(instance, deck);
  const where = after.map(({ pageId }) => pages.findIndex(({ id }) => id === pageId));
  expect(where.sort()).toEqual([0, 1, 1]);
});
