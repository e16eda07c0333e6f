import { readFileSync } from 'node:fs';
import { documentListSchema, documentSummarySchema, findResultSchema } from '@stylet/core/api';
import { newId, type Annotation } from '@stylet/core/document';
import { TestServer, realPdf } from '../testing/server';

let server: TestServer;
beforeAll(async () => {
  server = await TestServer.start();
}, 60_000);
afterAll(() => server.stop());

const card = readFileSync(realPdf('asymptote-doc/asyRefCard.pdf'));
const list = async (url: string): Promise<string[]> => {
  const reply = await server.app.inject(url);
  return documentListSchema.parse(reply.json()).documents.map(({ id }) => id);
};
const setTrashed = (id: string, trashed: boolean) =>
  server.app.inject({ method: 'PUT', url: `/api/documents/${id}/trash`, payload: { trashed } });
const remove = (id: string) => server.app.inject({ method: 'DELETE', url: `/api/documents/${id}` });
const found = async (): Promise<string[]> => {
  const reply = await server.app.inject('/api/find?typed=asymptote');
  return findResultSchema.parse(reply.json()).documents.map(({ id }) => id);
};

test('what is in the trash is listed and found there no more, and comes back as it was', async () => {
  const { id } = await server.bringIn(card, 'Drawing card.pdf');
  await server.index();
  expect(await found()).toContain(id);
  expect((await setTrashed(id, true)).statusCode).toBe(204);
  expect(await list('/api/documents')).not.toContain(id);
  expect(await list('/api/trash')).toEqual([id]);
  expect(await found()).not.toContain(id);
  // It can still be opened, and what another device sends is not lost.
  expect((await server.document(id)).trashed).not.toBeNull();
  await setTrashed(id, false);
  expect(await list('/api/documents')).toContain(id);
  expect(await found()).toContain(id);
  expect((await setTrashed(newId(), true)).json()).toMatchObject({ code: 'document-not-found' });
});

test('only from the trash a document goes for good, and its file goes unless another needs it', async () => {
  const bytes = Buffer.concat([card, Buffer.from('\n% only here\n')]);
  const { id, digest } = await server.bringIn(bytes, 'Card.pdf');
  const copy = await server.app.inject({ method: 'POST', url: `/api/documents/${id}/duplicate` });
  const twin = documentSummarySchema.parse(copy.json()).id;
  const isKept = async (): Promise<boolean> =>
    (await server.app.inject(`/api/sources/${digest}`)).statusCode === 200;
  expect((await remove(id)).json()).toMatchObject({ code: 'document-not-in-trash', status: 409 });
  await setTrashed(id, true);
  expect((await remove(id)).statusCode).toBe(204);
  expect((await remove(id)).json()).toMatchObject({ code: 'document-not-found' });
  expect(await isKept()).toBe(true);
  await setTrashed(twin, true);
  await remove(twin);
  expect(await isKept()).toBe(false);
});

test('a copy of a document has all that is on it, under ids of its own that refer to each other', async () => {
  const { id } = await server.bringIn(card, 'Drawing card.pdf');
  const { pages } = await server.document(id);
  const at = '2026-09-01T08:00:00.000Z';
  const common = { order: 'a1', opacity: 1, author: 'Me', created: at, modified: at };
  const link: Annotation = {
    ...common,
    kind: 'link',
    id: newId(),
    pageId: pages[0].id,
    quads: [[0, 0, 50, 0, 0, 10, 50, 10]],
    target: { place: { pageId: pages[1].id } },
    contents: 'next',
  };
  const keyword = {
    kind: 'keyword',
    id: newId(),
    word: 'ebb',
    place: { pageId: pages[0].id },
    annotationIds: [link.id],
    created: at,
  };
  const operation = (effect: object) => ({
    id: newId(),
    documentId: id,
    author: 'Me',
    at,
    baseRevision: 0,
    effect,
  });
  const sent = await server.app.inject({
    method: 'POST',
    url: `/api/documents/${id}/operations`,
    payload: {
      operations: [
        operation({ type: 'annotation.add', annotation: link }),
        operation({ type: 'landmark.add', landmark: keyword }),
      ],
    },
  });
  expect(sent.statusCode).toBe(200);
  const reply = await server.app.inject({ method: 'POST', url: `/api/documents/${id}/duplicate` });
  expect(reply.statusCode).toBe(201);
  const copy = documentSummarySchema.parse(reply.json());
  expect(copy.title).toBe('Drawing card (copy)');
  const twin = await server.document(copy.id);
  expect(twin.pages.map(({ sourceIndex }) => sourceIndex)).toEqual(
    pages.map(({ sourceIndex }) => sourceIndex),
  );
  const { annotations } = (await server.app.inject(`/api/documents/${copy.id}/annotations`)).json();
  const [copied] = annotations;
  expect(copied).toEqual({
    ...link,
    id: expect.not.stringMatching(link.id),
    pageId: twin.pages[0].id,
    target: { place: { pageId: twin.pages[1].id } },
  });
  const mark = twin.landmarks.find(({ kind }) => kind === 'keyword');
  expect(mark).toMatchObject({
    word: 'ebb',
    place: { pageId: twin.pages[0].id },
    annotationIds: [copied.id],
  });
});
