import { readFileSync, readdirSync } from 'node:fs';
import { join } from 'node:path';
import { newId, type Annotation, type Picture } from '@stylet/core/document';
import { turning } from '@stylet/core/selection';
import { compose, type Matrix } from '@stylet/core/geometry';
import sharp from 'sharp';
import { TestServer, highlight, operation, stroke, tool, type Rendering } from '../testing/server';
import { blankPdf, image, pattern, picture, putIn } from '../testing/pictures';
import { faultsIn } from '../testing/standard-annotations';
import { viewers } from '../testing/viewers';

const [WIDTH, HEIGHT] = [120, 90];
/** Edges that lie just on those of pixels make poppler draw one pixel more: they lie a little inside. */
const INSIDE = 0.001;
const boxAt = (x: number, y: number, width: number, height: number) =>
  [x + INSIDE, y + INSIDE, width - 2 * INSIDE, height - 2 * INSIDE] as const;
/** Where pictures lie: one of their pixels on one point, and that on one pixel of the rendering. */
const BOX = boxAt(40, 60, WIDTH, HEIGHT);
const PAPER = [255, 255, 255];

let server: TestServer;
beforeAll(async () => (server = await TestServer.start()), 60_000);
afterAll(() => server.stop());

/** The export of blank pages with annotations, one list for each page. */
async function exported(
  lists: ((pageId: string) => Annotation[])[],
): Promise<{ file: string; bytes: Buffer; annotations: Annotation[] }> {
  const { id } = await server.bringIn(blankPdf(lists.length), 'Blank.pdf');
  const { pages } = await server.document(id);
  const annotations = pages.flatMap((page, i) => lists[i](page.id));
  const adding = annotations.map((annotation) =>
    operation(id, { type: 'annotation.add', annotation }),
  );
  const reply = await server.send(id, adding);
  if (reply.statusCode !== 200) throw new Error(reply.body);
  const bytes = await server.export(id, 'editable');
  const file = server.file(`${id}.pdf`, bytes);
  expect(tool('qpdf', '--check', file)).toContain('No syntax or stream encoding errors');
  expect(faultsIn(file)).toEqual([]);
  return { file, bytes, annotations };
}

/** RGB of a picture that sharp has drawn: the reference. */
async function pixels(of: sharp.Sharp): Promise<{ data: Buffer; width: number; height: number }> {
  const { data, info } = await of.removeAlpha().raw().toBuffer({ resolveWithObject: true });
  return { data, width: info.width, height: info.height };
}

/** The greatest difference of a component between a rendering and a picture laid at a point. */
function farthest(
  drawn: Rendering,
  { data, width, height }: { data: Buffer; width: number; height: number },
  [left, top]: readonly [number, number, ...number[]],
): number {
  let most = 0;
  for (let y = 0; y < height; y++)
    for (let x = 0; x < width; x++)
      drawn.at(left + x, top + y).forEach((value, k) => {
        most = Math.max(most, Math.abs(value - data[3 * (y * width + x) + k]));
      });
  return most;
}

const png = () => image(WIDTH, HEIGHT).png().toBuffer();

test('a JPEG goes into the file as it is, once, however often it is used; so says pdfimages', async () => {
  const jpeg = await image(WIDTH, HEIGHT).jpeg({ quality: 80 }).toBuffer();
  const facts = await putIn(server, jpeg);
  const twice = (page: string) => [
    picture(page, facts, BOX),
    picture(page, facts, [200, 20, 60, 45], { order: 'a4' }),
  ];
  const { file } = await exported([twice, twice]);
  tool('pdfimages', '-all', file, join(server.folder, 'jpeg'));
  const found = readdirSync(server.folder).filter((name) => name.startsWith('jpeg-'));
  expect(found).toHaveLength(4);
  for (const name of found) expect(readFileSync(join(server.folder, name)).equals(jpeg)).toBe(true);
  const objects = tool('pdfimages', '-list', file).trim().split('\n').slice(2);
  expect(new Set(objects.map((line) => line.trim().split(/\s+/)[10])).size).toBe(1);
});

