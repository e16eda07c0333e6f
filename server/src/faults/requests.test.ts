import { readFileSync } from 'node:fs';
import { connect as connectSocket } from 'node:net';
import type { AddressInfo } from 'node:net';
import { problemSchema } from '@stylet/core/api';
import { newId, type Effect } from '@stylet/core/document';
import { seeded } from '@stylet/core/random';
import fc from 'fast-check';
import { TestServer, highlight, operation, realPdf, shape, stroke } from '../testing/server';

let server: TestServer;
let documentId: string;
let pageId: string;
beforeAll(async () => {
  server = await TestServer.start();
  const bytes = readFileSync(realPdf('asymptote-doc/asyRefCard.pdf'));
  documentId = (await server.bringIn(bytes, 'Card.pdf')).id;
  pageId = (await server.document(documentId)).pages[0].id;
}, 30_000);
afterAll(() => server.stop());

/** Values no field is meant for. */
const HOSTILE: unknown[] = [
  ...[null, true, -1, 0, 1e308, -1e308, 2 ** 31, 2 ** 53, 1.5, 1e-300, '', '\0', 'a\0b', '\ud800'],
  ...['0000-01-01T00:00:00Z', '9999-99-99T99:99:99Z', '+275760-09-13T00:00:00.000Z', '#zzzzzz'],
  ...['x'.repeat(100_001), [], {}, [[[[]]]], { a: { b: '\udfff' } }, 'AAAA', '018F'.repeat(9)],
  ...[[0, 0, 0, 0, 0, 0], [1e9, 0, 0, 1e9, 1e9, 1e9], Array.from({ length: 3000 }, () => 0)],
];

function validEffects(): Effect[] {
  const created = '2026-09-01T08:00:00.000Z';
  const ink = stroke(pageId, [
    [10, 10],
    [40, 30],
  ]);
  const box = shape(pageId, 'rectangle', [
    [10, 10],
    [40, 10],
    [40, 40],
    [10, 40],
  ]);
  const mark = highlight(pageId, [[10, 10, 40, 10, 10, 20, 40, 20]], 'words');
  const bookmark = {
    kind: 'bookmark',
    id: newId(),
    place: { pageId },
    title: 'B',
    created,
  } as const;
  return [
    { type: 'annotation.add', annotation: ink },
    { type: 'annotation.add', annotation: box },
    { type: 'annotation.add', annotation: mark },
    {
      type: 'annotation.change',
      pageId,
      annotationId: ink.id,
      fields: { width: 3, transform: null },
    },
    { type: 'annotation.remove', pageId, annotationId: ink.id },
    { type: 'landmark.add', landmark: bookmark },
    { type: 'landmark.change', landmarkId: bookmark.id, fields: { title: 'C' } },
    { type: 'page.change', pageId, fields: { rotation: 90 } },
    { type: 'document.rename', title: 'Renamed' },
  ];
}

/** The value with something in it replaced, at a place and by a value that a seed says. */
function spoiled(value: unknown, random: () => number): unknown {
  if (random() < 0.25 || typeof value !== 'object' || value === null)
    return HOSTILE[Math.floor(random() * HOSTILE.length)];
  const copy = structuredClone(value) as Record<string, unknown>;
  const keys = Object.keys(copy);
  if (keys.length === 0) return HOSTILE[Math.floor(random() * HOSTILE.length)];
  const key = keys[Math.floor(random() * keys.length)];
  copy[key] = spoiled(copy[key], random);
  return copy;
}

const post = (payload: unknown) =>
  server.app.inject({
    method: 'POST',
    url: `/api/documents/${documentId}/operations`,
    headers: { 'content-type': 'application/json' },
    payload: JSON.stringify(payload),
  });

