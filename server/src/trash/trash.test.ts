import { readFileSync } from 'node:fs';
import { documentListSchema, documentSummarySchema, findResultSchema } from '@stylet/core/api';
import { newId } from '@stylet/core/document';
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
