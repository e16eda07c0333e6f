import { randomUUID } from 'node:crypto';
import { findResultSchema, savedSearchListSchema, type FindResult } from '@stylet/core/api';
import { newId, type Effect } from '@stylet/core/document';
import { packWords } from '@stylet/core/find';
import { eq } from 'drizzle-orm';
import { indexing, sourceTexts, terms } from '../db/schema';
import { lexemesOf, piecesIn } from '../indexing/lexemes';
import { claimReading, storeTexts } from '../indexing/store';
import { blankPdf } from '../testing/pictures';
import { TestServer, operation } from '../testing/server';

jest.setTimeout(30_000);

let server: TestServer;
beforeAll(async () => (server = await TestServer.start()), 60_000);
afterAll(() => server.stop());

async function find(typed: string, more: Record<string, string> = {}): Promise<FindResult> {
  const query = new URLSearchParams({ typed, ...more }).toString();
  const reply = await server.app.inject(`/api/find?${query}`);
  if (reply.statusCode !== 200) throw new Error(reply.body);
  return findResultSchema.parse(reply.json());
}

/** Each hit's title, kind, page and match. */
async function hits(typed: string, more?: Record<string, string>) {
  const { documents } = await find(typed, more);
  return documents.flatMap(({ title, hits: list }) =>
    list.map(({ kind, page, match }) => [title, kind, page?.label, match]),
  );
}

let made = 0;
/** Blank pages in a file that no other test has. */
const freshPdf = (pages: number): Buffer =>
  Buffer.concat([blankPdf(pages), Buffer.from(`% ${++made}\n`)]);

/** A document whose pages say something, as if that had been read of them. */
async function documentSaying(title: string, texts: readonly string[]) {
  const { id } = await server.bringIn(freshPdf(texts.length), `${title}.pdf`);
  const { pages } = await server.document(id);
  const read = texts.map((text, sourceIndex) => {
    const starts = Int32Array.from([...text.matchAll(/\S+/g)], ({ index }) => index);
    const words = packWords({ starts, boxes: new Float32Array(5 * starts.length) });
    return { sourceIndex, layer: 'text' as const, text, words, lexemes: lexemesOf(text) };
  });
  const counted = new Map<string, number>();
  for (const { text } of read)
    for (const piece of piecesIn(text).keys()) counted.set(piece, (counted.get(piece) ?? 0) + 1);
  const { database } = server.services;
  const found = { texts: read, terms: counted, troubles: [] };
  await storeTexts(database, pages[0].source, 0, texts.length, found);
  return { id, pages };
}

const change = async (id: string, ...effects: Effect[]): Promise<void> => {
  const reply = await server.send(
    id,
    effects.map((effect) => operation(id, effect)),
  );
  if (reply.statusCode !== 200) throw new Error(reply.body);
};
const created = '2026-09-01T08:00:00.000Z';

test('words of pages, with what is around them, counted by document', async () => {
  await documentSaying('Salt marsh', ['A creek drains the marsh', 'The creek is tidal', 'Reeds']);
  const result = await find('creek');
  expect(result).toMatchObject({ documentCount: 1, pageCount: 2, isAbout: false });
  expect(result.documents[0]).toMatchObject({ title: 'Salt marsh', pages: 2 });
  expect(
    result.documents[0].hits.map(({ before, match, after }) => [before, match, after]),
  ).toEqual(expect.arrayContaining([['A ', 'creek', ' drains the marsh']]));
});

test('parts of words, whole words, case, phrases, and what must not be there', async () => {
  await documentSaying('Forms', ['Foreshore slopes', 'the shore, in fore', 'SHORE-parallel bars']);
  const pages = async (typed: string, more?: Record<string, string>) =>
    (await hits(typed, more)).map(([, , label]) => label).sort();
  expect(await pages('shore')).toEqual(['1', '2', '3']);
  expect(await pages('shore', { wholeWords: 'true' })).toEqual(['2', '3']);
  expect(await pages('SHORE', { keepsCase: 'true' })).toEqual(['3']);
  expect(await pages('"shore-parallel"')).toEqual(['3']);
  expect(await pages('"shore parallel"')).toEqual([]);
  expect(await pages('"in fore"')).toEqual(['2']);
  expect(await pages('"fore in"')).toEqual([]);
  expect(await pages('shore -bars')).toEqual(['1', '2']);
  expect(await pages('shore -"in fore"')).toEqual(['1', '3']);
});

