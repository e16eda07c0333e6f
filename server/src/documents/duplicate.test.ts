import { documentSummarySchema } from '@stylet/core/api';
import { newId, type Annotation, type Landmark } from '@stylet/core/document';
import { perform } from '../testing/page-facts';
import { blankPdf } from '../testing/pictures';
import { TestServer, stroke } from '../testing/server';

let server: TestServer;
beforeAll(async () => (server = await TestServer.start()));
afterAll(() => server.stop());

const at = '2026-09-01T08:00:00.000Z';

test('a copy of a document has all that is on it, under ids of its own that refer to each other', async () => {
  const { id } = await server.bringIn(blankPdf(4), 'Drawing card.pdf');
  const { pages } = await server.document(id);
  const link: Annotation = {
    kind: 'link',
    id: newId(),
    pageId: pages[0].id,
    order: 'a1',
    opacity: 1,
    author: 'Me',
    created: at,
    modified: at,
    quads: [[0, 0, 50, 0, 0, 10, 50, 10]],
    target: { place: { pageId: pages[1].id } },
    contents: 'next',
  };
  const ink = stroke(pages[2].id, [
    [10, 10],
    [50, 60],
  ]);
  const entry: Landmark = {
    kind: 'outline',
    id: newId(),
    title: 'Ebb',
    order: 'a0',
    open: true,
    place: { pageId: pages[2].id, x: 10, y: 20 },
  };
  const landmarks: Landmark[] = [
    entry,
    { ...entry, id: newId(), title: 'Flood', parentId: entry.id },
    {
      kind: 'keyword',
      id: newId(),
      word: 'ebb',
      place: { pageId: pages[0].id },
      annotationIds: [link.id],
      created: at,
    },
  ];
  await perform(server, id, [
    { type: 'annotation.add', annotation: link },
    { type: 'annotation.add', annotation: ink },
    ...landmarks.map((landmark) => ({ type: 'landmark.add', landmark }) as const),
    { type: 'page.remove', pageId: pages[3].id },
  ]);
  const reply = await server.app.inject({ method: 'POST', url: `/api/documents/${id}/duplicate` });
  expect(reply.statusCode).toBe(201);
  const copy = documentSummarySchema.parse(reply.json());
  expect(copy.title).toBe('Drawing card (copy)');
  const twin = await server.document(copy.id);
  expect(twin.pages.map(({ sourceIndex }) => sourceIndex)).toEqual([0, 1, 2]);
  const annotations = await server.annotations(copy.id);
  // What is new is new throughout, and the same wherever it is named.
  const theirs = [link, ink, ...landmarks, ...pages].map((one) => one.id);
  const all = JSON.stringify([twin, annotations]);
  expect(theirs.filter((old) => all.includes(old))).toEqual([]);
  const [copiedLink, copiedInk] = ['link', 'ink'].map((kind) =>
    annotations.find((annotation) => annotation.kind === kind),
  );
  const [first, second, third] = twin.pages.map((page) => page.id);
  expect(copiedLink).toEqual({
    ...link,
    id: copiedLink!.id,
    pageId: first,
    target: { place: { pageId: second } },
  });
  expect(copiedInk).toEqual({ ...ink, id: copiedInk!.id, pageId: third });
  const byWords = new Map(
    twin.landmarks.map((mark) => [mark.kind === 'outline' ? mark.title : mark.kind, mark]),
  );
  expect([...byWords.keys()].sort()).toEqual(['Ebb', 'Flood', 'keyword']);
  expect(byWords.get('Ebb')).toMatchObject({ place: { pageId: third, x: 10, y: 20 } });
  expect(byWords.get('Flood')).toMatchObject({ parentId: byWords.get('Ebb')!.id });
  expect(byWords.get('keyword')).toMatchObject({
    word: 'ebb',
    place: { pageId: first },
    annotationIds: [copiedLink!.id],
  });
});
