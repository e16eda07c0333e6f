import { createHash } from 'node:crypto';
import { readFileSync } from 'node:fs';
import { deflateSync } from 'node:zlib';
import sharp from 'sharp';
import { TestServer, tool } from '../testing/server';
import { image, pattern, putIn } from '../testing/pictures';

let server: TestServer;
beforeAll(async () => (server = await TestServer.start({ STYLET_MAX_PICTURE_MB: '2' })), 60_000);
afterAll(() => server.stop());

const SVG =
  '<svg xmlns="http://www.w3.org/2000/svg" width="200" height="100"><rect width="50" height="100" fill="#1f6f66"/></svg>';

async function refusal(bytes: Uint8Array, filename = 'x.png') {
  const reply = await server.upload(bytes, filename, '/api/pictures');
  return { status: reply.statusCode, ...reply.json<{ code: string; detail: string }>() };
}

/** A chunk of a PNG file (W3C PNG, 5.3). */
function chunk(type: string, data: Buffer): Buffer {
  const body = Buffer.concat([Buffer.from(type, 'latin1'), data]);
  const whole = Buffer.alloc(body.length + 8);
  whole.writeUInt32BE(data.length, 0);
  body.copy(whole, 4);
  whole.writeUInt32BE(crc32(body), body.length + 4);
  return whole;
}

/** W3C PNG, annex D. */
function crc32(bytes: Buffer): number {
  let crc = 0xffffffff;
  for (const byte of bytes) {
    crc ^= byte;
    for (let k = 0; k < 8; k++) crc = crc & 1 ? (crc >>> 1) ^ 0xedb88320 : crc >>> 1;
  }
  return (crc ^ 0xffffffff) >>> 0;
}

test.each([
  ['png', () => image(40, 30).png().toBuffer()],
  ['jpeg', () => image(40, 30).jpeg().toBuffer()],
  ['webp', () => image(40, 30).webp({ lossless: true }).toBuffer()],
] as const)('a %s is kept as it came, under the SHA-256 of its bytes', async (type, make) => {
  const bytes = await make();
  const facts = await putIn(server, bytes, `photo.${type}`);
  const digest = createHash('sha256').update(bytes).digest('hex');
  expect(facts).toEqual({ digest, medium: 'pixels', width: 40, height: 30 });
  const reply = await server.app.inject(`/api/pictures/${digest}`);
  expect(reply.rawPayload.equals(bytes)).toBe(true);
  expect(reply.headers).toMatchObject({
    'content-type': `image/${type}`,
    'x-content-type-options': 'nosniff',
    'cache-control': expect.stringContaining('immutable'),
  });
  expect(await putIn(server, bytes)).toEqual(facts);
});

// TIFF 6.0, section 8, “Orientation”: values of 5 and more have rows and columns exchanged.
test.each([1, 2, 3, 4, 5, 6, 7, 8])(
  'orientation %d gives the size upright',
  async (orientation) => {
    const bytes = await image(40, 30).jpeg().withMetadata({ orientation }).toBuffer();
    const { width, height } = await putIn(server, bytes);
    const { info } = await sharp(bytes).rotate().toBuffer({ resolveWithObject: true });
    expect([width, height]).toEqual([info.width, info.height]);
  },
);

test('a drawing is kept by its lines, in points', async () => {
  const facts = await putIn(server, Buffer.from(SVG), 'drawing.svg');
  // 96 pixels are an inch (CSS Values and Units 4, 6.2).
  expect(facts).toMatchObject({ medium: 'lines', width: 150, height: 75 });
  const file = await server.app.inject(`/api/pictures/${facts.digest}`);
  expect(file.body).toBe(SVG);
  expect(file.headers['content-security-policy']).toContain('sandbox');
  const page = await server.app.inject(`/api/pictures/${facts.digest}/page`);
  expect(page.headers['content-type']).toBe('application/pdf');
  expect(page.rawPayload.subarray(0, 5).toString()).toBe('%PDF-');
});

