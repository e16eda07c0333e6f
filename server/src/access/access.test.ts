import { readFileSync } from 'node:fs';
import { newId } from '@stylet/core/document';
import { a4 } from '@stylet/core/paper';
import { usualSetup } from '@stylet/core/typed-pages';
import { sql } from 'drizzle-orm';
import fastify, { type InjectOptions } from 'fastify';
import { guardRoutes, see } from './guard';
import { everyoneIsLocal } from './identity';
import { blankPdf, image, picture, putIn } from '../testing/pictures';
import { TEST_ACCOUNT, TestServer, operation, realPdf, stroke } from '../testing/server';

const SOMEBODY = 'somebody';
let server: TestServer;
let mine: Mine;
beforeAll(async () => {
  server = await TestServer.start();
  await server.services.database.execute(sql`insert into accounts (id) values (${SOMEBODY})`);
  mine = await everything();
}, 120_000);
afterAll(() => server.stop());

/** What the one account has, a thing of each sort. */
interface Mine {
  readonly document: string;
  readonly pageId: string;
  readonly source: string;
  readonly picture: string;
  readonly drawn: string;
  readonly folder: string;
  readonly dictionary: string;
  readonly search: string;
  readonly sheet: string;
}

const ask = (account: string, request: InjectOptions) =>
  server.app.inject({ ...request, headers: { ...request.headers, [TEST_ACCOUNT]: account } });

const multipart = (
  name: string,
  bytes: Uint8Array,
): Pick<InjectOptions, 'payload' | 'headers'> => ({
  payload: Buffer.concat([
    Buffer.from(
      `--stylet\r\ncontent-disposition: form-data; name="file"; filename="${name}"\r\n\r\n`,
    ),
    bytes,
    Buffer.from('\r\n--stylet--\r\n'),
  ]),
  headers: { 'content-type': 'multipart/form-data; boundary=stylet' },
});

async function everything(): Promise<Mine> {
  const { id } = await server.bringIn(
    readFileSync(realPdf('libmpfr-doc/mpfr.pdf')),
    'Zinnober.pdf',
  );
  const { pages } = await server.document(id);
  const facts = await putIn(server, await image(8, 8).png().toBuffer());
  const svg =
    '<svg xmlns="http://www.w3.org/2000/svg" width="9" height="9"><path d="M0 0h9v9z"/></svg>';
  const drawn = await putIn(server, Buffer.from(svg));
  const [folder, search, sheet] = [newId(), newId(), newId()];
  const put = async (url: string, payload: object): Promise<void> => {
    const reply = await server.app.inject({ method: 'PUT', url, payload });
    expect(reply.statusCode).toBe(204);
  };
  await put(`/api/folders/${folder}`, { name: 'Zinnober', parentId: null });
  await put('/api/stamps', {
    sheets: [{ id: sheet, name: 'Zinnober', order: 'a0', removed: false }],
    stamps: [],
  });
  await put(`/api/documents/${id}/folder`, { folderId: folder });
  await put(`/api/searches/${search}`, { name: 'Zinnober', search: wanted });
  await put(`/api/documents/${id}/reading`, {
    place: { pageId: pages[0].id, share: 0.5 },
    seen: [],
  });
  const keyword = {
    kind: 'keyword' as const,
    id: newId(),
    place: { pageId: pages[0].id },
    word: 'zinnober',
    created: '2026-09-01T08:00:00.000Z',
  };
  await server.send(id, [
    operation(id, { type: 'landmark.add', landmark: keyword }),
    operation(id, {
      type: 'annotation.add',
      annotation: stroke(pages[0].id, [
        [1, 1],
        [9, 9],
      ]),
    }),
  ]);
  const added = await server.app.inject({
    method: 'POST',
    url: '/api/dictionaries',
    ...multipart('zinnober.txt', Buffer.from('zinnober\ta red\n')),
  });
  const trashed = await server.bringIn(blankPdf(1), 'Zinnober, old.pdf');
  await put(`/api/documents/${trashed.id}/trash`, { trashed: true });
  await server.index();
  return {
    document: id,
    pageId: pages[0].id,
    source: pages[0].source,
    picture: facts.digest,
    drawn: drawn.digest,
    folder,
    search,
    sheet,
    dictionary: added.json<{ id: string }>().id,
  };
}

