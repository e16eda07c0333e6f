import { newId, type Annotation } from '@stylet/core/document';
import {
  shippedSheets,
  type SheetPages,
  type Stamp,
  type StampChange,
  type StampList,
} from '@stylet/core/stamps';
import sharp from 'sharp';
import { blankPdf, image, picture, putIn } from '../testing/pictures';
import { TestServer, operation, stroke, tool } from '../testing/server';
import { faultsIn } from '../testing/standard-annotations';
import { viewers } from '../testing/viewers';

let server: TestServer;
beforeAll(async () => (server = await TestServer.start()), 60_000);
afterAll(() => server.stop());

const list = async (): Promise<StampList> => (await server.app.inject('/api/stamps')).json();
const keep = (change: StampChange) =>
  server.app.inject({ method: 'PUT', url: '/api/stamps', payload: change });
const draw = (annotations: readonly Annotation[]) =>
  server.app.inject({ method: 'POST', url: '/api/drawings', payload: { annotations } });

type Facts = Pick<Stamp, 'digest' | 'medium' | 'width' | 'height'>;
const RED = [0xb3, 0x37, 0x2f];
/** A stroke of 60 points to the right, 4 wide. */
const line = (y: number) =>
  stroke(
    newId(),
    [
      [100, y],
      [130, y],
      [160, y],
    ],
    { instrument: 'fineliner', width: 4, color: '#b3372f', smoothing: 0 },
  );

const stampOf = (
  facts: Facts,
  sheet: string,
  name: string,
  change: Partial<Stamp> = {},
): Stamp => ({
  ...facts,
  id: newId(),
  sheet,
  name,
  order: 'a0',
  size: { width: facts.width, height: facts.height },
  favourite: false,
  removed: false,
  ...change,
});

/** A page as mutool draws it on nothing, RGBA, a pixel to the point. */
async function onNothing(file: string, page = 1) {
  const to = server.file('page.png', Buffer.alloc(0));
  tool('mutool', 'draw', '-r', '72', '-c', 'rgba', '-o', to, file, String(page));
  const { data, info } = await sharp(to).raw().toBuffer({ resolveWithObject: true });
  const at = (x: number, y: number) => [
    ...data.subarray(4 * (y * info.width + x), 4 * (y * info.width + x) + 4),
  ];
  return { ...info, data, at };
}

/** Opaque red; mutool rounds colours within groups. */
function expectRed([red, green, blue, alpha]: readonly number[]): void {
  expect(alpha).toBe(255);
  [red, green, blue].forEach((value, k) => expect(Math.abs(value - RED[k])).toBeLessThan(2));
}

const pageOf = async (digest: string): Promise<string> =>
  server.file(
    `${digest}.pdf`,
    (await server.app.inject(`/api/pictures/${digest}/page`)).rawPayload,
  );

test('the shipped sheets are there from the beginning, and do not come back once removed', async () => {
  // Two windows at once get them once.
  const [first, second] = await Promise.all([list(), list()]);
  expect(second).toEqual(first);
  expect(first.sheets.map(({ name }) => name)).toEqual(shippedSheets.map(({ name }) => name));
  expect(first.stamps).toHaveLength(shippedSheets.flatMap(({ stamps }) => stamps).length);
  const [gone] = first.sheets;
  expect((await keep({ sheets: [{ ...gone, removed: true }], stamps: [] })).statusCode).toBe(204);
  expect((await list()).sheets.map(({ id }) => id)).not.toContain(gone.id);
  await keep({ sheets: [gone], stamps: [] });
  expect(await list()).toEqual(first);
}, 60_000);

test('a drawing is as large as what is drawn, and clear where nothing is', async () => {
  const reply = await draw([line(50)]);
  expect(reply.statusCode).toBe(201);
  const facts = reply.json<Facts>();
  expect(facts.medium).toBe('lines');
  // 60 points of way and 4 of width, half a point free all round.
  expect(Math.abs(facts.width - 65)).toBeLessThan(1);
  expect(Math.abs(facts.height - 5)).toBeLessThan(1);
  const file = await pageOf(facts.digest);
  expect(tool('qpdf', '--check', file)).toContain('No syntax or stream encoding errors');
  const { at, width, height } = await onNothing(file);
  expect(at(0, 0)[3]).toBe(0);
  expectRed(at(width >> 1, height >> 1));
  // The same elsewhere on a page is the same file.
  expect((await draw([line(250)])).json()).toEqual(facts);
});

