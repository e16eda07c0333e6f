import { readFileSync } from 'node:fs';
import { documentState, pagesInOrder, takePages, type PageSupply } from '@stylet/core/document';
import { smallPdf } from '../../../core/src/pdf/testing/small-file';
import { perform } from '../testing/page-facts';
import { TestServer, realPdf, tool } from '../testing/server';
import { poppler } from '../testing/viewers';

let server: TestServer;
beforeAll(async () => (server = await TestServer.start()), 60_000);
afterAll(() => server.stop());

const stream = (dict: string, data: string): string =>
  `<< ${dict} /Length ${data.length} >>\nstream\n${data}\nendstream`;

/** Two pages: a field and a hidden and a shown layer on the first, a field of two widgets on both. */
const form = (): Uint8Array =>
  smallPdf([
    `<< /Type /Catalog /Pages 2 0 R
        /AcroForm << /Fields [5 0 R 6 0 R] /DA (/Helv 0 Tf) /DR << /Font << /Helv 9 0 R >> >> >>
        /OCProperties << /OCGs [10 0 R 11 0 R] /D << /OFF [10 0 R] /Order [10 0 R 11 0 R] >> >> >>`,
    '<< /Type /Pages /Kids [3 0 R 4 0 R] /Count 2 /MediaBox [0 0 200 100] >>',
    `<< /Type /Page /Parent 2 0 R /Annots [5 0 R 7 0 R] /Contents 12 0 R
        /Resources << /Properties << /Hidden 10 0 R /Shown 11 0 R >> >> >>`,
    '<< /Type /Page /Parent 2 0 R /Annots [8 0 R] >>',
    '<< /Type /Annot /Subtype /Widget /FT /Tx /T (name) /V (Tern) /Rect [10 10 90 30] /F 4 /P 3 0 R /StructParent 7 >>',
    '<< /FT /Btn /T (agreed) /Kids [7 0 R 8 0 R] >>',
    '<< /Type /Annot /Subtype /Widget /Parent 6 0 R /Rect [100 10 110 20] /F 4 /P 3 0 R >>',
    '<< /Type /Annot /Subtype /Widget /Parent 6 0 R /Rect [100 10 110 20] /F 4 /P 4 0 R >>',
    '<< /Type /Font /Subtype /Type1 /BaseFont /Helvetica >>',
    '<< /Type /OCG /Name (Hidden) >>',
    '<< /Type /OCG /Name (Shown) >>',
    stream(
      '',
      '/OC /Hidden BDC 1 0 0 rg 0 50 100 50 re f EMC /OC /Shown BDC 0 0 1 rg 100 50 100 50 re f EMC',
    ),
  ]);

async function supplyOf(bytes: Uint8Array): Promise<PageSupply> {
  const { id } = await server.bringIn(bytes, 'Form.pdf');
  const { source, landmarks, pages } = await server.document(id);
  return { documentId: id, source, state: documentState('Form', [], landmarks, pages) };
}

test('fields and layers come along with their pages: ISO 32000-1, 12.7.2 and 8.11.4', async () => {
  const supply = await supplyOf(form());
  const base = await server.bringIn(readFileSync(realPdf('libmpfr-doc/mpfr.pdf')), 'Book.pdf');
  const { landmarks, pages } = await server.document(base.id);
  const into = documentState('', [], landmarks, pages);
  const [first] = pagesInOrder(supply.state.pages);
  const taken = takePages(supply, new Set([first.id]), into, 0, '2026-09-01T08:00:00.000Z');
  await perform(server, base.id, taken.effects);
  const file = server.file('with-form.pdf', await server.export(base.id, 'editable'));
  expect(tool('qpdf', '--check', file)).toContain('No syntax or stream encoding errors');

  const { acroform } = JSON.parse(tool('qpdf', '--json', file)) as {
    acroform: {
      hasacroform: boolean;
      fields: { fullname: string; value: unknown; pageposfrom1: number }[];
    };
  };
  expect(acroform.hasacroform).toBe(true);
  const fields = acroform.fields.filter(({ pageposfrom1 }) => pageposfrom1 === 1);
  expect(fields.map(({ fullname, value }) => [fullname, value])).toEqual(
    expect.arrayContaining([
      ['name', 'u:Tern'],
      ['agreed', null],
    ]),
  );
  // As in its own file, one layer is drawn and the other is not.
  const drawn = poppler(file, 1, 1);
  expect(drawn.at(50, 25)).toEqual([255, 255, 255]);
  expect(drawn.at(150, 25)).toEqual([0, 0, 255]);
});

test('pages of mixed sizes, turned and cropped, keep their boxes: pdfinfo -box', async () => {
  const odd = smallPdf([
    '<< /Type /Catalog /Pages 2 0 R >>',
    '<< /Type /Pages /Kids [3 0 R 4 0 R] /Count 2 /MediaBox [0 0 500 700] /CropBox [50 60 450 640] /Rotate 90 >>',
    '<< /Type /Page /Parent 2 0 R /Resources << >> >>',
    '<< /Type /Page /Parent 2 0 R /Resources << >> /MediaBox [-20 -10 300 400] /CropBox [0 0 900 380] /Rotate 0 >>',
  ]);
  const supply = await supplyOf(odd);
  const base = await server.bringIn(form(), 'Form.pdf');
  const { pages } = await server.document(base.id);
  const into = documentState('', [], [], pages);
  const ids = new Set(Object.keys(supply.state.pages));
  await perform(
    server,
    base.id,
    takePages(supply, ids, into, 1, '2026-09-01T08:00:00.000Z').effects,
  );
  const joined = server.file('boxes.pdf', await server.export(base.id, 'editable'));
  const boxes = (file: string): string[] => {
    const said = tool('pdfinfo', '-box', '-f', '1', '-l', '9', file).split('\n');
    return [1, 2, 3, 4].flatMap((page) => {
      const start = new RegExp(`^Page +${page} +(?=rot|MediaBox|CropBox)`);
      const lines = said.filter((line) => start.test(line));
      return lines.length > 0 ? lines.map((line) => line.replace(start, '')).join() : [];
    });
  };
  const [first, last] = boxes(server.file('form-again.pdf', form()));
  const [turned, cropped] = boxes(server.file('odd-again.pdf', odd));
  expect(boxes(joined)).toEqual([first, turned, cropped, last]);

  // Page space is what poppler shows: the sizes here are those of the crop box, before the page is turned.
  const known = pagesInOrder(supply.state.pages).map(({ width, height, rotation }) => [
    width,
    height,
    rotation,
  ]);
  expect(known).toEqual([
    [400, 580, 90],
    [300, 380, 0],
  ]);
});