test('what a drawing names elsewhere on the machine or the net is not looked at', async () => {
  const secret = server.file('secret.png', await image(64, 64).png().toBuffer());
  const drawing = (href: string) =>
    `<svg xmlns="http://www.w3.org/2000/svg" width="64" height="64"><image href="${href}" width="64" height="64"/></svg>`;
  const own = `data:image/png;base64,${readFileSync(secret).toString('base64')}`;
  const imagesIn = async (href: string): Promise<number> => {
    const { digest } = await putIn(server, Buffer.from(drawing(href)), 'x.svg');
    const page = await server.app.inject(`/api/pictures/${digest}/page`);
    const list = tool('pdfimages', '-list', server.file('drawing.pdf', page.rawPayload));
    return list.trim().split('\n').length - 2;
  };
  expect(await imagesIn(own)).toBe(1);
  for (const href of [secret, `file://${secret}`, 'http://127.0.0.1:1/x.png'])
    expect(await imagesIn(href)).toBe(0);
});

test('files that are no pictures, broken, or made to do harm are refused, with what to do', async () => {
  const png = await image(300, 200).png().toBuffer();
  const jpeg = await image(300, 200).jpeg().toBuffer();
  const unreadable = { status: 422, code: 'picture-unreadable' };
  expect(await refusal(Buffer.from('no picture at all'), 'x.png')).toMatchObject(unreadable);
  expect(await refusal(Buffer.alloc(0), 'x.png')).toMatchObject(unreadable);
  expect(await refusal(png.subarray(0, png.length / 2))).toMatchObject(unreadable);
  expect(await refusal(jpeg.subarray(0, jpeg.length / 2))).toMatchObject(unreadable);
  expect(await refusal(await image(30, 20).gif().toBuffer())).toMatchObject({
    ...unreadable,
    detail: 'It is a file of the kind “gif”.',
  });
  expect(await refusal(Buffer.from('<svg xmlns="http://www.w3.org/2000/svg"><g>'))).toMatchObject(
    unreadable,
  );
  expect(await refusal(Buffer.from('%PDF-1.7\nnothing'))).toMatchObject(unreadable);
});

test('entities that multiply are refused before they fill the memory', async () => {
  const entities = Array.from(
    { length: 9 },
    (_, i) => `<!ENTITY e${i + 1} "${`&e${i};`.repeat(10)}">`,
  );
  const bomb = `<!DOCTYPE svg [<!ENTITY e0 "aaaaaaaaaa">${entities.join('')}]><svg xmlns="http://www.w3.org/2000/svg" width="9" height="9"><text>&e9;</text></svg>`;
  expect(await refusal(Buffer.from(bomb), 'x.svg')).toMatchObject({ code: 'picture-unreadable' });
}, 40_000);

test('a small file that claims more pixels than can be shown is refused unread', async () => {
  const header = Buffer.alloc(13);
  header.writeUInt32BE(60_000, 0);
  header.writeUInt32BE(60_000, 4);
  header.set([8, 2, 0, 0, 0], 8);
  const bomb = Buffer.concat([
    Buffer.from([0x89, 0x50, 0x4e, 0x47, 0x0d, 0x0a, 0x1a, 0x0a]),
    chunk('IHDR', header),
    chunk('IDAT', deflateSync(Buffer.alloc(1_000_000))),
    chunk('IEND', Buffer.alloc(0)),
  ]);
  expect(await refusal(bomb)).toMatchObject({ status: 422, code: 'picture-too-many-pixels' });
});

test('a file larger than the limit is refused, and says the limit', async () => {
  const noise = Buffer.from(pattern(1200, 900)).map(
    (value, i) => value ^ ((i * 2654435761) >>> 24),
  );
  const raw = { width: 1200, height: 900, channels: 3 } as const;
  const large = await sharp(noise, { raw }).png({ compressionLevel: 0 }).toBuffer();
  expect(large.length).toBeGreaterThan(2 * 1024 * 1024);
  expect(await refusal(large)).toMatchObject({
    status: 413,
    code: 'picture-too-large',
    detail: 'The limit is 2 MB.',
  });
});

test('a picture that is not here is said not to be', async () => {
  const reply = await server.app.inject(`/api/pictures/${'0'.repeat(64)}`);
  expect(reply.statusCode).toBe(404);
  expect(reply.json()).toMatchObject({ code: 'picture-not-found' });
});