test('whatever operations are sent, they are taken or refused with a code, and the document answers', async () => {
  await fc.assert(
    fc.asyncProperty(fc.integer({ min: 1, max: 2 ** 31 }), fc.boolean(), async (seed, isDeep) => {
      const random = seeded(seed);
      const effects = validEffects();
      const operations = effects.map((effect) => operation(documentId, effect)) as unknown[];
      const at = Math.floor(random() * operations.length);
      operations[at] = spoiled(operations[at], random);
      if (isDeep) operations[at] = spoiled(operations[at], random);
      const reply = await post({ operations });
      expect(reply.statusCode).toBeLessThan(500);
      if (reply.statusCode >= 400) problemSchema.parse(reply.json());
    }),
    { numRuns: 250 },
  );
  // What was taken can be read, and handed over.
  expect((await server.app.inject(`/api/documents/${documentId}`)).statusCode).toBe(200);
  for (const mode of ['editable', 'flattened', 'none'])
    expect((await server.export(documentId, mode)).length).toBeGreaterThan(0);
}, 120_000);

test.each([
  ['a half of a pair in a title', { type: 'document.rename', title: 'a\ud800' }, 'title'],
  ['U+0000 in a title', { type: 'document.rename', title: 'a\0' }, 'title'],
  ['a page beyond what a column holds', { type: 'landmark.remove', landmarkId: 'x' }, 'landmarkId'],
])('%s is refused with its path', async (_what, effect, path) => {
  const reply = await post({ operations: [operation(documentId, effect as Effect)] });
  expect(reply.statusCode).toBe(400);
  expect(problemSchema.parse(reply.json()).detail).toContain(path);
});

test('coordinates no page has, and an id in capitals, are refused', async () => {
  const far = stroke(pageId, [[10, 10]], { transform: [1, 0, 0, 1, 1e12, 0] });
  const capitals = { ...stroke(pageId, [[10, 10]]), id: newId().toUpperCase() };
  for (const annotation of [far, capitals]) {
    const reply = await post({
      operations: [operation(documentId, { type: 'annotation.add', annotation })],
    });
    expect(reply.statusCode).toBe(400);
  }
});

test.each(['/api/find?typed=%00', `/api/find?typed=${'a%20'.repeat(125)}`, '/api/lookup?word=%00'])(
  '%s is refused, not looked for',
  async (url) => {
    const reply = await server.app.inject(url);
    expect(reply.statusCode).toBe(400);
    problemSchema.parse(reply.json());
  },
);

// RFC 7578 and RFC 2046, 5.1.1: what multipart has to be.
describe('multipart that is none', () => {
  const type = 'multipart/form-data; boundary=b';
  const file = '--b\r\ncontent-disposition: form-data; name="file"; filename="a.pdf"\r\n\r\n%PDF-';
  test.each([
    ['without a boundary', 'multipart/form-data', `${file}\r\n--b--\r\n`],
    ['with an empty boundary', 'multipart/form-data; boundary=', `${file}\r\n--b--\r\n`],
    ['that ends in the file', type, file],
    ['that ends in a header', type, '--b\r\ncontent-disposition: form-da'],
    ['with a newline in the file name', type, file.replace('a.pdf', 'a\n.pdf') + '\r\n--b--\r\n'],
    ['with nothing in it', type, ''],
    ['with another boundary', type, `${file.replaceAll('--b', '--c')}\r\n--c--\r\n`],
    [
      'without a file',
      type,
      '--b\r\ncontent-disposition: form-data; name="x"\r\n\r\n1\r\n--b--\r\n',
    ],
  ])(
    '%s gets 400 and an end',
    async (_how, contentType, payload) => {
      for (const url of ['/api/documents', '/api/sources', '/api/pictures', '/api/dictionaries']) {
        const reply = await server.app.inject({
          method: 'POST',
          url,
          headers: { 'content-type': contentType },
          payload,
        });
        expect([url, reply.statusCode >= 400 && reply.statusCode < 500]).toEqual([url, true]);
        problemSchema.parse(reply.json());
      }
    },
    20_000,
  );
});

