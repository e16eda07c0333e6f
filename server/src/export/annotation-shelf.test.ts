import { newId, type Effect, type Landmark } from '@stylet/core/document';
import { TestServer, stroke } from '../testing/server';
import { perform } from '../testing/page-facts';
import { blankPdf } from '../testing/pictures';
import { AnnotationShelf } from './annotation-shelf';

let server: TestServer;
beforeAll(async () => (server = await TestServer.start()));
afterAll(() => server.stop());

const shelf = (): AnnotationShelf => new AnnotationShelf(server.services.database, 3);

test('a document that is at hand is, after whatever was done, what would be read afresh', async () => {
  const { id } = await server.bringIn(blankPdf(4));
  const [first, second, third, fourth] = (await server.document(id)).pages;
  const [a, b, c] = [first, second, second].map((page) =>
    stroke(page.id, [
      [10, 10],
      [90, 40],
    ]),
  );
  const bookmark: Landmark = {
    kind: 'bookmark',
    id: newId(),
    place: { pageId: third.id },
    title: 'tide',
    created: '2026-09-01T08:00:00.000Z',
  };
  const modified = '2026-09-02T08:00:00.000Z';
  const change = { pageId: second.id, annotationId: b.id };
  const steps: Effect[][] = [
    [{ type: 'annotation.add', annotation: a }],
    [
      { type: 'annotation.add', annotation: b },
      { type: 'annotation.add', annotation: c },
    ],
    [{ type: 'annotation.change', ...change, fields: { color: '#123456', modified } }],
    [{ type: 'annotation.remove', ...change }],
    [{ type: 'page.change', pageId: first.id, fields: { rotation: 90 } }],
    [{ type: 'page.change', pageId: first.id, fields: { order: `${fourth.order}V` } }],
    [{ type: 'page.remove', pageId: second.id }],
    [{ type: 'landmark.add', landmark: bookmark }],
    // It comes back with what is on it.
    [{ type: 'page.add', page: second }],
    [{ type: 'landmark.change', landmarkId: bookmark.id, fields: { title: 'ebb' } }],
    [{ type: 'landmark.remove', landmarkId: bookmark.id }],
    // More than are read one by one.
    Array.from({ length: 700 }, () => ({
      type: 'annotation.add',
      annotation: stroke(third.id, [
        [20, 20],
        [30, 40],
      ]),
    })),
  ];
  const kept = shelf();
  let before = await kept.documentOf(id);
  for (const effects of steps) {
    await perform(server, id, effects);
    const now = await kept.documentOf(id);
    expect(now).toEqual(await shelf().documentOf(id));
    expect(now).not.toEqual(before);
    expect(await kept.documentOf(id)).toBe(now);
    before = now;
  }
  expect(before.pages.map((page) => [page.id, Object.keys(page.annotations).length])).toEqual([
    [second.id, 1],
    [third.id, 700],
    [fourth.id, 0],
    [first.id, 1],
  ]);
});

test('only what was touched is another object', async () => {
  const { id } = await server.bringIn(blankPdf(2));
  const [first, second] = (await server.document(id)).pages;
  const add = (pageId: string): Effect => ({
    type: 'annotation.add',
    annotation: stroke(pageId, [
      [10, 10],
      [90, 40],
    ]),
  });
  await perform(server, id, [add(first.id), add(second.id)]);
  const kept = shelf();
  const before = await kept.documentOf(id);
  await perform(server, id, [add(second.id)]);
  const now = await kept.documentOf(id);
  expect(now.pages[0].annotations).toBe(before.pages[0].annotations);
  expect(now.pages[1].annotations).not.toBe(before.pages[1].annotations);
});

test('an export asked for again is the same, in each way, until something is done', async () => {
  const { id } = await server.bringIn(blankPdf(2));
  const [page] = (await server.document(id)).pages;
  await perform(server, id, [
    {
      type: 'annotation.add',
      annotation: stroke(page.id, [
        [10, 10],
        [90, 40],
      ]),
    },
  ]);
  const editable = await server.export(id, 'editable');
  const flattened = await server.export(id, 'flattened');
  expect(flattened.equals(editable)).toBe(false);
  expect((await server.export(id, 'flattened')).equals(flattened)).toBe(true);
  expect((await server.export(id, 'editable')).equals(editable)).toBe(true);
  expect((await server.export(id, 'editable')).equals(editable)).toBe(true);
  await perform(server, id, [
    {
      type: 'annotation.add',
      annotation: stroke(page.id, [
        [20, 20],
        [80, 70],
      ]),
    },
  ]);
  expect((await server.export(id, 'editable')).equals(editable)).toBe(false);
});
