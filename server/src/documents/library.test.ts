import { libraryPartSchema, type LibraryPart } from '@stylet/core/api';
import { newId, type Effect } from '@stylet/core/document';
import { annotationEffect } from '@stylet/core/document/testing';
import fc from 'fast-check';
import { pageCounts } from '../db/schema';
import { blankPdf } from '../testing/pictures';
import { TestServer, operation, stroke } from '../testing/server';

jest.setTimeout(120_000);

let server: TestServer;
const titles = ['Week 10', 'Week 9', 'week 2', 'Almanac', 'Äolian dunes', 'Week 9'];
const ids: string[] = [];
beforeAll(async () => {
  server = await TestServer.start();
  for (const title of titles) ids.push((await server.bringIn(blankPdf(3), `${title}.pdf`)).id);
});
afterAll(() => server.stop());

async function list(query: Record<string, string>): Promise<LibraryPart> {
  const reply = await server.app.inject(`/api/documents?${new URLSearchParams(query)}`);
  if (reply.statusCode !== 200) throw new Error(reply.body);
  return libraryPartSchema.parse(reply.json());
}

/** All there are, asked for two at a time. */
async function inParts(query: Record<string, string>): Promise<string[]> {
  const all: string[] = [];
  let after: string | null = null;
  do {
    const part: LibraryPart = await list({ ...query, limit: '2', ...(after ? { after } : {}) });
    expect(part.documents.length).toBeLessThanOrEqual(2);
    all.push(...part.documents.map(({ id }) => id));
    after = part.next;
  } while (after !== null);
  return all;
}

test.each(['changed', 'added', 'title'])(
  'in the order “%s” parts have each document once, as the whole has them',
  async (sort) => {
    const whole = (await list({ sort })).documents.map(({ id }) => id);
    expect([...whole].sort()).toEqual([...ids].sort());
    expect(await inParts({ sort })).toEqual(whole);
  },
);

test('titles go as people sort them; what was changed last comes first', async () => {
  const { documents } = await list({ sort: 'title' });
  // As Intl.Collator (ECMA-402, `numeric`) has it.
  const expected = [...titles].sort(new Intl.Collator('und', { numeric: true }).compare);
  expect(documents.map(({ title }) => title)).toEqual(expected);
  await server.send(ids[3], [operation(ids[3], { type: 'document.rename', title: 'Almanac' })]);
  expect((await list({})).documents[0].id).toBe(ids[3]);
  expect((await list({ sort: 'added' })).documents[0].id).toBe(ids.at(-1));
});

test('a folder has its own, what lies within it is found by words of the title', async () => {
  const [outer, inner] = [newId(), newId()];
  const put = (url: string, payload: object) => server.app.inject({ method: 'PUT', url, payload });
  await put(`/api/folders/${outer}`, { name: 'Season', parentId: null });
  await put(`/api/folders/${inner}`, { name: 'Autumn', parentId: outer });
  await put(`/api/documents/${ids[0]}/folder`, { folderId: inner });
  await put(`/api/documents/${ids[1]}/folder`, { folderId: outer });
  const found = async (query: Record<string, string>) =>
    (await list(query)).documents.map(({ id }) => id).sort();
  expect(await found({ folder: outer })).toEqual([ids[1]]);
  expect(await found({ folder: inner })).toEqual([ids[0]]);
  expect(await found({ folder: 'none' })).toEqual(ids.slice(2).sort());
  expect(await found({ within: outer })).toEqual([ids[0], ids[1]].sort());
  expect(await found({ within: outer, title: '10 WEEK' })).toEqual([ids[0]]);
  expect(await found({ title: 'week 9' })).toEqual([ids[1], ids[5]].sort());
  expect(await found({ title: '%' })).toEqual([]);
  const folders = (await server.app.inject('/api/folders')).json<{
    folders: { id: string; documents: number }[];
    outside: number;
  }>();
  expect(folders.outside).toBe(4);
  expect(folders.folders.map(({ documents }) => documents)).toEqual([1, 1]);
});

test.each(['!', 'WyJ4Il0', Buffer.from('["1","not-an-id"]').toString('base64url')])(
  'a place that was never told (%s) is refused',
  async (after) => {
    const reply = await server.app.inject(`/api/documents?after=${encodeURIComponent(after)}`);
    expect([reply.statusCode, reply.json<{ code: string }>().code]).toEqual([
      400,
      'request-invalid',
    ]);
  },
);

/** What the counts would be if they were counted. */
async function counted(id: string): Promise<[number, number]> {
  const pages = (await server.document(id)).pages.map((page) => page.id);
  const there = (await server.annotations(id)).filter(({ pageId }) => pages.includes(pageId));
  return [pages.length, there.length];
}

test('whatever is done to a document, its counts are what is there', async () => {
  const { id } = await server.bringIn(blankPdf(3), 'Counted.pdf');
  const { pages } = await server.document(id);
  const pageOf = (n: number): string => pages[n % 3].id;
  // The ids of the arbitrary stand for the document's own pages.
  const onPages = annotationEffect.map((effect): Effect => {
    const at =
      effect.type === 'annotation.add' ? effect.annotation : (effect as { pageId: string });
    const pageId = pageOf(Number(at.pageId.slice(-1)));
    if (effect.type !== 'annotation.add') return { ...effect, pageId } as Effect;
    const { id: annotationId } = effect.annotation;
    return {
      ...effect,
      annotation: {
        ...stroke(pageId, [
          [1, 1],
          [2, 2],
        ]),
        id: annotationId,
      },
    };
  });
  const onDocument: fc.Arbitrary<Effect> = fc.oneof(
    fc.nat(1).map((n): Effect => ({ type: 'page.remove', pageId: pageOf(n) })),
    fc.nat(1).map((n): Effect => ({ type: 'page.add', page: pages[n] })),
  );
  await fc.assert(
    fc.asyncProperty(
      fc.array(fc.oneof({ weight: 3, arbitrary: onPages }, onDocument), {
        minLength: 1,
        maxLength: 12,
      }),
      async (effects) => {
        const reply = await server.send(
          id,
          effects.map((effect) => operation(id, effect)),
        );
        expect(reply.statusCode).toBe(200);
        const { pageCount, annotationCount } = await server.document(id);
        expect([pageCount, annotationCount]).toEqual(await counted(id));
        const all = await server.annotations(id);
        const onEach = await server.services.database.select().from(pageCounts);
        for (const { pageId, annotations } of onEach)
          expect(annotations).toBe(all.filter((a) => a.pageId === pageId).length);
        expect(onEach.length).toBeGreaterThanOrEqual(new Set(all.map((a) => a.pageId)).size);
      },
    ),
    { numRuns: 40 },
  );
});

test('a copy, and what came with annotations, are counted too', async () => {
  const { id } = await server.bringIn(blankPdf(2), 'Copied.pdf');
  const [page] = (await server.document(id)).pages;
  await server.send(id, [
    operation(id, {
      type: 'annotation.add',
      annotation: stroke(page.id, [
        [1, 1],
        [9, 9],
      ]),
    }),
  ]);
  const copy = (
    await server.app.inject({ method: 'POST', url: `/api/documents/${id}/duplicate` })
  ).json<{ id: string; pageCount: number; annotationCount: number }>();
  expect([copy.pageCount, copy.annotationCount]).toEqual([2, 1]);
  const again = await server.bringIn(await server.export(id, 'editable'), 'Again.pdf');
  expect([again.pageCount, again.annotationCount]).toEqual([2, 1]);
});