describe('the door', () => {
  const asked = (headers: Record<string, string>, url = '/api/health') =>
    server.app.inject({ url, headers });

  test('only names of this machine are answered to', async () => {
    for (const host of ['localhost', '127.0.0.1:4600', '[::1]:4600'])
      expect((await asked({ host })).statusCode).toBe(200);
    for (const host of [
      'tidewater.example',
      'localhost.tidewater.example',
      '127.0.0.1@evil.example',
      'a b',
    ]) {
      const reply = await asked({ host });
      expect([host, reply.statusCode]).toEqual([host, 403]);
      expect(problemSchema.parse(reply.json()).code).toBe('host-unknown');
    }
  });

  // W3C Fetch Metadata Request Headers; RFC 6454 for browsers that do not send them.
  test.each([
    ['origin', 'https://tidewater.example'],
    ['origin', 'null'],
    ['origin', 'http://localhost:9999'],
    ['sec-fetch-site', 'cross-site'],
    ['sec-fetch-site', 'same-site'],
  ])('a page of another site gets nothing: %s %s', async (name, value) => {
    const reply = await asked({ host: 'localhost:4600', [name]: value });
    expect(reply.statusCode).toBe(403);
    expect(problemSchema.parse(reply.json()).code).toBe('origin-foreign');
  });

  test('pages from here do', async () => {
    for (const [name, value] of [
      ['origin', 'http://localhost:4600'],
      ['sec-fetch-site', 'same-origin'],
      ['sec-fetch-site', 'none'],
    ])
      expect((await asked({ host: 'localhost:4600', [name]: value })).statusCode).toBe(200);
  });

  test('responses say what a page from here may do', async () => {
    const { headers } = await asked({ host: 'localhost' });
    const policy = String(headers['content-security-policy']);
    expect(policy).toMatch(/script-src 'self' 'wasm-unsafe-eval'(;|$)/);
    expect(policy).toContain("frame-ancestors 'self'");
    expect(headers).toMatchObject({
      'x-content-type-options': 'nosniff',
      'referrer-policy': 'no-referrer',
      'permissions-policy': expect.stringContaining('geolocation=()') as string,
    });
  });
});

// PostgreSQL, appendix A: 53100 is disk_full, 57014 query_canceled, 40P01 deadlock_detected.
test.each([
  ['53100', 503, 'database-unavailable'],
  ['40P01', 503, 'database-unavailable'],
  ['57014', 422, 'work-too-long'],
])(
  'what the database says by %s is answered %i, and it goes on afterwards',
  async (state, status, code) => {
    const { database } = server.services;
    await database.execute(
      `create function harm() returns trigger language plpgsql as $$ begin raise exception 'harm' using errcode = '${state}'; end $$`,
    );
    await database.execute(
      'create trigger harm before insert on operations execute function harm()',
    );
    const rename = operation(documentId, { type: 'document.rename', title: 'Harmed' });
    const harmed = await post({ operations: [rename] });
    expect([harmed.statusCode, problemSchema.parse(harmed.json()).code]).toEqual([status, code]);
    await database.execute('drop function harm cascade');
    expect((await post({ operations: [rename] })).statusCode).toBe(200);
  },
);

test('a disk that is nearly full refuses uploads, and nothing is left of them', async () => {
  const small = await TestServer.start({ STYLET_MIN_FREE_MB: '99999999' });
  try {
    const reply = await small.upload(readFileSync(realPdf('asymptote-doc/asyRefCard.pdf')));
    expect(problemSchema.parse(reply.json())).toMatchObject({ status: 507, code: 'disk-full' });
    expect((await small.app.inject('/api/documents')).json()).toEqual({
      documents: [],
      next: null,
    });
  } finally {
    await small.stop();
  }
}, 30_000);

test('an upload whose sender goes away leaves nothing, and the next one comes in', async () => {
  await server.app.listen({ port: 0, host: '127.0.0.1' });
  const { port } = server.app.server.address() as AddressInfo;
  const head = [
    'POST /api/documents HTTP/1.1',
    `host: 127.0.0.1:${port}`,
    'content-type: multipart/form-data; boundary=b',
    'content-length: 1000000',
    '\r\n--b',
    'content-disposition: form-data; name="file"; filename="a.pdf"',
    '\r\n%PDF-1.7',
  ].join('\r\n');
  for (let i = 0; i < 4; i++)
    await new Promise<void>((done, fail) => {
      const socket = connectSocket(port, '127.0.0.1', () =>
        socket.write(head, () => socket.destroy()),
      );
      socket.on('close', () => done());
      socket.on('error', fail);
    });
  expect(
    (await server.bringIn(readFileSync(realPdf('asymptote-doc/asyRefCard.pdf')))).pageCount,
  ).toBe(3);
}, 30_000);
