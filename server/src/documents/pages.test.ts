import { readFileSync } from 'node:fs';
import { newId } from '@stylet/core/document';
import { perform } from '../testing/page-facts';
import { TestServer, operation, realPdf, stroke } from '../testing/server';

let server: TestServer;
beforeAll(async () => (server = await TestServer.start()));
afterAll(() => server.stop());

test('a page that comes anew, of another file and size, is that page', async () => {
  const book = await server.bringIn(readFileSync(realPdf('libmpfr-doc/mpfr.pdf')), 'Book.pdf');
  const other = await server.bringIn(readFileSync(realPdf('gnuplot-doc/gnuplot.pdf')), 'Other.pdf');
  const [before] = (await server.document(book.id)).pages;
  const [wanted] = (await server.document(other.id)).pages;
  expect([wanted.width, wanted.height]).not.toEqual([before.width, before.height]);
  const page = { ...wanted, id: before.id, order: before.order };
  await perform(server, book.id, [{ type: 'page.add', page }]);
  const [after] = (await server.document(book.id)).pages;
  const { source, sourceIndex, width, height } = wanted;
  expect(after).toMatchObject({ id: before.id, source, sourceIndex, width, height });
});

test('a page is added only as the file has it, and the last one stays', async () => {
  const { id } = await server.bringIn(readFileSync(realPdf('libmpfr-doc/mpfr.pdf')), 'Book.pdf');
  const { pages } = await server.document(id);
  const odd = { ...pages[0], id: newId(), width: pages[0].width + 1 };
  const reply = await server.send(id, [operation(id, { type: 'page.add', page: odd })]);
  expect(reply.json()).toMatchObject({ status: 400, code: 'page-unknown' });
  const removing = pages.map((page) => operation(id, { type: 'page.remove', pageId: page.id }));
  expect((await server.send(id, removing)).json()).toMatchObject({ code: 'operation-invalid' });
  // Nothing of a refused batch is done.
  expect((await server.document(id)).pages).toHaveLength(pages.length);
  // Removed, a page comes back with what was written on it.
  const note = stroke(pages[1].id, [
    [10, 10],
    [50, 50],
  ]);
  await perform(server, id, [
    { type: 'annotation.add', annotation: note },
    { type: 'page.remove', pageId: pages[1].id },
  ]);
  expect((await server.document(id)).annotationCount).toBe(0);
  await perform(server, id, [{ type: 'page.add', page: pages[1] }]);
  expect(await server.document(id)).toMatchObject({ annotationCount: 1, pages });
});

test('a page of another document is not taken from it', async () => {
  const [one, other] = await Promise.all(
    ['One.pdf', 'Other.pdf'].map((name) =>
      server.bringIn(readFileSync(realPdf('libmpfr-doc/mpfr.pdf')), name),
    ),
  );
  const [page] = (await server.document(other.id)).pages;
  const reply = await server.send(one.id, [operation(one.id, { type: 'page.add', page })]);
  expect(reply.json()).toMatchObject({ status: 400, code: 'operation-invalid' });
  expect((await server.document(other.id)).pages[0]).toEqual(page);
});