test('where more pages match than are looked at, documents still come one after the other, each once', async () => {
  for (let i = 0; i < 14; i++)
    await documentSaying(
      `Log ${i}`,
      Array.from({ length: 31 }, () => `zostera in the log`),
    );
  const titles: string[] = [];
  for (const from of ['0', '12']) {
    const { documents, documentCount, pageCount } = await find('zostera', { from });
    expect([documentCount, pageCount]).toEqual([14, 434]);
    expect(documents.every(({ pages, hits: list }) => pages === 31 && list.length === 3)).toBe(
      true,
    );
    titles.push(...documents.map(({ title }) => title));
  }
  expect(new Set(titles).size).toBe(14);
  expect(titles).toHaveLength(14);
});

test('text without spaces between its words', async () => {
  await documentSaying('潮汐', ['第一章 潮汐と砂浜の観測', '砂の粒']);
  expect(await hits('砂浜')).toEqual([['潮汐', 'text', '1', '砂浜']]);
  expect(await hits('浜砂')).toEqual([]);
  expect((await hits('潮汐')).map(([, kind]) => kind)).toEqual(['title', 'text']);
});

test('a misspelt word: its neighbours are offered, or found where that is asked for', async () => {
  await documentSaying('Creek survey', ['salinity of the estuary', 'salinity again']);
  const offered = await find('salintiy');
  expect(offered).toMatchObject({ documentCount: 0 });
  expect(offered.neighbours).toEqual([{ typed: 'salintiy', word: 'salinity' }]);
  const found = await hits('salintiy', { near: 'true' });
  expect(found.map(([, , label, match]) => [label, match]).sort()).toEqual([
    ['1', 'salinity'],
    ['2', 'salinity'],
  ]);
});

test('what people named is found from the moment they did, under the name it has now, until it goes', async () => {
  const { id, pages } = await documentSaying('Notes', ['nothing', 'here']);
  const [bookmark, keyword, entry, link, note] = Array.from({ length: 5 }, () => newId());
  const place = { pageId: pages[1].id, x: 10, y: 20 };
  await change(
    id,
    {
      type: 'landmark.add',
      landmark: { kind: 'bookmark', id: bookmark, place, title: 'Quagmire', created },
    },
    {
      type: 'landmark.add',
      landmark: { kind: 'keyword', id: keyword, place, word: 'quagmires', created },
    },
    {
      type: 'landmark.add',
      landmark: {
        kind: 'outline',
        id: entry,
        order: 'a0',
        title: 'The quagmire',
        place,
        open: true,
      },
    },
    {
      type: 'annotation.add',
      annotation: {
        kind: 'link',
        id: link,
        pageId: pages[0].id,
        order: 'a1',
        opacity: 1,
        author: '',
        created,
        modified: created,
        quads: [[0, 0, 10, 0, 0, 5, 10, 5]],
        contents: '',
        target: { address: 'https://tidewater.example/quagmire' },
      },
    },
    {
      type: 'annotation.add',
      annotation: {
        ...{ id: note, pageId: pages[0].id, order: 'a2', opacity: 1, author: '' },
        ...{ created, modified: created, kind: 'note', color: '#ffe27a', at: { x: 7, y: 8 } },
        paragraphs: [{ runs: [{ text: 'Which saltmarsh?' }] }],
      },
    },
    {
      type: 'annotation.add',
      annotation: {
        ...{ id: newId(), pageId: pages[0].id, order: 'a3', opacity: 1, author: '' },
        ...{ created, modified: created, kind: 'reply', to: note },
        paragraphs: [{ runs: [{ text: 'The saltmarsh of the north' }] }],
      },
    },
  );
  const kinds = async (typed: string) =>
    (await hits(typed)).map(([, kind, label]) => `${kind} ${label}`).sort();
  expect(await kinds('quagmire')).toEqual(['bookmark 2', 'keyword 2', 'outline 2']);
  expect(await kinds('tidewater.example')).toEqual(['address 1']);
  expect(await kinds('saltmarsh')).toEqual(['contents 1', 'contents 1']);
  const { documents } = await find('quagmire', { document: id });
  expect(documents[0].hits[0].boxes).toEqual([{ x0: 10, y0: 20, x1: 10, y1: 20 }]);
  await change(
    id,
    { type: 'document.rename', title: 'Quagmires of the estuary' },
    { type: 'landmark.change', landmarkId: bookmark, fields: { title: 'Firm ground' } },
    { type: 'landmark.remove', landmarkId: keyword },
    { type: 'annotation.remove', pageId: pages[0].id, annotationId: link },
  );
  expect(await kinds('quagmire')).toEqual(['outline 2', 'title undefined']);
  expect(await kinds('"firm ground"')).toEqual(['bookmark 2']);
  expect(await kinds('tidewater.example')).toEqual([]);
  await change(id, { type: 'page.remove', pageId: pages[1].id });
  expect(await kinds('"firm ground"')).toEqual([]);
});

