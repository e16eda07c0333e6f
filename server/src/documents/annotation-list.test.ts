import { readFileSync } from 'node:fs';
import { annotationListSchema, MOST_PAGES_READ } from '@stylet/core/api';
import { newId, type DocumentPage } from '@stylet/core/document';
import { TestServer, operation, realPdf, stroke } from '../testing/server';

let server: TestServer;
let id: string;
let pages: DocumentPage[];
/** How many strokes each of the first pages gets. */
const COUNTS = [4, 6, 1, 0, 3, 5];

beforeAll(async () => {
  server = await TestServer.start();
  id = (await server.bringIn(readFileSync(realPdf('sbcl-doc/sbcl-internals.pdf')))).id;
  pages = (await server.document(id)).pages;
  const strokes = COUNTS.flatMap((count, page) =>
    Array.from({ length: count }, (_, i) =>
      stroke(pages[page].id, [
        [10, 10 + i],
        [40, 20 + i],
      ]),
    ),
  );
  await server.send(
    id,
    strokes.map((annotation) => operation(id, { type: 'annotation.add', annotation })),
  );
});
afterAll(() => server.stop());

const ask = (query: string) => server.app.inject(`/api/documents/${id}/annotations${query}`);
const read = async (query: string) => {
  const { revision, annotations, unread } = annotationListSchema.parse((await ask(query)).json());
  const counts = COUNTS.map(
    (_, page) => annotations.filter(({ pageId }) => pageId === pages[page].id).length,
  );
  const left = Object.fromEntries(
    unread.map(({ pageId, count }) => [pages.findIndex((page) => page.id === pageId), count]),
  );
  return { revision, counts, left, total: annotations.length };
};

test('as many as are asked for come, of whole pages from the first or a given one on; of others it is said how many', async () => {
  expect(await read('')).toEqual({ revision: 19, counts: COUNTS, left: {}, total: 19 });
  expect(await read('?most=19')).toMatchObject({ counts: COUNTS, left: {} });
  expect(await read('?most=11')).toMatchObject({
    revision: 19,
    counts: [4, 6, 1, 0, 0, 0],
    left: { 4: 3, 5: 5 },
  });
  expect(await read(`?most=9&near=${pages[4].id}`)).toMatchObject({
    counts: [0, 0, 1, 0, 3, 5],
    left: { 0: 4, 1: 6 },
  });
});

test('the page one was on comes, however much is on it', async () => {
  const reply = await server.app.inject({
    method: 'PUT',
    url: `/api/documents/${id}/reading`,
    payload: { place: { pageId: pages[1].id, share: 0 }, seen: [] },
  });
  expect(reply.statusCode).toBe(204);
  expect(await read('?most=2')).toMatchObject({ counts: [0, 6, 0, 0, 0, 0], total: 6 });
});

test('those of some pages come, also of a page that was removed', async () => {
  const [first, , third] = pages;
  await server.send(id, [operation(id, { type: 'page.remove', pageId: third.id })]);
  try {
    expect(await read(`?pages=${first.id},${third.id}`)).toMatchObject({
      counts: [4, 0, 1, 0, 0, 0],
      left: {},
    });
    expect((await read('?most=2')).left).toMatchObject({ 2: 1 });
  } finally {
    await server.send(id, [operation(id, { type: 'page.add', page: third })]);
  }
});

test('what makes no sense is refused', async () => {
  const many = Array.from({ length: MOST_PAGES_READ + 1 }, newId).join();
  for (const query of ['?most=0', '?most=x', '?pages=', '?pages=1,2', `?pages=${many}`])
    expect((await ask(query)).json()).toMatchObject({ code: 'request-invalid' });
  expect((await ask(`?most=1&pages=${newId()}`)).statusCode).toBe(400);
});
