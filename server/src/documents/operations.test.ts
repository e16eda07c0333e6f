import { readFileSync } from 'node:fs';
import { operationLogSchema } from '@stylet/core/api';
import { newId, type Annotation, type Ink } from '@stylet/core/document';
import { TestServer, operation, realPdf, stroke } from '../testing/server';

let server: TestServer;
let id: string;
let pageId: string;
beforeAll(async () => (server = await TestServer.start()));
afterAll(() => server.stop());
beforeEach(async () => {
  id = (await server.bringIn(readFileSync(realPdf('sbcl-doc/sbcl-internals.pdf')))).id;
  pageId = (await server.document(id)).pages[0].id;
});

const add = (annotation: Annotation) => operation(id, { type: 'annotation.add', annotation });
const ink = (): Ink =>
  stroke(pageId, [
    [10, 10],
    [20, 30],
    [40, 20],
  ]);

test('a stroke is stored with every sample, and counts in the revision', async () => {
  const annotation = ink();
  const reply = await server.send(id, [add(annotation)]);
  expect(reply.json()).toMatchObject({ revision: 1 });
  expect(await server.annotations(id)).toEqual([annotation]);
  expect(await server.document(id)).toMatchObject({ revision: 1, annotationCount: 1 });
});

test('the same operation twice changes nothing and gets the same answer', async () => {
  const sent = add(ink());
  const first = (await server.send(id, [sent])).json<unknown>();
  expect((await server.send(id, [sent])).json()).toEqual(first);
  expect((await server.send(id, [sent, sent])).json()).toMatchObject({ revision: 1 });
  expect(await server.annotations(id)).toHaveLength(1);
});

test('an operation sent late does not bring back what was removed meanwhile', async () => {
  const annotation = ink();
  const sent = add(annotation);
  await server.send(id, [sent]);
  await server.send(id, [
    operation(id, { type: 'annotation.remove', pageId, annotationId: annotation.id }),
  ]);
  await server.send(id, [sent]);
  expect(await server.annotations(id)).toEqual([]);
});

test('many at once get consecutive revisions, also from several sides', async () => {
  const batches = Array.from({ length: 8 }, () => Array.from({ length: 5 }, () => add(ink())));
  const replies = await Promise.all(batches.map((batch) => server.send(id, batch)));
  const revisions = replies.flatMap((reply) =>
    reply.json<{ operations: { revision: number }[] }>().operations.map((o) => o.revision),
  );
  expect(revisions.sort((a, b) => a - b)).toEqual(Array.from({ length: 40 }, (_, i) => i + 1));
  expect(await server.annotations(id)).toHaveLength(40);
});

test('what was done since a revision is told in order, a part at a time, and nothing is missing', async () => {
  const all = Array.from({ length: 12 }, () => add(ink()));
  await server.send(id, all.slice(0, 5));
  await server.send(id, all.slice(5));
  const since = async (revision: number) => {
    const reply = await server.app.inject(`/api/documents/${id}/operations?since=${revision}`);
    return operationLogSchema.parse(reply.json());
  };
  const log = await since(3);
  expect(log.revision).toBe(12);
  expect(log.operations).toEqual(
    all.slice(3).map((sent, i) => ({ operation: sent, revision: 4 + i })),
  );
  expect((await since(12)).operations).toEqual([]);
  for (const wrong of ['-1', 'x', '1.5'])
    expect(
      (await server.app.inject(`/api/documents/${id}/operations?since=${wrong}`)).statusCode,
    ).toBe(400);
  const nobody = `/api/documents/${newId()}/operations?since=0`;
  expect((await server.app.inject(nobody)).json()).toMatchObject({ code: 'document-not-found' });
});