const wanted = { typed: 'precision', keepsCase: false, wholeWords: false, near: false };
const paper = { ruling: 'lined', ...a4() };

/** `none`: what is asked for is not there. `nothing of it`: an answer, with nothing of the other account. */
type Answer = 'none' | 'nothing of it';
type Asked = readonly [answer: Answer, request: Omit<InjectOptions, 'method'>];

/** Each route of the API, asked for what belongs to another account. */
const routes = (): Record<string, readonly Asked[]> => {
  const { document, pageId, source, folder, dictionary, search } = mine;
  const on = `/api/documents/${document}`;
  const none = (url: string, payload?: object): Asked[] => [
    ['none', payload ? { url, payload } : { url }],
  ];
  const list = (url: string): Asked[] => [['nothing of it', { url }]];
  const pdf = multipart('Mine.pdf', blankPdf(1));
  return {
    'GET /api/addresses': list('/api/addresses'),
    'GET /api/health': list('/api/health'),
    'GET /api/voices': list('/api/voices'),
    'POST /api/speech': [
      ['nothing of it', { url: '/api/speech', payload: { voice: 'none', text: 'a' } }],
    ],
    'GET /api/documents': [
      ['nothing of it', { url: '/api/documents' }],
      ['none', { url: `/api/documents?folder=${folder}` }],
      ['none', { url: `/api/documents?within=${folder}` }],
    ],
    'POST /api/documents': [
      ['none', { url: `/api/documents?folder=${folder}`, ...pdf }],
      ['nothing of it', { url: '/api/documents', ...pdf }],
    ],
    'GET /api/documents/{id}': none(on),
    'DELETE /api/documents/{id}': none(on),
    'POST /api/documents/{id}/duplicate': none(`${on}/duplicate`),
    'GET /api/documents/{id}/annotations': none(`${on}/annotations`),
    'GET /api/documents/{id}/operations': none(`${on}/operations?since=0`),
    'POST /api/documents/{id}/operations': none(`${on}/operations`, {
      operations: [operation(document, { type: 'document.rename', title: 'Taken' })],
    }),
    'GET /api/documents/{id}/cover': none(`${on}/cover`),
    'GET /api/documents/{id}/reading': none(`${on}/reading`),
    'PUT /api/documents/{id}/reading': none(`${on}/reading`, {
      place: { pageId, share: 0 },
      seen: [],
    }),
    'PUT /api/documents/{id}/folder': none(`${on}/folder`, { folderId: null }),
    'PUT /api/documents/{id}/trash': none(`${on}/trash`, { trashed: true }),
    'GET /api/documents/{id}/companion': none(`${on}/companion`),
    'PUT /api/documents/{id}/companion': none(`${on}/companion`, { companionId: null }),
    'GET /api/documents/{id}/text': none(`${on}/text`),
    'GET /api/documents/{id}/text/export': none(`${on}/text/export?as=html`),
    'PUT /api/documents/{id}/text': none(`${on}/text`, {
      base: source,
      text: { setup: usualSetup(), blocks: [{ kind: 'rule' }] },
      author: 'Somebody',
    }),
    'GET /api/documents/{id}/export': none(`${on}/export`),
    'GET /api/documents/{id}/export/report': none(`${on}/export/report`),
    'GET /api/documents/{id}/original': none(`${on}/original`),
    'GET /api/documents/{id}/file': none(`${on}/file`),
    'GET /api/documents/{id}/files': none(`${on}/files`),
    'GET /api/documents/{id}/files/{index}': none(`${on}/files/0`),
    'POST /api/documents/{id}/snips': none(`${on}/snips`, {
      pageId,
      region: { x0: 0, y0: 0, x1: 50, y1: 50 },
      annotations: true,
    }),
    'POST /api/notebooks': [
      [
        'none',
        { url: '/api/notebooks', payload: { title: 'N', paper, sheets: 1, beside: document } },
      ],
      ['nothing of it', { url: '/api/notebooks', payload: { title: 'N', paper, sheets: 1 } }],
    ],
    'GET /api/trash': list('/api/trash'),
    'GET /api/folders': list('/api/folders'),
    'PUT /api/folders/{id}': [
      ['none', { url: `/api/folders/${folder}`, payload: { name: 'Taken', parentId: null } }],
      ['none', { url: `/api/folders/${newId()}`, payload: { name: 'In it', parentId: folder } }],
    ],
    'DELETE /api/folders/{id}': none(`/api/folders/${folder}`),
    'GET /api/sources/{digest}': none(`/api/sources/${source}`),
    'GET /api/sources/{digest}/miniatures/{tray}': none(`/api/sources/${source}/miniatures/0`),
    'GET /api/sources/{digest}/texts/{part}': none(`/api/sources/${source}/texts/0`),
    'POST /api/sources': [['nothing of it', { url: '/api/sources', ...pdf }]],
    'POST /api/papers': [['nothing of it', { url: '/api/papers', payload: paper }]],
    'POST /api/pictures': [
      [
        'nothing of it',
        {
          url: '/api/pictures',
          ...multipart(
            'a.svg',
            Buffer.from('<svg xmlns="http://www.w3.org/2000/svg" width="5" height="5"/>'),
          ),
        },
      ],
    ],
    'GET /api/pictures/{digest}': none(`/api/pictures/${mine.picture}`),
    'GET /api/pictures/{digest}/page': none(`/api/pictures/${mine.drawn}/page`),
    'GET /api/stamps': list('/api/stamps'),
    'PUT /api/stamps': none('/api/stamps', {
      sheets: [{ id: mine.sheet, name: 'Taken', order: 'a0', removed: false }],
      stamps: [],
    }),
    'GET /api/stamp-sheets/{id}/pdf': none(`/api/stamp-sheets/${mine.sheet}/pdf`),
    'POST /api/drawings': none('/api/drawings', {
      annotations: [
        picture(
          newId(),
          { digest: mine.picture, medium: 'pixels', width: 8, height: 8 },
          [0, 0, 9, 9],
        ),
      ],
    }),
    'POST /api/sheet-pages': [['nothing of it', { url: '/api/sheet-pages', ...pdf }]],
    'GET /api/kit': list('/api/kit'),
    'PUT /api/kit': [['nothing of it', { url: '/api/kit', payload: kit }]],
    'GET /api/keywords': list('/api/keywords'),
    'GET /api/find': [
      ['nothing of it', { url: '/api/find?typed=precision' }],
      ['nothing of it', { url: `/api/find?typed=precision&document=${document}` }],
      ['nothing of it', { url: '/api/find?typed=zinnober' }],
      ['none', { url: `/api/find?typed=precision&folder=${folder}` }],
    ],
    'GET /api/indexing': list('/api/indexing'),
    'GET /api/searches': list('/api/searches'),
    'PUT /api/searches/{id}': none(`/api/searches/${search}`, { name: 'Taken', search: wanted }),
    'DELETE /api/searches/{id}': none(`/api/searches/${search}`),
    'GET /api/lookup': list('/api/lookup?word=zinnober'),
    'GET /api/dictionaries': list('/api/dictionaries'),
    'POST /api/dictionaries': [
      [
        'nothing of it',
        { url: '/api/dictionaries', ...multipart('own.txt', Buffer.from('word\ta text\n')) },
      ],
    ],
    'PUT /api/dictionaries/{id}': none(`/api/dictionaries/${dictionary}`, { title: 'Taken' }),
    'DELETE /api/dictionaries/{id}': none(`/api/dictionaries/${dictionary}`),
  };
};

