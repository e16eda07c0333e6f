import { readFileSync, readdirSync, rmSync, writeFileSync } from 'node:fs';
import { createHash } from 'node:crypto';
import { join } from 'node:path';
import { problemSchema } from '@stylet/core/api';
import { TestServer, realPdf, tool } from '../testing/server';

let server: TestServer;
beforeAll(async () => (server = await TestServer.start({ STYLET_MAX_FILE_MB: '8' })));
afterAll(() => server.stop());

const manual = (): Buffer => readFileSync(realPdf('sbcl-doc/sbcl.pdf'));

async function refusal(
  bytes: Uint8Array,
): Promise<{ status: number; code: string; advice: string }> {
  const reply = await server.upload(bytes);
  expect(reply.headers['content-type']).toContain('application/problem+json');
  return problemSchema.parse(reply.json());
}

test('the original’s bytes are kept, by their digest, and come back exactly', async () => {
  const bytes = manual();
  const summary = await server.bringIn(bytes, 'A manual.pdf');
  expect(summary).toMatchObject({
    title: 'A manual',
    pageCount: 167,
    size: bytes.length,
    repair: 'none',
    revision: 0,
  });
  expect(summary.digest).toBe(createHash('sha256').update(bytes).digest('hex'));
  const reply = await server.app.inject(`/api/documents/${summary.id}/original`);
  expect(reply.rawPayload.equals(bytes)).toBe(true);
  const listed = (await server.app.inject('/api/documents')).json<{
    documents: { id: string }[];
  }>();
  expect(listed.documents.map(({ id }) => id)).toContain(summary.id);
});

// RFC 9110, 14.2 and 15.3.7: first, last and suffix ranges; 15.5.17: a range beyond the end.
test.each([
  ['bytes=0-99', 0, 100],
  ['bytes=1048570-1048580', 1048570, 1048581],
  ['bytes=-50', -50, undefined],
  // 14.1.2: “If the selected representation is shorter than the specified suffix-length, the entire representation is used.”
  ['bytes=-99999999', 0, undefined],
  ['bytes=4700000-99999999', 4700000, undefined],
])(
  'range %s',
  async (range, from, to) => {
    const big = readFileSync(realPdf('octave-doc/octave.pdf'));
    const { id } = await server.bringIn(big);
    const check = async (): Promise<void> => {
      const reply = await server.app.inject({
        url: `/api/documents/${id}/original`,
        headers: { range },
      });
      expect(reply.statusCode).toBe(206);
      expect(reply.rawPayload.equals(big.subarray(from, to))).toBe(true);
      expect(reply.headers['content-range']).toMatch(new RegExp(`/${big.length}$`));
    };
    await check();
    // The database has the bytes when the cache has lost its copy.
    const cache = server.services.config.cacheFolder;
    const copies = readdirSync(cache).filter((name) => name.endsWith('.pdf'));
    expect(copies).not.toEqual([]);
    for (const name of copies) rmSync(join(cache, name));
    await check();
  },
  30_000,
);

test('a range beyond the end is refused', async () => {
  const { id } = await server.bringIn(manual());
  const reply = await server.app.inject({
    url: `/api/documents/${id}/original`,
    headers: { range: 'bytes=999999999-' },
  });
  expect(reply.statusCode).toBe(416);
  expect(reply.json()).toMatchObject({ code: 'range-not-satisfiable' });
});

test.each([
  ['an empty file', () => Buffer.alloc(0), 'file-empty'],
  ['a text file', () => Buffer.from('Dear diary, today the tide was high.'), 'file-not-pdf'],
  ['a header with nothing behind it', () => Buffer.from('%PDF-1.7\n'), 'pdf-damaged'],
  ['a start too short to have pages', () => manual().subarray(0, 3000), 'pdf-damaged'],
  ['a file over the limit', () => Buffer.alloc(9 * 1024 * 1024, 32), 'file-too-large'],
])('%s is refused, and the answer says what to do', async (_, bytes, code) => {
  const problem = await refusal(bytes());
  expect(problem.code).toBe(code);
  expect(problem.status).toBeGreaterThanOrEqual(400);
  expect(problem.status).toBeLessThan(500);
  expect(problem.advice.length).toBeGreaterThan(20);
});

function encrypted(userPassword: string): Buffer {
  const from = server.file('open.pdf', manual());
  const to = join(server.folder, 'encrypted.pdf');
  tool('qpdf', '--encrypt', userPassword, 'owner', '256', '--', from, to);
  return readFileSync(to);
}

