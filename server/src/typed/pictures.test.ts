import { mkdtempSync, readFileSync, rmSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import type { DocumentText } from '@stylet/core/api';
import { sql } from 'drizzle-orm';
import sharp from 'sharp';
import { TEST_ACCOUNT, TestServer, tool } from '../testing/server';

/* Pictures of Markdown and HTML stand on typed pages. */

let server: TestServer;
let folder: string;
beforeAll(async () => {
  server = await TestServer.start();
  await server.services.database.execute(sql`insert into accounts (id) values ('somebody')`);
}, 60_000);
afterAll(() => server.stop());
beforeEach(() => (folder = mkdtempSync(join(tmpdir(), 'stylet-text-pictures-'))));
afterEach(() => rmSync(folder, { recursive: true }));

const GREEN = { r: 20, g: 140, b: 60 };
const flat = (width: number, height: number, background: typeof GREEN) =>
  sharp({ create: { width, height, channels: 3, background } });
const png = () => flat(200, 100, GREEN).png().toBuffer();
const jpeg = () => flat(320, 240, { r: 190, g: 60, b: 40 }).jpeg().toBuffer();
const SVG =
  '<svg xmlns="http://www.w3.org/2000/svg" width="90" height="60"><rect width="90" height="60" fill="#1440c8"/></svg>';

const data = (medium: string, bytes: Buffer | string): string =>
  `data:image/${medium};base64,${Buffer.from(bytes).toString('base64')}`;
const text = async (id: string, account?: string) =>
  (
    await server.app.inject({
      url: `/api/documents/${id}/text`,
      headers: account ? { [TEST_ACCOUNT]: account } : {},
    })
  ).json<DocumentText>();
const plain = ({ text: { blocks } }: DocumentText) => blocks.map(({ id: _id, ...block }) => block);

/** Sends a text with pictures that were taken in before, as the client does. */
async function broughtIn(markdown: string, pictures: Record<string, string> = {}, name = 'log.md') {
  const form = new FormData();
  form.set('pictures', JSON.stringify(pictures));
  form.set('file', new File([markdown], name));
  const { body, headers } = new Request('http://localhost/', { method: 'POST', body: form });
  const payload = Buffer.from(await new Response(body).arrayBuffer());
  const type = headers.get('content-type')!;
  const reply = await server.app.inject({
    method: 'POST',
    url: '/api/documents',
    payload,
    headers: { 'content-type': type },
  });
  expect(reply.statusCode).toBe(201);
  return reply.json<{ id: string }>().id;
}

const exported = async (id: string): Promise<string> =>
  server.file('export.pdf', await server.export(id, 'editable'));

/** A log with a PNG and a drawing written out in it, and a photograph beside it. */
async function log(): Promise<string> {
  const photo = await server.upload(await jpeg(), 'slip.jpg', '/api/pictures');
  const { digest } = photo.json<{ digest: string }>();
  const markdown = [
    '# Second day',
    `The gauge ![Gauge at the quay](${data('png', await png())})`,
    '![The slip](photos/slip.jpg) at low water.',
    `<p align="right"><img src="${data('svg+xml', SVG)}" width="60"></p>`,
    '![Not fetched](https://example.org/map.png) ![Gone](gone.png)',
  ].join('\n\n');
  return broughtIn(markdown, { 'photos/slip.jpg': digest });
}

test('pictures stand in the PDF where poppler finds them, told by their words', async () => {
  const id = await log();
  const path = await exported(id);
  tool('qpdf', '--check', path);
  const listed = tool('pdfimages', '-list', path).split('\n').slice(2).filter(Boolean);
  expect(listed.map((line) => line.trim().split(/\s+/).slice(3, 5).join('×')).sort()).toEqual([
    '200×100',
    '320×240',
  ]);
  const tags = tool('pdfinfo', '-struct', path);
  expect(tags.match(/Figure/g)).toHaveLength(3);
  // What is heard instead (ISO 32000-1, 14.9.3), as pdfinfo tells of no alternative words.
  expect(tool('qpdf', '--qdf', '--object-streams=disable', path, '-')).toContain(
    '/Alt (Gauge at the quay)',
  );
  const words = tool('pdftotext', '-layout', path, '-');
  expect(words).toMatch(/at low water\.[^]*Not fetched Gone/);
  // As wide as they say that they are, at 72 dots an inch: 200 pixels are 150 pt (CSS Values 4, 6.2).
  tool('pdftoppm', '-r', '72', '-png', '-singlefile', path, join(folder, 'page'));
  const { data: pixels, info } = await sharp(join(folder, 'page.png'))
    .raw()
    .toBuffer({ resolveWithObject: true });
  const areaOf = (is: (r: number, g: number, b: number) => boolean): number => {
    let count = 0;
    for (let i = 0; i < pixels.length; i += info.channels)
      if (is(pixels[i], pixels[i + 1], pixels[i + 2])) count++;
    return count;
  };
  const near = (area: number, wanted: number) =>
    expect(Math.abs(area - wanted)).toBeLessThan(0.03 * wanted);
  near(
    areaOf((r, g, b) => g > 120 && r < 60 && b < 100),
    150 * 75,
  );
  near(
    areaOf((r, g, b) => r > 160 && g < 90 && b < 80),
    240 * 180,
  );
  near(
    areaOf((r, g, b) => b > 170 && r < 60 && g < 100),
    45 * 30,
  );
});

test.each(['markdown', 'html'] as const)(
  'a text with pictures goes out as %s and comes back',
  async (as) => {
    const id = await log();
    const out = await server.app.inject(`/api/documents/${id}/text/export?as=${as}`);
    expect(out.body).toContain(data('png', await png()));
    const again = await broughtIn(out.body, {}, as === 'html' ? 'log.html' : 'log.md');
    expect(plain(await text(again))).toEqual(plain(await text(id)));
  },
);

test('the PDF brings its pictures to somebody who has none of them, byte for byte', async () => {
  const id = await log();
  const reply = await server.upload(
    readFileSync(await exported(id)),
    'log.pdf',
    undefined,
    'somebody',
  );
  const other = reply.json<{ id: string }>().id;
  const theirs = await text(other, 'somebody');
  expect(plain(theirs)).toEqual(plain(await text(id)));
  const [first] = theirs.text.blocks.filter(({ kind }) => kind === 'picture');
  const digest = first.kind === 'picture' ? first.digest : '';
  const file = await server.app.inject({
    url: `/api/pictures/${digest}`,
    headers: { [TEST_ACCOUNT]: 'somebody' },
  });
  expect(file.rawPayload).toEqual(await png());
});

test('nobody puts a picture into a text that they have not been given; one of theirs they do', async () => {
  const id = await log();
  const upload = await server.upload(
    await flat(10, 10, GREEN).png().toBuffer(),
    'a.png',
    '/api/pictures',
    'somebody',
  );
  const foreign = upload.json<{ digest: string }>();
  const { source, text: now } = await text(id);
  const set = (block: object) =>
    server.app.inject({
      method: 'PUT',
      url: `/api/documents/${id}/text`,
      payload: {
        base: source,
        text: { ...now, blocks: [...now.blocks, block] },
        author: 'Reviewer',
      },
    });
  const theirs = await set({ kind: 'picture', ...foreign });
  expect([theirs.statusCode, theirs.json<{ code: string }>().code]).toEqual([
    404,
    'picture-not-found',
  ]);
  const own = now.blocks.find(({ kind }) => kind === 'picture')!;
  const { id: _id, ...copy } = own;
  expect((await set({ ...copy, wide: 50 })).statusCode).toBe(200);
  expect(plain(await text(id)).at(-1)).toEqual({ ...copy, wide: 50 });
});

test('a picture that another program has put in place of ours counts: the text is no longer ours', async () => {
  const path = await exported(await log());
  tool(
    'qpdf',
    '--qdf',
    '--object-streams=disable',
    '--decode-level=generalized',
    path,
    join(folder, 'plain.pdf'),
  );
  const qdf = readFileSync(join(folder, 'plain.pdf'), 'latin1');
  const pixel = String.fromCharCode(GREEN.r, GREEN.g, GREEN.b);
  expect(qdf).toContain(pixel.repeat(50));
  const back = async (bytes: string) => {
    const reply = await server.upload(Buffer.from(bytes, 'latin1'), 'log.pdf');
    return (await server.app.inject(`/api/documents/${reply.json<{ id: string }>().id}/text`))
      .statusCode;
  };
  // As qpdf has written it, it is ours still.
  expect(await back(qdf)).toBe(200);
  expect(await back(qdf.replace(pixel.repeat(50), '\u0001'.repeat(150)))).toBe(404);
});

test('what is no picture is told by its words, however much of it there is', async () => {
  const bad = Array.from(
    { length: 20 },
    (_, i) => `![word ${i}](${data('png', `no picture ${i}`)})`,
  );
  const id = await broughtIn(bad.join(' '));
  expect(plain(await text(id))).toEqual([
    { kind: 'paragraph', runs: [{ text: bad.map((_, i) => `word ${i}`).join(' ') }] },
  ]);
});
