import { readFileSync } from 'node:fs';
import { sql } from 'drizzle-orm';
import { LOCAL } from '../access/identity';
import { TestServer, operation, realPdf, stroke } from '../testing/server';

let server: TestServer;
let documentId: string;
let pageId: string;
beforeAll(async () => {
  server = await TestServer.start();
}, 120_000);
afterAll(() => server.stop());
beforeEach(async () => {
  documentId = (await server.bringIn(readFileSync(realPdf('debian-refcard/refcard-en-a4.pdf')))).id;
  pageId = (await server.document(documentId)).pages[0].id;
});

const written = (page = pageId) =>
  operation(documentId, { type: 'annotation.add', annotation: stroke(page, [[10, 10]]) });
const send = (...operations: ReturnType<typeof written>[]) =>
  server.services.performer.perform(LOCAL, documentId, operations);

test('what many send at once goes into few commits, in the order in which it came', async () => {
  const all = Array.from({ length: 30 }, () => written());
  const results = await Promise.all(all.map((one) => send(one)));
  expect(results.map(({ operations }) => operations)).toEqual(
    all.map(({ id }, i) => [{ id, revision: i + 1 }]),
  );
  // PostgreSQL manual, 5.5 “System Columns”: xmin is the transaction that inserted a row.
  const { rows } = await server.services.database.execute<{ commits: string }>(
    sql`select count(distinct xmin::text) as commits from operations where document_id = ${documentId}`,
  );
  expect(Number(rows[0].commits)).toBeLessThan(5);
});

test('one that cannot be carried out is told so, and the others are not', async () => {
  const nowhere = written('019a0000-0000-7000-8000-000000000000');
  const [first, ...rest] = await Promise.allSettled([
    send(written()),
    send(written()),
    send(nowhere),
    send(written(), nowhere),
    send(written()),
  ]);
  expect(first.status).toBe('fulfilled');
  expect(rest.map(({ status }) => status)).toEqual([
    'fulfilled',
    'rejected',
    'rejected',
    'fulfilled',
  ]);
  expect(await server.annotations(documentId)).toHaveLength(3);
});

test('what comes twice at once is done once, and both are told the same', async () => {
  const one = written();
  const results = await Promise.all([send(written()), send(one), send(one), send(one)]);
  for (const { operations } of results.slice(1))
    expect(operations).toEqual([{ id: one.id, revision: 2 }]);
});

test('who wrote on a page that is gone is told of it, and nobody else', async () => {
  const { pages } = await server.document(documentId);
  await send(operation(documentId, { type: 'page.remove', pageId }));
  const [, gone, other] = await Promise.all([
    send(written(pages[1].id)),
    send(written()),
    send(written(pages[1].id)),
  ]);
  expect(gone.removedPages.map(({ page }) => page.id)).toEqual([pageId]);
  expect(other.removedPages).toEqual([]);
});
