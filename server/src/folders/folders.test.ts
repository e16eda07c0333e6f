import { randomUUID } from 'node:crypto';
import { readFileSync } from 'node:fs';
import { findResultSchema, folderListSchema } from '@stylet/core/api';
import { TestServer, realPdf } from '../testing/server';

jest.setTimeout(60_000);

let server: TestServer;
beforeAll(async () => (server = await TestServer.start()));
afterAll(() => server.stop());

const put = (url: string, payload: object) => server.app.inject({ method: 'PUT', url, payload });
const folders = async () =>
  folderListSchema.parse((await server.app.inject('/api/folders')).json()).folders;

/** Makes a folder; its id. */
async function make(name: string, parentId: string | null = null): Promise<string> {
  const id = randomUUID();
  const reply = await put(`/api/folders/${id}`, { name, parentId });
  expect(reply.statusCode).toBe(204);
  return id;
}

const place = (documentId: string, folderId: string | null) =>
  put(`/api/documents/${documentId}/folder`, { folderId });

const card = readFileSync(realPdf('asymptote-doc/asyRefCard.pdf'));

test('folders are made, listed by name, renamed and moved, and never into themselves', async () => {
  const [season, week] = [await make('Season'), await make('  Week 1 ')];
  await put(`/api/folders/${week}`, { name: 'Autumn', parentId: season });
  expect(await folders()).toEqual([
    { id: week, name: 'Autumn', parentId: season, documents: 0 },
    { id: season, name: 'Season', parentId: null, documents: 0 },
  ]);
  for (const parentId of [week, season]) {
    const reply = await put(`/api/folders/${season}`, { name: 'Season', parentId });
    expect([reply.statusCode, reply.json<{ code: string }>().code]).toEqual([
      400,
      'folder-inside-itself',
    ]);
  }
  const lost = await put(`/api/folders/${randomUUID()}`, { name: 'Lost', parentId: randomUUID() });
  expect([lost.statusCode, lost.json<{ code: string }>().code]).toEqual([404, 'folder-not-found']);
  expect((await put(`/api/folders/${season}`, { name: ' ', parentId: null })).statusCode).toBe(400);
});

test('what is in a folder that is taken away moves up, and nothing is lost', async () => {
  const outer = await make('Outer');
  const inner = await make('Inner', outer);
  const innermost = await make('Innermost', inner);
  const reply = await server.upload(card, 'Card.pdf', `/api/documents?folder=${inner}`);
  const { id, folderId } = reply.json<{ id: string; folderId: string }>();
  expect(folderId).toBe(inner);
  const gone = await server.app.inject({ method: 'DELETE', url: `/api/folders/${inner}` });
  expect(gone.statusCode).toBe(204);
  expect(await server.document(id)).toMatchObject({ folderId: outer });
  expect((await folders()).find((folder) => folder.id === innermost)?.parentId).toBe(outer);
  const again = await server.app.inject({ method: 'DELETE', url: `/api/folders/${inner}` });
  expect(again.statusCode).toBe(404);
});

test('a document goes into a folder that there is, and out again', async () => {
  const folder = await make('Cards');
  const { id } = await server.bringIn(card, 'Card.pdf');
  expect((await server.document(id)).folderId).toBeNull();
  expect((await place(id, folder)).statusCode).toBe(204);
  expect((await server.document(id)).folderId).toBe(folder);
  expect((await place(id, randomUUID())).json()).toMatchObject({ code: 'folder-not-found' });
  expect((await place(randomUUID(), folder)).json()).toMatchObject({ code: 'document-not-found' });
  expect((await place(id, null)).statusCode).toBe(204);
  expect((await server.document(id)).folderId).toBeNull();
  const lost = await server.upload(card, 'Card.pdf', `/api/documents?folder=${randomUUID()}`);
  expect(lost.json()).toMatchObject({ code: 'folder-not-found' });
});

test('words are found in a folder, in those within it, and not beside it', async () => {
  const outer = await make('Manuals');
  const inner = await make('Numbers', outer);
  const [asymptote, mpfr] = [
    await server.bringIn(card, 'Drawing card.pdf'),
    await server.bringIn(readFileSync(realPdf('libmpfr-doc/mpfr.pdf')), 'Number manual.pdf'),
  ];
  await server.index();
  await place(asymptote.id, outer);
  await place(mpfr.id, inner);
  const found = async (typed: string, folder: string): Promise<string[]> => {
    const url = `/api/find?typed=${encodeURIComponent(typed)}&folder=${folder}`;
    const { documents } = findResultSchema.parse((await server.app.inject(url)).json());
    return documents.map(({ title }) => title).sort();
  };
  expect(await found('mpfr', outer)).toEqual(['Number manual']);
  expect(await found('mpfr', inner)).toEqual(['Number manual']);
  expect(await found('asymptote', inner)).toEqual([]);
  expect(await found('asymptote', outer)).toEqual(['Drawing card']);
  expect(await found('manual', inner)).toEqual(['Number manual']);
  const lost = await server.app.inject(`/api/find?typed=card&folder=${randomUUID()}`);
  expect(lost.json()).toMatchObject({ code: 'folder-not-found', status: 404 });
});