test('a PNG and a WebP keep their pixels and what shows through them; so says pdfimages', async () => {
  // Where nothing shows at all, WebP keeps no colours.
  const alpha = Buffer.from(
    pattern(WIDTH, HEIGHT)
      .filter((_, i) => i % 3 === 0)
      .map((value) => Math.max(1, value)),
  );
  const mask = { raw: { width: WIDTH, height: HEIGHT, channels: 1 } } as const;
  for (const format of ['png', 'webp'] as const) {
    const see = image(WIDTH, HEIGHT).joinChannel(alpha, mask);
    const options = format === 'webp' ? { lossless: true } : {};
    const facts = await putIn(server, await see[format](options).toBuffer());
    const { file } = await exported([(page) => [picture(page, facts, BOX)]]);
    tool('pdfimages', '-png', file, join(server.folder, format));
    const [whole, softMask] = ['000', '001'].map((n) => join(server.folder, `${format}-${n}.png`));
    expect((await pixels(sharp(whole))).data.equals(pattern(WIDTH, HEIGHT))).toBe(true);
    const read = await sharp(softMask).toColourspace('b-w').raw().toBuffer();
    expect(read.equals(alpha)).toBe(true);
    // ISO 32000-1, 11.3.6: over paper white, each component is 255 + α (c − 255).
    for (const view of Object.values(viewers)) {
      const drawn = view(file, 1, 1);
      for (const [x, y] of [
        [5, 5],
        [60, 45],
        [110, 80],
      ]) {
        const i = y * WIDTH + x;
        drawn.at(BOX[0] + x, BOX[1] + y).forEach((value, k) => {
          const wanted = 255 + (alpha[i] / 255) * (pattern(WIDTH, HEIGHT)[3 * i + k] - 255);
          expect(Math.abs(value - wanted)).toBeLessThanOrEqual(3);
        });
      }
    }
  }
});

// sharp turns by the tag itself: the reference for which way up a picture is.
test.each([1, 2, 3, 4, 5, 6, 7, 8])(
  'a JPEG of orientation %d shows upright in poppler and mutool, pixel by pixel',
  async (orientation) => {
    const jpeg = await image(WIDTH, HEIGHT)
      .jpeg({ quality: 100, chromaSubsampling: '4:4:4' })
      .withMetadata({ orientation })
      .toBuffer();
    const facts = await putIn(server, jpeg);
    const box = boxAt(40, 60, facts.width, facts.height);
    const { file } = await exported([(page) => [picture(page, facts, box)]]);
    const upright = await pixels(sharp(jpeg).rotate());
    expect([upright.width, upright.height]).toEqual([facts.width, facts.height]);
    for (const view of Object.values(viewers))
      // Decoders of JPEG may differ a little (ISO/IEC 10918-2).
      expect(farthest(view(file, 1, 1), upright, box)).toBeLessThanOrEqual(8);
  },
);

// How four inks become light is each program's own; light and dark must not change places.
test('a JPEG of four inks is not shown as its negative', async () => {
  const jpeg = await image(WIDTH, HEIGHT).toColourspace('cmyk').jpeg({ quality: 95 }).toBuffer();
  expect((await sharp(jpeg).metadata()).space).toBe('cmyk');
  const facts = await putIn(server, jpeg);
  const { file } = await exported([(page) => [picture(page, facts, BOX)]]);
  const { data } = await pixels(sharp(jpeg).toColourspace('srgb'));
  for (const view of Object.values(viewers)) {
    const drawn = view(file, 1, 1);
    let off = 0;
    for (let y = 4; y < HEIGHT; y += 8)
      for (let x = 4; x < WIDTH; x += 8)
        drawn.at(BOX[0] + x, BOX[1] + y).forEach((value, k) => {
          off += Math.abs(value - data[3 * (y * WIDTH + x) + k]);
        });
    expect(off / (Math.ceil((HEIGHT - 4) / 8) * Math.ceil((WIDTH - 4) / 8) * 3)).toBeLessThan(40);
  }
});

