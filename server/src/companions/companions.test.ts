import { readFileSync } from 'node:fs';
import { newId } from '@stylet/core/document';
import { a4 } from '@stylet/core/paper';
import { TestServer, operation, realPdf, tool } from '../testing/server';

let server: TestServer;
beforeAll(async () => (server = await TestServer.start()), 60_000);
afterAll(() => server.stop());

const paper = { ruling: 'lined', ...a4() };

const make = (payload: Record<string, unknown>) =>
  server.app.inject({ method: 'POST', url: '/api/notebooks', payload });

const keep = (id: string, companionId: string | null) =>
  server.app.inject({
    method: 'PUT',
    url: `/api/documents/${id}/companion`,
    payload: { companionId },
  });

const book = async (): Promise<string> =>
  (await server.bringIn(readFileSync(realPdf('libmpfr-doc/mpfr.pdf')), 'Book.pdf')).id;

test('a notebook is a document of sheets of paper: ISO 216 A4, as pdfinfo reads the export', async () => {
  const reply = await make({ title: 'Notes', paper, sheets: 5 });
  expect(reply.statusCode).toBe(201);
  const { id } = reply.json<{ id: string }>();
  const { pages, title } = await server.document(id);
  expect(title).toBe('Notes');
  expect(pages.map(({ label, sourceIndex }) => [label, sourceIndex])).toEqual(
    Array.from({ length: 5 }, () => [null, 0]),
  );
  const info = tool('pdfinfo', server.file('notes.pdf', await server.export(id, 'editable')));
  expect(info).toMatch(/Pages: +5/);
  expect(info).toContain('(A4)');
  expect((await make({ title: ' ', paper, sheets: 1 })).json()).toMatchObject({ status: 400 });
});

test('one is kept beside a document, another in its place, or none', async () => {
  const id = await book();
  expect((await server.document(id)).companion).toBeNull();
  const made = (await make({ title: 'Beside', paper, sheets: 1, beside: id })).json<{
    id: string;
  }>();
  expect((await server.document(id)).companion).toEqual({ id: made.id, title: 'Beside' });
  const other = await book();
  expect((await keep(id, other)).statusCode).toBe(204);
  expect((await server.document(id)).companion).toEqual({ id: other, title: 'Book' });
  const asked = await server.app.inject(`/api/documents/${id}/companion`);
  expect(asked.json()).toEqual({ companion: { id: other, title: 'Book' } });
  expect((await keep(id, null)).statusCode).toBe(204);
  expect((await server.document(id)).companion).toBeNull();
  expect((await keep(id, id)).json()).toMatchObject({ code: 'companion-invalid' });
  expect((await keep(id, newId())).json()).toMatchObject({ code: 'document-not-found' });
  // Nothing is made for a document that is not there.
  expect((await make({ title: 'N', paper, sheets: 1, beside: newId() })).json()).toMatchObject({
    code: 'document-not-found',
  });
});

test('a page remembers the one it was written beside, until that is taken back', async () => {
  const { id } = (await make({ title: 'Notes', paper, sheets: 2 })).json<{ id: string }>();
  const [first] = (await server.document(id)).pages;
  const beside = { documentId: await book(), pageId: newId() };
  const change = (fields: { beside: typeof beside | null }) =>
    server.send(id, [operation(id, { type: 'page.change', pageId: first.id, fields })]);
  await change({ beside });
  expect((await server.document(id)).pages[0].beside).toEqual(beside);
  await change({ beside: null });
  expect((await server.document(id)).pages[0].beside).toBeNull();
});
