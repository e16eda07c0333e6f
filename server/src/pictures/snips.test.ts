import { readFileSync } from 'node:fs';
import { join } from 'node:path';
import { pictureFactsSchema, type PictureFacts } from '@stylet/core/api';
import { smallPdf } from '../../../core/src/pdf/testing/small-file';
import {
  TestServer,
  highlight,
  operation,
  readPpm,
  realPdf,
  stroke,
  tool,
  type Rendering,
} from '../testing/server';
import { blankPdf, picture } from '../testing/pictures';
import { viewers } from '../testing/viewers';

const PAGE = 20;
const SCALE = 2;
const REGION = { x0: 100, y0: 120, x1: 300, y1: 320 };
/** Where the snip lies on the page it is put on. */
const AT = { x: 40, y: 50 };

let server: TestServer;
beforeAll(async () => (server = await TestServer.start()), 60_000);
afterAll(() => server.stop());

async function snip(id: string, pageId: string, annotations: boolean, region = REGION) {
  return server.app.inject({
    method: 'POST',
    url: `/api/documents/${id}/snips`,
    payload: { pageId, region, annotations },
  });
}

/** A document that has a snip on its page, as a file. */
async function withSnip(facts: PictureFacts): Promise<string> {
  const { id } = await server.bringIn(blankPdf(1), 'Notes.pdf');
  const [page] = (await server.document(id)).pages;
  const annotation = picture(page.id, facts, [AT.x, AT.y, facts.width, facts.height]);
  await server.send(id, [operation(id, { type: 'annotation.add', annotation })]);
  const file = server.file(`${id}.pdf`, await server.export(id, 'editable'));
  expect(tool('qpdf', '--check', file)).toContain('No syntax or stream encoding errors');
  return file;
}

/** The share of pixels in which a snip differs from the region it was cut from, but for its edges. */
function differing(page: Rendering, snipped: Rendering, region = REGION): number {
  let [wrong, all] = [0, 0];
  for (let y = 2; y < SCALE * (region.y1 - region.y0) - 2; y++)
    for (let x = 2; x < SCALE * (region.x1 - region.x0) - 2; x++) {
      const was = page.at(SCALE * region.x0 + x, SCALE * region.y0 + y);
      const is = snipped.at(SCALE * AT.x + x, SCALE * AT.y + y);
      if (was.some((value, k) => Math.abs(value - is[k]) > 24)) wrong++;
      all++;
    }
  return wrong / all;
}

test.each([false, true])(
  'a snip is drawn by the page’s own letters and lines, and looks as the page does (annotations: %s)',
  async (annotations) => {
    const { id } = await server.bringIn(readFileSync(realPdf('sbcl-doc/sbcl.pdf')), 'Manual.pdf');
    const page = (await server.document(id)).pages[PAGE - 1];
    const wave = Array.from({ length: 50 }, (_, i): [number, number] => [
      110 + 3 * i,
      200 + 30 * Math.sin(i / 5),
    ]);
    const marks = [
      stroke(page.id, wave),
      highlight(page.id, [[120, 140, 260, 140, 120, 160, 260, 160]], ''),
    ];
    await server.send(
      id,
      marks.map((annotation) => operation(id, { type: 'annotation.add', annotation })),
    );
    const reply = await snip(id, page.id, annotations);
    expect(reply.statusCode).toBe(201);
    const facts = pictureFactsSchema.parse(reply.json());
    expect(facts).toMatchObject({ medium: 'lines', width: 200, height: 200 });
    const notes = await withSnip(facts);
    const whole = server.file(
      'page.pdf',
      await server.export(id, annotations ? 'editable' : 'none'),
    );
    for (const view of Object.values(viewers))
      expect(differing(view(whole, PAGE, SCALE), view(notes, 1, SCALE))).toBeLessThan(0.002);
    // No pixels: the words can be read.
    expect(tool('pdfimages', '-list', notes).trim().split('\n')).toHaveLength(2);
    const box = ['-x', '100', '-y', '120', '-W', '200', '-H', '200'];
    const range = ['-f', `${PAGE}`, '-l', `${PAGE}`];
    const words = tool('pdftotext', ...range, ...box, whole, '-').match(/\w{4,}/g)!;
    const found = tool('pdftotext', notes, '-');
    expect(words.length).toBeGreaterThan(5);
    expect(words.filter((word) => !found.includes(word))).toEqual([]);
    // Only what the one page needs came along.
    expect(readFileSync(notes).length).toBeLessThan(400_000);
  },
  60_000,
);