test('turned, flipped and cropped pictures show the pixels sharp gets by the same steps', async () => {
  const facts = await putIn(server, await png());
  const [left, top, width, height] = BOX;
  const level: Matrix = [width, 0, 0, height, left, top];
  const about = { x: left + height / 2, y: top + height / 2 };
  const quarter = [...compose(level, turning(about, 90))] as Picture['transform'];
  const flipped: Picture['transform'] = [-width, 0, 0, height, left + width, top];
  const crop = [
    { x: 30 / WIDTH, y: 20 / HEIGHT },
    { x: 90 / WIDTH, y: 20 / HEIGHT },
    { x: 90 / WIDTH, y: 70 / HEIGHT },
    { x: 30 / WIDTH, y: 70 / HEIGHT },
  ];
  const source = sharp(await png());
  const cases: [Partial<Picture>, sharp.Sharp, readonly [number, number]][] = [
    [{}, source.clone(), [left, top]],
    [{ transform: quarter }, source.clone().rotate(90), [left, top]],
    [{ transform: flipped }, source.clone().flop(), [left, top]],
    [
      { crop },
      source.clone().extract({ left: 30, top: 20, width: 60, height: 50 }),
      [left + 30, top + 20],
    ],
  ];
  const { file } = await exported(
    cases.map(([change]) => (page: string) => [picture(page, facts, BOX, change)]),
  );
  for (const view of Object.values(viewers))
    for (const [i, [change, wanted, at]] of cases.entries()) {
      const drawn = view(file, i + 1, 1);
      expect(farthest(drawn, await pixels(wanted), at)).toBeLessThanOrEqual(1);
      // No border: what lies next to it is paper.
      const beside = change.crop ? [at[0] - 2, at[1] + 5] : [at[0] - 2, at[1] + 40];
      expect(drawn.at(beside[0], beside[1])).toEqual(PAPER);
    }
});

test('a crop drawn by hand shows what sharp leaves of the picture within the same outline', async () => {
  const facts = await putIn(server, await png());
  const outline = Array.from({ length: 40 }, (_, i) => {
    const [angle, r] = [(i * Math.PI) / 20, 0.3 + 0.12 * Math.sin(i)];
    return { x: 0.5 + r * Math.cos(angle), y: 0.5 + r * Math.sin(angle) };
  });
  const { file } = await exported([(page) => [picture(page, facts, BOX, { crop: outline })]]);
  const points = outline.map(({ x, y }) => `${x * WIDTH},${y * HEIGHT}`).join(' ');
  const mask = Buffer.from(
    `<svg width="${WIDTH}" height="${HEIGHT}"><polygon points="${points}"/></svg>`,
  );
  const { data } = await sharp(await png())
    .ensureAlpha()
    .composite([{ input: mask, blend: 'dest-in' }])
    .raw()
    .toBuffer({ resolveWithObject: true });
  for (const view of Object.values(viewers)) {
    const drawn = view(file, 1, 1);
    let [inside, outside, wrong] = [0, 0, 0];
    for (let i = 0; i < WIDTH * HEIGHT; i++) {
      const shown = data[4 * i + 3];
      // Its soft edge is each program's own.
      if (shown > 0 && shown < 255) continue;
      if (shown) inside++;
      else outside++;
      const wanted = shown ? [...data.subarray(4 * i, 4 * i + 3)] : PAPER;
      const is = drawn.at(BOX[0] + (i % WIDTH), BOX[1] + Math.floor(i / WIDTH));
      if (is.some((value, k) => Math.abs(value - wanted[k]) > 1)) wrong++;
    }
    expect(inside).toBeGreaterThan(1500);
    expect(outside).toBeGreaterThan(1500);
    // Programs may draw a pixel that is hardly touched.
    expect(wrong).toBeLessThanOrEqual(40);
  }
});

test('pictures show through as they are told, and lie where they were put among ink and highlights', async () => {
  const white = sharp({ create: { width: 8, height: 8, channels: 3, background: '#000000' } });
  const facts = await putIn(server, await white.png().toBuffer());
  const across: [number, number][] = [
    [60, 100],
    [140, 100],
    [220, 100],
  ];
  const { file, bytes, annotations } = await exported([
    (page) => [
      stroke(page, across, { width: 20, instrument: 'fineliner', order: 'a1' }),
      highlight(page, [[60, 120, 220, 120, 60, 140, 220, 140]], ''),
      picture(page, facts, [70, 80, 40, 80], { order: 'a5', opacity: 0.5 }),
      picture(page, facts, [160, 80, 40, 80], { order: 'a6', inFront: true }),
    ],
  ]);
  const half = [128, 128, 128];
  for (const view of Object.values(viewers)) {
    const drawn = view(file, 1, 1);
    const near = (x: number, y: number, wanted: number[]): void =>
      drawn
        .at(x, y)
        .forEach((value, k) => expect(Math.abs(value - wanted[k])).toBeLessThanOrEqual(3));
    near(90, 85, half);
    // Under ink, and multiplied by the highlight (ISO 32000-1, 11.3.5.2).
    near(90, 100, [0xb3, 0x32, 0x4b]);
    near(
      90,
      130,
      [0xff, 0xe2, 0x7a].map((c) => (c * 128) / 255),
    );
    near(180, 100, [0, 0, 0]);
    near(180, 130, [0, 0, 0]);
  }
  const { id } = await server.bringIn(bytes, 'Again.pdf');
  const again = await server.annotations(id);
  const sorted = [...again].sort((a, b) => (a.order < b.order ? -1 : 1)).map((a) => a.id);
  const [ink, mark, under, over] = annotations.map((a) => a.id);
  expect(sorted).toEqual([under, mark, ink, over]);
});