test('a file locked with a password is refused as such', async () => {
  expect((await refusal(encrypted('secret'))).code).toBe('pdf-password-protected');
});

test('a file encrypted without a password is unlocked, and the original kept', async () => {
  const bytes = encrypted('');
  const summary = await server.bringIn(bytes);
  expect(summary).toMatchObject({ repair: 'unlocked', pageCount: 167 });
  expect(
    (await server.app.inject(`/api/documents/${summary.id}/original`)).rawPayload.equals(bytes),
  ).toBe(true);
  const working = server.file(
    'working.pdf',
    (await server.app.inject(`/api/documents/${summary.id}/file`)).rawPayload,
  );
  expect(tool('qpdf', '--check', working)).toContain('File is not encrypted');
});

test('a wrong cross-reference table is repaired', async () => {
  const plain = server.file('plain.pdf', manual());
  const table = join(server.folder, 'table.pdf');
  tool('qpdf', '--object-streams=disable', plain, table);
  const text = readFileSync(table, 'latin1');
  const broken = Buffer.from(
    text.replace(
      /(\d{10}) 00000 n/g,
      (_, o: string) => `${String(Number(o) + 7).padStart(10, '0')} 00000 n`,
    ),
    'latin1',
  );
  const summary = await server.bringIn(broken);
  expect(summary).toMatchObject({ repair: 'repaired', pageCount: 167 });
  const exported = server.file('repaired.pdf', await server.export(summary.id, 'editable'));
  expect(tool('qpdf', '--check', exported)).toContain('No syntax or stream encoding errors');
});

test('a file whose tail is cut off is repaired as far as it goes', async () => {
  const plain = server.file('plain.pdf', manual());
  const table = join(server.folder, 'table.pdf');
  tool('qpdf', '--object-streams=disable', plain, table);
  const bytes = readFileSync(table);
  const summary = await server.bringIn(bytes.subarray(0, bytes.length - 2000));
  expect(summary.repair).toBe('repaired');
  expect(summary.pageCount).toBeGreaterThan(100);
});

test('the cover is a picture of the first page', async () => {
  const { id } = await server.bringIn(manual());
  const reply = await server.app.inject(`/api/documents/${id}/cover`);
  expect(reply.headers['content-type']).toBe('image/png');
  expect([...reply.rawPayload.subarray(1, 4)]).toEqual([...Buffer.from('PNG')]);
  const again = await server.app.inject({
    url: `/api/documents/${id}/cover`,
    headers: { 'if-none-match': reply.headers.etag as string },
  });
  expect(again.statusCode).toBe(304);
});

test('what other programs wrote is read: notes, boxes, rotation', async () => {
  const source = join(server.folder, 'foreign.pdf');
  const plain = server.file('plain.pdf', manual());
  tool(
    'qpdf',
    plain,
    '--pages',
    '.',
    '20',
    '--',
    '--rotate=+90',
    '--qdf',
    '--object-streams=disable',
    source,
  );
  const text = readFileSync(source, 'latin1')
    .replace(/\/CropBox \[[^\]]*\]/, '')
    .replace(
      '/MediaBox [',
      '/Annots [ << /Type /Annot /Subtype /Link /Rect [0 0 9 9] >> 9000 0 R ]\n  /MediaBox [',
    )
    .replace(
      /\nxref\n/,
      '\n9000 0 obj\n<< /Type /Annot /Subtype /Square /Rect [100 100 200 150] /C [1 0 0] /T (Somebody) /Contents (look here) /M (D:20260102030405Z) >>\nendobj\nxref\n',
    );
  const fixed = join(server.folder, 'fixed.pdf');
  writeFileSync(fixed, Buffer.from(text, 'latin1'));
  tool('qpdf', '--object-streams=disable', '--warning-exit-0', fixed, `${fixed}.ok.pdf`);
  const { id } = await server.bringIn(readFileSync(`${fixed}.ok.pdf`));
  const [page] = (await server.document(id)).pages;
  expect(page.rotation).toBe(90);
  const [note, ...others] = await server.annotations(id);
  expect(others).toEqual([]);
  expect(note).toMatchObject({
    kind: 'foreign',
    subtype: 'Square',
    author: 'Somebody',
    contents: 'look here',
    color: '#ff0000',
    modified: '2026-01-02T03:04:05.000Z',
    box: { x0: 100, x1: 200, y0: page.height - 150, y1: page.height - 100 },
  });
});