test('a page that is copied into another document is found there without being read', async () => {
  const from = await documentSaying('Source', ['verdigris pebbles', 'gravel']);
  const to = await documentSaying('Target', ['nothing of it']);
  const { pages } = await server.document(from.id);
  await change(to.id, {
    type: 'page.add',
    page: { ...pages[0], id: newId(), order: 'b0', label: null },
  });
  expect((await hits('verdigris')).map(([title, , label]) => [title, label]).sort()).toEqual([
    ['Source', '1'],
    ['Target', '2'],
  ]);
  await change(from.id, { type: 'page.remove', pageId: pages[0].id });
  expect((await hits('verdigris')).map(([title]) => title)).toEqual(['Target']);
});

test('reading that was broken off goes on where it was, and what is read twice is stored once', async () => {
  const { database } = server.services;
  const { pages } = await server.document((await server.bringIn(freshPdf(3))).id);
  const { source } = pages[0];
  const words = packWords({ starts: Int32Array.of(0), boxes: new Float32Array(5) });
  const read = (sourceIndex: number) => ({
    texts: [
      { sourceIndex, layer: 'text' as const, text: 'kelp', words, lexemes: lexemesOf('kelp') },
    ],
    terms: new Map([['kelp', 1]]),
    troubles: [],
  });
  await storeTexts(database, source, 0, 1, read(0));
  // Another server that read the same page comes too late.
  await storeTexts(database, source, 0, 1, read(0));
  expect(await database.select().from(terms).where(eq(terms.term, 'kelp'))).toEqual([
    { term: 'kelp', pages: 1 },
  ]);
  const state = async () =>
    (await server.app.inject('/api/indexing')).json<{
      documents: { pages: number; done: number }[];
    }>();
  expect((await state()).documents).toEqual([expect.objectContaining({ pages: 3, done: 1 })]);
  // Whoever claimed it last is gone; until then nobody else takes it.
  expect(await claimReading(database)).toBeUndefined();
  await database.update(indexing).set({ claimed: new Date(Date.now() - 120_000) });
  expect(await claimReading(database)).toMatchObject({ source, done: 1, pages: 3 });
  expect(await claimReading(database)).toBeUndefined();
  await database.update(indexing).set({ claimed: null });
  await server.index();
  expect((await state()).documents).toEqual([]);
  const kept = await database.select({ text: sourceTexts.text }).from(sourceTexts);
  expect(kept.filter(({ text }) => text === 'kelp')).toHaveLength(1);
});

test('nothing to look for is said', async () => {
  for (const typed of ['', '-only', '->', '“”']) {
    const reply = await server.app.inject(`/api/find?typed=${encodeURIComponent(typed)}`);
    expect([reply.statusCode, reply.json<{ code: string }>().code]).toEqual([
      400,
      'find-without-words',
    ]);
  }
});

test('searches are saved, renamed and forgotten', async () => {
  const id = randomUUID();
  const search = { typed: 'berm', keepsCase: false, wholeWords: true, near: false };
  const list = async () =>
    savedSearchListSchema.parse((await server.app.inject('/api/searches')).json()).searches;
  const url = `/api/searches/${id}`;
  await server.app.inject({ method: 'PUT', url, payload: { name: 'Berms', search } });
  await server.app.inject({ method: 'PUT', url, payload: { name: 'All berms', search } });
  expect(await list()).toEqual([{ id, name: 'All berms', search }]);
  expect((await server.app.inject({ method: 'DELETE', url })).statusCode).toBe(204);
  expect(await list()).toEqual([]);
  const again = await server.app.inject({ method: 'DELETE', url });
  expect(again.json()).toMatchObject({ code: 'search-not-found', status: 404 });
});
