import { readFileSync } from 'node:fs';
import type { Box } from '@stylet/core/geometry';
import { MINIATURE, ON_TRAY, TRAY_SIDE, miniatureBox } from '@stylet/core/miniatures';
import { eq } from 'drizzle-orm';
import sharp from 'sharp';
import { smallPdf } from '../../../core/src/pdf/testing/small-file';
import { indexing } from '../db/schema';
import { claimDrawing } from '../indexing/store';
import { TestServer, realPdf, tool, renderingOf, type Rendering } from '../testing/server';

let server: TestServer;
beforeAll(async () => (server = await TestServer.start()));
afterAll(() => server.stop());

jest.setTimeout(120_000);

const SIDE = MINIATURE * TRAY_SIDE;

/** Brings a file in and has it drawn; what is got of a tray then. */
async function drawn(bytes: Uint8Array) {
  const { id } = await server.bringIn(bytes);
  const { pages } = await server.document(id);
  const { source } = pages[0];
  const tray = (nth: number) => server.app.inject(`/api/sources/${source}/miniatures/${nth}`);
  return { pages, tray };
}

async function draw(): Promise<void> {
  server.services.indexer.start();
  server.services.miniaturist.start();
  await server.services.miniaturist.finished();
  await server.services.miniaturist.stop();
}

async function pixels(webp: Buffer): Promise<Rendering> {
  const { data, info } = await sharp(webp)
    .removeAlpha()
    .raw()
    .toBuffer({ resolveWithObject: true });
  return renderingOf(info.width, info.height, data);
}

test('until they are drawn there are none, and of what is no file there never are any', async () => {
  const bytes = readFileSync(realPdf('asymptote-doc/asyRefCard.pdf'));
  const { tray } = await drawn(bytes);
  const before = await tray(0);
  expect([before.statusCode, before.headers['cache-control']]).toEqual([204, 'no-store']);
  await draw();
  const after = await tray(0);
  expect([after.statusCode, after.headers['content-type']]).toEqual([200, 'image/webp']);
  expect((await tray(1)).statusCode).toBe(204);
  const none = await server.app.inject(`/api/sources/${'0'.repeat(64)}/miniatures/0`);
  expect([none.statusCode, none.json().code]).toEqual([404, 'source-not-found']);
});

test('pages of a real manual look as mutool draws them, each like itself the most', async () => {
  const path = realPdf('sbcl-doc/sbcl-internals.pdf');
  const { pages, tray } = await drawn(readFileSync(path));
  await draw();
  const nth = 1;
  const shown = await pixels((await tray(nth)).rawPayload);
  expect([shown.width, shown.height]).toEqual([SIDE, SIDE]);
  const indexes = Array.from({ length: ON_TRAY }, (_, i) => nth * ON_TRAY + i);
  const ours = indexes.map((index) => greys(shown, miniatureBox(index, pages[index])));
  const theirs = await Promise.all(
    indexes.map(async (index) => {
      const { x0, y0, x1, y1 } = miniatureBox(index, pages[index]);
      const out = server.file(`reference-${index}.png`, new Uint8Array());
      tool('mutool', 'draw', '-q', '-o', out, '-r', '72', path, `${index + 1}`);
      const small = sharp(out).resize(x1 - x0, y1 - y0, { fit: 'fill' });
      const drawing = await pixels(await small.webp({ lossless: true }).toBuffer());
      return greys(drawing, { x0: 0, y0: 0, x1: x1 - x0, y1: y1 - y0 });
    }),
  );
  for (const [i, own] of ours.entries()) {
    const far = theirs.map((other) => distance(own, other));
    expect(far.indexOf(Math.min(...far))).toBe(i);
  }
});

/** How dark each pixel of a part is. */
function greys({ at }: Rendering, { x0, y0, x1, y1 }: Box): number[] {
  const rows = Array.from({ length: y1 - y0 }, (_, y) => y0 + y);
  return rows.flatMap((y) => Array.from({ length: x1 - x0 }, (_, x) => 255 - at(x0 + x, y)[1]));
}

const distance = (a: readonly number[], b: readonly number[]): number =>
  Math.hypot(...a.map((grey, i) => grey - b[i]));

test('a page that the file turns, or shows a part of, lies as it is before it is turned', async () => {
  const angles = [0, 90, 180, 270];
  const content = '0.8 0 0 rg 100 400 100 100 re f';
  const kids = angles.map((_, i) => `${i + 4} 0 R`).join(' ');
  const file = smallPdf([
    '<< /Type /Catalog /Pages 2 0 R >>',
    `<< /Type /Pages /Kids [${kids}] /Count 4 /MediaBox [0 0 400 600] /CropBox [100 100 300 500] >>`,
    `<< /Length ${content.length} >>\nstream\n${content}\nendstream`,
    ...angles.map(
      (angle) =>
        `<< /Type /Page /Parent 2 0 R /Resources << >> /Contents 3 0 R /Rotate ${angle} >>`,
    ),
  ]);
  const { pages, tray } = await drawn(file);
  await draw();
  const shown = await pixels((await tray(0)).rawPayload);
  for (const [index, page] of pages.entries()) {
    const { x0, y0, x1, y1 } = miniatureBox(index, page);
    expect([x1 - x0, y1 - y0]).toEqual([MINIATURE / 2, MINIATURE]);
    const isRed = ([r, g]: readonly number[]): boolean => r > 150 && g < 90;
    expect(isRed(shown.at(x0 + 8, y0 + 8))).toBe(true);
    expect(isRed(shown.at(x1 - 8, y0 + 8))).toBe(false);
    expect(isRed(shown.at(x0 + 8, y1 - 8))).toBe(false);
  }
});

test('drawing that was broken off goes on where it was, by one server at a time', async () => {
  const { database } = server.services;
  const { pages, tray } = await drawn(readFileSync(realPdf('libmpfr-doc/mpfr.pdf')));
  const { source } = pages[0];
  await server.index();
  await database.update(indexing).set({ drawn: 16 }).where(eq(indexing.source, source));
  expect(await claimDrawing(database)).toMatchObject({ source, done: 16, pages: pages.length });
  expect(await claimDrawing(database)).toBeUndefined();
  await draw();
  expect((await tray(1)).statusCode).toBe(204);
  await database.update(indexing).set({ claimed: new Date(Date.now() - 120_000) });
  await draw();
  const got = [0, 1, Math.ceil(pages.length / 16) - 1].map(
    async (nth) => (await tray(nth)).statusCode,
  );
  expect(await Promise.all(got)).toEqual([204, 200, 200]);
});