test('a snip of a page that is turned is as the page is seen', async () => {
  const plain = realPdf('sbcl-doc/sbcl.pdf');
  const turned = join(server.folder, 'turned.pdf');
  tool('qpdf', plain, '--pages', '.', `${PAGE}`, '--', '--rotate=+90', turned);
  const { id } = await server.bringIn(readFileSync(turned), 'Turned.pdf');
  const [page] = (await server.document(id)).pages;
  // As it is seen, it begins on whole pixels.
  const region = { x0: 100, y0: page.height - 600, x1: 260, y1: page.height - 400 };
  const reply = await snip(id, page.id, false, region);
  const facts = pictureFactsSchema.parse(reply.json());
  // Across what was down: 200 points wide, 160 high.
  expect(facts).toMatchObject({ width: 200, height: 160 });
  const notes = await withSnip(facts);
  tool('pdftoppm', '-r', '144', '-singlefile', '-cropbox', turned, `${turned}.whole`);
  const seen = { x0: 400, y0: 100, x1: 600, y1: 260 };
  const whole = readPpm(`${turned}.whole.ppm`);
  expect(differing(whole, viewers.poppler(notes, 1, SCALE), seen)).toBeLessThan(0.002);
}, 60_000);

test('contents in several parts and in other encodings are snipped all the same', async () => {
  const hex = [...'0.2 0.4 0.6 rg 0 0 80 80 re f']
    .map((c) => c.charCodeAt(0).toString(16))
    .join('');
  const part = '1 0 0 rg 80 0 80 80 re f';
  const bytes = smallPdf([
    '<< /Type /Catalog /Pages 2 0 R >>',
    '<< /Type /Pages /Kids [3 0 R] /Count 1 /MediaBox [0 0 160 80] >>',
    '<< /Type /Page /Parent 2 0 R /Contents [4 0 R 5 0 R] >>',
    `<< /Filter /ASCIIHexDecode /Length ${hex.length + 1} >>\nstream\n${hex}>\nendstream`,
    `<< /Length ${part.length} >>\nstream\n${part}\nendstream`,
  ]);
  const { id } = await server.bringIn(Buffer.from(bytes), 'Parts.pdf');
  const [page] = (await server.document(id)).pages;
  const reply = await snip(id, page.id, true, { x0: 40, y0: 10, x1: 120, y1: 50 });
  const notes = await withSnip(pictureFactsSchema.parse(reply.json()));
  for (const view of Object.values(viewers)) {
    const drawn = view(notes, 1, 1);
    expect(drawn.at(AT.x + 20, AT.y + 20)).toEqual([51, 102, 153]);
    expect(drawn.at(AT.x + 60, AT.y + 20)).toEqual([255, 0, 0]);
  }
});

test('a snip beside the page, or of a page that is not there, is refused with what to do', async () => {
  const { id } = await server.bringIn(blankPdf(1), 'Blank.pdf');
  const [page] = (await server.document(id)).pages;
  const beside = await snip(id, page.id, true, { x0: 900, y0: 0, x1: 950, y1: 10 });
  expect(beside.json()).toMatchObject({ status: 422, code: 'snip-outside' });
  const elsewhere = await snip(id, id, true);
  expect(elsewhere.json()).toMatchObject({ status: 400, code: 'operation-invalid' });
});