test('what shows nothing, and pictures of others, are no drawings', async () => {
  const unseen = picture(
    newId(),
    { digest: '0'.repeat(64), medium: 'pixels', width: 4, height: 4 },
    [0, 0, 10, 10],
  );
  expect((await draw([line(50), unseen])).json()).toMatchObject({ code: 'picture-not-found' });
  const gone = await draw([
    {
      ...unseen,
      kind: 'link',
      quads: [[0, 0, 9, 0, 0, 9, 9, 9]],
      target: { address: 'https://example.org/' },
    } as Annotation,
  ]);
  expect([gone.statusCode, gone.json<{ code: string }>().code]).toEqual([422, 'drawing-empty']);
});

test('a sheet goes out as a PDF of a page for each stamp with its name, and comes in again the same', async () => {
  const sheet = { id: newId(), name: 'Signs of the survey', order: 'a5', removed: false };
  const inked = (await draw([line(50), line(60)])).json<Facts>();
  const pixels = await putIn(server, await image(80, 40).png().toBuffer());
  const half = [
    { x: 0.5, y: 0 },
    { x: 1, y: 0 },
    { x: 1, y: 1 },
    { x: 0.5, y: 1 },
  ];
  const stamps = [
    stampOf(inked, sheet.id, 'Two lines'),
    stampOf(pixels, sheet.id, 'Half a picture (ü, 潮)', {
      crop: half,
      size: { width: 40, height: 40 },
      order: 'a1',
      favourite: true,
    }),
  ];
  expect((await keep({ sheets: [sheet], stamps })).statusCode).toBe(204);
  expect((await list()).stamps.filter((one) => one.sheet === sheet.id)).toEqual(stamps);

  const reply = await server.app.inject(`/api/stamp-sheets/${sheet.id}/pdf`);
  expect(reply.headers['content-disposition']).toContain('Signs of the survey.pdf');
  const file = server.file('sheet.pdf', reply.rawPayload);
  expect(tool('qpdf', '--check', file)).toContain('No syntax or stream encoding errors');
  const { outlines, pagelabels } = JSON.parse(
    tool('qpdf', '--json', '--json-key=outlines', '--json-key=pagelabels', file),
  ) as {
    outlines: { title: string; destpageposfrom1: number }[];
    pagelabels: { index: number }[];
  };
  expect(outlines.map(({ title, destpageposfrom1 }) => [title, destpageposfrom1])).toEqual([
    ['Two lines', 1],
    ['Half a picture (ü, 潮)', 2],
  ]);
  expect(pagelabels.map(({ index }) => index)).toEqual([0, 1]);
  const info = tool('pdfinfo', '-l', '2', file);
  expect(info).toContain('Title:           Signs of the survey');
  expect(info).toMatch(/Page +2 size: +40 x 40 pts/);
  // The right half of the picture, pixel by pixel but for the edges.
  const cut = await onNothing(file, 2);
  const { data, info: whole } = await image(80, 40)
    .removeAlpha()
    .raw()
    .toBuffer({ resolveWithObject: true });
  for (let y = 1; y < 39; y++)
    for (let x = 1; x < 39; x++)
      for (let k = 0; k < 3; k++)
        expect(Math.abs(cut.at(x, y)[k] - data[3 * (y * whole.width + x + 40) + k])).toBeLessThan(
          3,
        );

  const back = await server.upload(reply.rawPayload, 'signs.pdf', '/api/sheet-pages');
  expect(back.statusCode).toBe(201);
  const { title, pages } = back.json<SheetPages>();
  expect(title).toBe('Signs of the survey');
  expect(pages.map(({ name }) => name)).toEqual(stamps.map(({ name }) => name));
  for (const [i, { digest, width, height }] of pages.entries()) {
    expect(Math.abs(width - stamps[i].size.width)).toBeLessThan(0.01);
    expect(Math.abs(height - stamps[i].size.height)).toBeLessThan(0.01);
    const [before, after] = [await onNothing(file, i + 1), await onNothing(await pageOf(digest))];
    expect(after.data.equals(before.data)).toBe(true);
  }
}, 60_000);

