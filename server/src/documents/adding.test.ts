import { readFileSync } from 'node:fs';
import { newId, type Annotation, type Operation } from '@stylet/core/document';
import { TestServer, operation, realPdf, stroke } from '../testing/server';
import { LOCAL } from '../access/identity';
import { addAtOnce } from './adding';

let server: TestServer;
let id: string;
let pageIds: string[];
beforeAll(async () => (server = await TestServer.start()));
afterAll(() => server.stop());
beforeEach(async () => {
  id = (await server.bringIn(readFileSync(realPdf('sbcl-doc/sbcl-internals.pdf')))).id;
  pageIds = (await server.document(id)).pages.map((page) => page.id);
});

const line = (pageId = pageIds[0]) =>
  stroke(pageId, [
    [10, 10],
    [20, 30],
  ]);
const add = (annotation: Annotation, documentId = id): Operation =>
  operation(documentId, { type: 'annotation.add', annotation });
const atOnce = (batch: readonly Operation[], account = LOCAL.account) =>
  addAtOnce(server.services.database, { account }, id, batch);
const revision = async (): Promise<number> => (await server.document(id)).revision;

test('strokes on several pages are written at once, and come to what they come to all the way', async () => {
  const batch = [add(line()), add(line(pageIds[1])), add(line())];
  const done = await atOnce(batch);
  expect(done?.map((one) => [one.operation.id, one.revision])).toEqual(
    batch.map((one, i) => [one.id, i + 1]),
  );
  // Renamed in one go with them, others go all the way.
  const others = batch.map(({ effect }) =>
    effect.type === 'annotation.add'
      ? add({ ...effect.annotation, id: newId() })
      : operation(id, effect),
  );
  await server.send(id, [...others, operation(id, { type: 'document.rename', title: 'All' })]);
  const annotations = await server.annotations(id);
  const fieldsOf = (list: readonly Operation[]) =>
    list.map(({ effect }) => {
      if (effect.type !== 'annotation.add') throw new Error(effect.type);
      const { id: _, ...fields } = annotations.find((one) => one.id === effect.annotation.id)!;
      return fields;
    });
  expect(fieldsOf(batch)).toEqual(fieldsOf(others));
  const log = (await server.app.inject(`/api/documents/${id}/operations?since=0`)).json<{
    operations: { operation: Operation; revision: number }[];
  }>();
  expect(log.operations.slice(0, 3)).toEqual(done);
  expect(await server.document(id)).toMatchObject({ revision: 7, annotationCount: 6 });
});

test.each<[string, () => Promise<Operation[]> | Operation[]]>([
  ['something else', () => [add(line()), operation(id, { type: 'document.rename', title: 'B' })]],
  ['another document', () => [add(line(), newId())]],
  ['a page that is not there', () => [add(line(newId()))]],
  [
    'a page that was removed',
    async () => {
      await server.send(id, [operation(id, { type: 'page.remove', pageId: pageIds[0] })]);
      return [add(line())];
    },
  ],
  [
    'an operation that was carried out',
    async () => {
      const before = add(line());
      await server.send(id, [before]);
      return [add(line()), before];
    },
  ],
  [
    'an annotation that is there',
    async () => {
      const there = line();
      await server.send(id, [add(there)]);
      return [add(line()), add(there)];
    },
  ],
  [
    'one twice',
    () => {
      const one = add(line());
      return [one, one];
    },
  ],
  ['what can be found', () => [add({ ...line(), contents: 'Rinse twice' })]],
  ['nothing', () => []],
])('%s is not done at once, and nothing of it is done', async (_, made) => {
  const batch = await made();
  const before = [await revision(), await server.annotations(id)];
  expect(await atOnce(batch)).toBeUndefined();
  expect([await revision(), await server.annotations(id)]).toEqual(before);
});

test('who has a document writes on it at once; for others it is not there', async () => {
  expect(await atOnce([add(line())], 'somebody')).toBeUndefined();
  expect(await revision()).toBe(0);
});