test('of many large ones a part is told, and the rest is asked for from there', async () => {
  const large = (): Ink => ({ ...ink(), contents: 'tide '.repeat(20_000) });
  for (let i = 0; i < 6; i++)
    await server.send(
      id,
      Array.from({ length: 10 }, () => add(large())),
    );
  let at = 0;
  let asked = 0;
  while (at < 60) {
    const reply = await server.app.inject(`/api/documents/${id}/operations?since=${at}`);
    const { operations } = operationLogSchema.parse(reply.json());
    expect(operations.map(({ revision }) => revision)).toEqual(
      operations.map((_, i) => at + 1 + i),
    );
    expect(reply.body.length).toBeLessThan(5_000_000);
    at += operations.length;
    asked++;
  }
  expect([at, asked]).toEqual([60, 2]);
});

test('change and rename', async () => {
  const annotation = ink();
  await server.send(id, [
    add(annotation),
    operation(id, {
      type: 'annotation.change',
      pageId,
      annotationId: annotation.id,
      fields: { color: '#1f6f66' },
    }),
    operation(id, { type: 'document.rename', title: 'Renamed' }),
  ]);
  expect(await server.annotations(id)).toEqual([{ ...annotation, color: '#1f6f66' }]);
  expect((await server.document(id)).title).toBe('Renamed');
});

test.each([
  ['another document’s id', () => ({ ...add(ink()), documentId: newId() }), 'operation-invalid'],
  ['a page that is not there', () => add({ ...ink(), pageId: newId() }), 'operation-invalid'],
  ['ink nobody can read', () => add({ ...ink(), samples: 'AAAA' }), 'ink-samples-invalid'],
  ['a colour that is none', () => add({ ...ink(), color: 'red' }), 'request-invalid'],
])('%s is refused, and nothing of the batch is done', async (_, wrong, code) => {
  const reply = await server.send(id, [add(ink()), wrong()]);
  expect(reply.statusCode).toBe(400);
  expect(reply.json()).toMatchObject({ code, status: 400 });
  expect(await server.annotations(id)).toEqual([]);
});

test('an operation that another document has had is refused there, and nothing of its batch is done', async () => {
  const other = (await server.bringIn(readFileSync(realPdf('asymptote-doc/pixel.pdf')))).id;
  const sent = operation(other, { type: 'document.rename', title: 'Other' });
  expect((await server.send(other, [sent])).statusCode).toBe(200);
  const reply = await server.send(id, [add(ink()), { ...sent, documentId: id }]);
  expect(reply.json()).toMatchObject({ code: 'operation-invalid', status: 400 });
  expect(await server.document(id)).toMatchObject({ revision: 0, annotationCount: 0 });
  expect((await server.document(id)).title).not.toBe('Other');
});

test('an unknown document is answered with 404', async () => {
  const unknown = newId();
  expect(
    (await server.send(unknown, [{ ...add(ink()), documentId: unknown }])).json(),
  ).toMatchObject({ code: 'document-not-found', status: 404 });
});

test('health and the description of the API', async () => {
  expect((await server.app.inject('/api/health')).json()).toEqual({ status: 'ok', database: 'up' });
  const api = (await server.app.inject('/api/openapi.json')).json<{
    openapi: string;
    paths: object;
  }>();
  expect(api.openapi).toMatch(/^3\.1/);
  expect(Object.keys(api.paths)).toEqual(
    expect.arrayContaining([
      '/api/documents',
      '/api/documents/{id}/operations',
      '/api/documents/{id}/export',
    ]),
  );
});

test('writing on a page that somebody has removed says which and who; the page comes back with what is on it', async () => {
  const { pages } = await server.document(id);
  const [page] = pages;
  const removal = { ...operation(id, { type: 'page.remove', pageId }), author: 'Ada' };
  const early = ink();
  // Written before, or in the same batch before: nobody is surprised.
  const together = await server.send(id, [add(early), removal]);
  expect(together.json()).toMatchObject({ removedPages: [] });
  const late = ink();
  const reply = await server.send(id, [add(late)]);
  expect(reply.json()).toMatchObject({ removedPages: [{ page: { id: pageId }, by: 'Ada' }] });
  await server.send(id, [operation(id, { type: 'page.add', page })]);
  expect((await server.document(id)).pages).toHaveLength(pages.length);
  expect((await server.annotations(id)).map((a) => a.id).sort()).toEqual(
    [early.id, late.id].sort(),
  );
});