test('pages of any PDF become pictures as they look, with what is written on them and no paper', async () => {
  const { id } = await server.bringIn(blankPdf(2), 'Blank.pdf');
  const { pages } = await server.document(id);
  const annotation = { ...line(50), pageId: pages[1].id };
  await server.send(id, [operation(id, { type: 'annotation.add', annotation })]);
  const bytes = await server.export(id, 'editable');
  const reply = await server.upload(bytes, 'marked.pdf', '/api/sheet-pages');
  const taken = reply.json<SheetPages>();
  expect(taken.pages).toHaveLength(2);
  const blank = await onNothing(await pageOf(taken.pages[0].digest));
  expect(blank.data.every((value) => value === 0)).toBe(true);
  const { at } = await onNothing(await pageOf(taken.pages[1].digest));
  expectRed(at(130, 50));
  expect(at(130, 80)[3]).toBe(0);
}, 60_000);

test.each(Object.entries(viewers))(
  'a stamp in a colour of its own is in that colour as far as it is opaque, for %s',
  async (_, viewer) => {
    const { id } = await server.bringIn(blankPdf(1), 'Blank.pdf');
    const { pages } = await server.document(id);
    const facts = (await draw([line(50)])).json<Facts>();
    const stamp = {
      ...picture(pages[0].id, facts, [100, 100, facts.width, facts.height]),
      isStamp: true,
      tint: '#1f7a52',
      contents: 'Line',
    };
    await server.send(id, [operation(id, { type: 'annotation.add', annotation: stamp })]);
    const bytes = await server.export(id, 'editable');
    const file = server.file('tinted.pdf', bytes);
    expect(tool('qpdf', '--check', file)).toContain('No syntax or stream encoding errors');
    expect(faultsIn(file)).toEqual([]);
    const drawn = viewer(file, 1, 1);
    const middle = drawn.at(
      100 + (Math.round(facts.width) >> 1),
      100 + (Math.round(facts.height) >> 1),
    );
    [0x1f, 0x7a, 0x52].forEach((value, k) => expect(Math.abs(middle[k] - value)).toBeLessThan(3));
    expect([...drawn.at(130, 120)]).toEqual([255, 255, 255]);
    const back = await server.bringIn(bytes, 'Back.pdf');
    const [again] = await server.annotations(back.id);
    expect(again).toMatchObject({
      isStamp: true,
      tint: '#1f7a52',
      contents: 'Line',
      digest: facts.digest,
    });
  },
  60_000,
);

test('what is no sheet is refused, and what belongs to another account is not there', async () => {
  const sent = async (bytes: Buffer, url = '/api/sheet-pages') => {
    const reply = await server.upload(bytes, 'x.pdf', url);
    return [reply.statusCode, reply.json<{ code: string }>().code];
  };
  expect(await sent(Buffer.from('no PDF at all'))).toEqual([422, 'pdf-damaged']);
  expect(await sent(blankPdf(301))).toEqual([413, 'sheet-too-large']);
  const { sheets, stamps } = await list();
  const other = { ...sheets[0], id: newId() };
  const orphan = { ...stamps[0], id: newId(), sheet: other.id };
  const refused = await keep({ sheets: [], stamps: [orphan] });
  expect([refused.statusCode, refused.json<{ code: string }>().code]).toEqual([
    404,
    'stamp-sheet-not-found',
  ]);
  const unknown = await keep({ sheets: [], stamps: [{ ...stamps[0], digest: 'f'.repeat(64) }] });
  expect(unknown.json()).toMatchObject({ code: 'picture-not-found' });
  expect((await server.app.inject(`/api/stamp-sheets/${other.id}/pdf`)).statusCode).toBe(404);
  // None of it was kept.
  expect(await list()).toEqual({ sheets, stamps });
}, 60_000);