const kit = {
  version: 1,
  slots: [
    { id: 'a', name: '', instrument: 'nib', color: '#000000', width: 1, smoothing: 0, opacity: 1 },
  ],
  eraser: { by: 'stroke', target: 'both', size: 10, springsBack: false },
  buttons: { eraserEnd: 'eraser', barrel: 'eraser' },
};

test('every route of the API gives somebody else nothing of what is another’s', async () => {
  const { paths } = server.app.swagger() as { paths: Record<string, Record<string, unknown>> };
  const described = Object.entries(paths).flatMap(([path, methods]) =>
    Object.keys(methods).map((method) => `${method.toUpperCase()} ${path}`),
  );
  const covered = routes();
  expect(described.sort()).toEqual(Object.keys(covered).sort());
  const ids = Object.values(mine);
  for (const [route, all] of Object.entries(covered))
    for (const [answer, request] of all) {
      const method = route.split(' ')[0] as 'GET';
      const reply = await ask(SOMEBODY, { ...request, method });
      const told = [route, request.url, reply.statusCode, reply.body.slice(0, 300)];
      if (answer === 'none') expect([404, ...told]).toEqual([reply.statusCode, ...told]);
      else if (route !== 'POST /api/speech')
        expect([true, ...told]).toEqual([reply.statusCode < 300, ...told]);
      // A reply names what was asked for, and nothing else of the other account.
      const body = answer === 'none' ? '' : reply.body;
      expect([false, ...told]).toEqual([
        ids.some((id) => body.includes(id)) || /zinnober.*a red|Zinnober/.test(body),
        ...told,
      ]);
    }
}, 120_000);