test('pictures come back from an export as they were: groups, crops, order, the same file', async () => {
  const facts = await putIn(server, await png());
  const group = newId();
  const crop = [
    { x: 0, y: 0 },
    { x: 1, y: 0 },
    { x: 0.5, y: 1 },
  ];
  const { bytes, annotations } = await exported([
    (page) => [
      picture(page, facts, BOX, { group, crop, opacity: 0.7 }),
      stroke(
        page,
        [
          [50, 50],
          [90, 90],
        ],
        { group },
      ),
    ],
  ]);
  let file = bytes;
  for (let round = 0; round < 2; round++) {
    const { id } = await server.bringIn(file, 'Again.pdf');
    const again = await server.annotations(id);
    expect(again).toHaveLength(2);
    for (const before of annotations) {
      const { pageId: _page, order: _order, ...kept } = before;
      expect(again.find((a) => a.id === before.id)).toMatchObject(kept);
    }
    file = await server.export(id, 'editable');
    // Nothing was changed: nothing is added.
    expect(file.equals(bytes)).toBe(true);
  }
});

test('a server that does not have the pictures takes them out of the file', async () => {
  const other = await TestServer.start();
  try {
    const jpeg = await image(WIDTH, HEIGHT).jpeg().toBuffer();
    const svg = Buffer.from(
      '<svg xmlns="http://www.w3.org/2000/svg" width="40" height="40"><circle cx="20" cy="20" r="20" fill="#b3324b"/></svg>',
    );
    const alpha = Buffer.alloc(WIDTH * HEIGHT, 90);
    const mask = { raw: { width: WIDTH, height: HEIGHT, channels: 1 } } as const;
    const clear = await image(WIDTH, HEIGHT).joinChannel(alpha, mask).png().toBuffer();
    const [a, b, c] = [
      await putIn(server, jpeg),
      await putIn(server, clear),
      await putIn(server, svg),
    ];
    const { bytes } = await exported([
      (page) => [
        picture(page, a, BOX),
        picture(page, b, [200, 60, WIDTH, HEIGHT], { order: 'a4' }),
        picture(page, c, [40, 200, 40, 40], { order: 'a5' }),
      ],
    ]);
    const { id } = await other.bringIn(bytes, 'From elsewhere.pdf');
    const [photo, seeThrough, drawing] = (await other.annotations(id)) as Picture[];
    expect(photo).toMatchObject({ kind: 'picture', digest: a.digest });
    const read = async (digest: string): Promise<Buffer> =>
      (await other.app.inject(`/api/pictures/${digest}`)).rawPayload;
    expect((await read(photo.digest)).equals(jpeg)).toBe(true);
    const same = await sharp(await read(seeThrough.digest))
      .raw()
      .toBuffer();
    expect(same.equals(await sharp(clear).raw().toBuffer())).toBe(true);
    expect(drawing).toMatchObject({ kind: 'picture', medium: 'lines' });
    const page = await other.app.inject(`/api/pictures/${drawing.digest}/page`);
    expect(tool('pdfinfo', other.file('drawing.pdf', page.rawPayload))).toContain(
      'Pages:           1',
    );
  } finally {
    await other.stop();
  }
}, 60_000);

test('a picture whose file has not come is refused, and says so', async () => {
  const { id } = await server.bringIn(blankPdf(1), 'Blank.pdf');
  const [page] = (await server.document(id)).pages;
  const facts = { digest: 'f'.repeat(64), medium: 'pixels', width: 1, height: 1 } as const;
  const annotation = picture(page.id, facts, BOX);
  const reply = await server.send(id, [operation(id, { type: 'annotation.add', annotation })]);
  expect(reply.statusCode).toBe(409);
  expect(reply.json()).toMatchObject({ code: 'picture-unknown' });
});
