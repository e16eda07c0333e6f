import { readFileSync } from 'node:fs';
import { findResultSchema } from '@stylet/core/api';
import { TestServer, realPdf, tool } from '../testing/server';

let server: TestServer;
beforeAll(async () => {
  server = await TestServer.start();
}, 60_000);
afterAll(() => server.stop());

async function found(typed: string): Promise<{ title: string; pages: number }[]> {
  const reply = await server.app.inject(`/api/find?typed=${encodeURIComponent(typed)}`);
  return findResultSchema
    .parse(reply.json())
    .documents.map(({ title, pages }) => ({ title, pages }));
}

/** A page of text in a font that is not in the file, which tells its characters by a predefined CMap (ISO 32000-1, 9.7.5.2). */
function pdfWith(text: Buffer, encoding: string, ordering: string): Buffer {
  const content = `BT /F 24 Tf 50 700 Td <${text.toString('hex')}> Tj ET`;
  const objects = [
    '<< /Type /Catalog /Pages 2 0 R >>',
    '<< /Type /Pages /Kids [3 0 R] /Count 1 >>',
    '<< /Type /Page /Parent 2 0 R /MediaBox [0 0 595 842] /Contents 4 0 R /Resources << /Font << /F 5 0 R >> >> >>',
    `<< /Length ${content.length} >>\nstream\n${content}\nendstream`,
    `<< /Type /Font /Subtype /Type0 /BaseFont /Tide /Encoding /${encoding} /DescendantFonts [6 0 R] >>`,
    `<< /Type /Font /Subtype /CIDFontType0 /BaseFont /Tide /DW 1000 /FontDescriptor 7 0 R
      /CIDSystemInfo << /Registry (Adobe) /Ordering (${ordering}) /Supplement 2 >> >>`,
    '<< /Type /FontDescriptor /FontName /Tide /Flags 4 /FontBBox [0 -200 1000 900] /ItalicAngle 0 /Ascent 880 /Descent -120 /CapHeight 700 /StemV 80 >>',
  ];
  let pdf = '%PDF-1.5\n';
  const offsets = objects.map((object, i) => {
    const at = pdf.length;
    pdf += `${i + 1} 0 obj\n${object}\nendobj\n`;
    return at;
  });
  const start = pdf.length;
  pdf += `xref\n0 ${objects.length + 1}\n0000000000 65535 f \n`;
  for (const at of offsets) pdf += `${String(at).padStart(10, '0')} 00000 n \n`;
  pdf += `trailer\n<< /Size ${objects.length + 1} /Root 1 0 R >>\nstartxref\n${start}\n%%EOF\n`;
  return Buffer.from(pdf, 'latin1');
}

const utf16 = (text: string): Buffer => Buffer.from(text, 'utf16le').swap16();

test('text in fonts of the Chinese and Japanese collections is found by the characters their CMaps tell', async () => {
  await server.bringIn(pdfWith(utf16('潮汐表与海岸'), 'UniGB-UTF16-H', 'GB1'), 'Simplified.pdf');
  await server.bringIn(pdfWith(utf16('潮の満ち引き'), 'UniJIS-UTF16-H', 'Japan1'), 'Kana.pdf');
  // 潮汐 in EUC-CN (GB 2312, rows 19 and 47: from memory, checked by poppler below).
  const gbk = pdfWith(Buffer.from('b3b1cfab', 'hex'), 'GBK-EUC-H', 'GB1');
  await server.bringIn(gbk, 'Old.pdf');
  await server.index();
  expect((await found('潮汐')).map(({ title }) => title).sort()).toEqual(['Old', 'Simplified']);
  expect(await found('海岸')).toEqual([{ title: 'Simplified', pages: 1 }]);
  expect(await found('満ち引き')).toEqual([{ title: 'Kana', pages: 1 }]);
  expect(await found('岸海')).toEqual([]);
}, 60_000);

test.each(['refcard-ja-a4', 'refcard-zh_CN-a4', 'refcard-zh_TW-a4'])(
  'what poppler reads on the pages of %s is found there',
  async (name) => {
    const path = realPdf(`debian-refcard/${name}.pdf`);
    const { id } = await server.bringIn(readFileSync(path), `${name}.pdf`);
    await server.index();
    const pages = tool('pdftotext', '-raw', path, '-').split('\f');
    const unspaced = /[\p{Script=Han}\p{Script=Hiragana}\p{Script=Katakana}]{4,}/gu;
    const runs = [...new Set(pages.join('\n').match(unspaced))];
    expect(runs.length).toBeGreaterThan(40);
    const lost: string[] = [];
    for (const run of runs) {
      const reply = await server.app.inject(
        `/api/find?document=${id}&typed=${encodeURIComponent(run.slice(0, 4))}`,
      );
      const { documents } = findResultSchema.parse(reply.json());
      if ((documents[0]?.pages ?? 0) === 0) lost.push(run);
    }
    // Poppler and pdf.js take some glyphs for other characters of the same look.
    expect(lost.length).toBeLessThanOrEqual(0.05 * runs.length);
  },
  120_000,
);