test('nothing of it has happened, and all is there for whom it belongs to', async () => {
  const { document, source, picture, drawn, folder } = mine;
  expect((await server.document(document)).title).toBe('Zinnober');
  for (const url of [
    `/api/documents/${document}`,
    `/api/sources/${source}`,
    `/api/pictures/${picture}`,
    `/api/pictures/${drawn}/page`,
    `/api/documents?folder=${folder}`,
    `/api/documents/${document}/reading`,
  ])
    expect([url, (await server.app.inject(url)).statusCode]).toEqual([url, 200]);
  for (const url of [
    '/api/documents',
    '/api/folders',
    '/api/searches',
    '/api/keywords',
    '/api/dictionaries',
    '/api/trash',
    '/api/lookup?word=zinnober',
  ])
    expect([url, (await server.app.inject(url)).body]).toEqual([
      url,
      expect.stringMatching(/zinnober/i),
    ]);
  const found = await server.app.inject('/api/find?typed=precision');
  expect(found.json<{ documents: { id: string }[] }>().documents.map(({ id }) => id)).toEqual([
    document,
  ]);
});

test('files of others do not come into one’s documents by their digests', async () => {
  const brought = await ask(SOMEBODY, {
    method: 'POST',
    url: '/api/documents',
    ...multipart('Own.pdf', blankPdf(3)),
  });
  const { id } = brought.json<{ id: string }>();
  const { pages } = (await ask(SOMEBODY, { url: `/api/documents/${id}` })).json<{
    pages: { id: string; order: string }[];
  }>();
  const send = async (effect: Parameters<typeof operation>[1]) =>
    (
      await ask(SOMEBODY, {
        method: 'POST',
        url: `/api/documents/${id}/operations`,
        payload: { operations: [operation(id, effect)] },
      })
    ).json<{ code?: string }>().code;
  const [theirs] = (await server.document(mine.document)).pages;
  const { hasMarks, width, height, source, sourceIndex } = theirs;
  const page = { hasMarks, width, height, source, sourceIndex, label: null, rotation: 0 as const };
  expect(await send({ type: 'page.add', page: { ...page, id: newId(), order: 'z' } })).toBe(
    'page-unknown',
  );
  const facts = { digest: mine.picture, medium: 'pixels' as const, width: 8, height: 8 };
  const named = picture(pages[0].id, facts, [10, 10, 8, 8]);
  expect(await send({ type: 'annotation.add', annotation: named })).toBe('picture-unknown');
});

test('a route that does not say what it needs of who asks is not taken', () => {
  const app = fastify();
  guardRoutes(app, server.services.database, everyoneIsLocal);
  expect(() => app.get('/api/unguarded', () => '')).toThrow('does not say what it needs');
  app.get('/api/guarded', { config: { needs: see('document') } }, () => '');
});
