import { newId } from '@stylet/core/document';
import type { Reading } from '@stylet/core/api';
import { blankPdf } from '../testing/pictures';
import { TestServer } from '../testing/server';

let server: TestServer;
beforeAll(async () => (server = await TestServer.start()), 60_000);
afterAll(() => server.stop());

const put = (id: string, payload: object) =>
  server.app.inject({ method: 'PUT', url: `/api/documents/${id}/reading`, payload });
const reading = async (id: string): Promise<Reading> =>
  (await server.app.inject(`/api/documents/${id}/reading`)).json();

test('where one is and what one has seen are kept, and come with the document', async () => {
  const { id } = await server.bringIn(blankPdf(3), 'Notes.pdf');
  const { pages, place } = await server.document(id);
  expect(place).toBeNull();
  expect(await reading(id)).toEqual({ place: null, seen: [] });
  const first = { place: { pageId: pages[1].id, share: 0.25 }, seen: [pages[0].id, pages[1].id] };
  expect((await put(id, first)).statusCode).toBe(204);
  const second = { place: { pageId: pages[2].id, share: 0.5 }, seen: [pages[1].id] };
  expect((await put(id, second)).statusCode).toBe(204);
  expect((await server.document(id)).place).toEqual(second.place);
  const { seen } = await reading(id);
  const byPage = new Map(seen.map((page) => [page.pageId, page]));
  expect([...byPage.keys()].sort()).toEqual([pages[0].id, pages[1].id].sort());
  const again = byPage.get(pages[1].id)!;
  expect(again.last > again.first).toBe(true);
  expect(again.first).toBe(byPage.get(pages[0].id)!.first);
});

test('pages of other documents, or that are gone, are passed over', async () => {
  const { id } = await server.bringIn(blankPdf(1), 'One.pdf');
  const other = await server.document((await server.bringIn(blankPdf(1), 'Other.pdf')).id);
  const theirs = other.pages[0].id;
  const report = { place: { pageId: newId(), share: 0 }, seen: [theirs, newId()] };
  expect((await put(id, report)).statusCode).toBe(204);
  expect(await reading(id)).toEqual({ place: null, seen: [] });
  expect((await reading(other.id)).seen).toEqual([]);
});

test('of a document there is not, nothing is kept', async () => {
  const reply = await put(newId(), { place: { pageId: newId(), share: 0 }, seen: [] });
  expect(reply.statusCode).toBe(404);
  expect(reply.json()).toMatchObject({ code: 'document-not-found' });
});
