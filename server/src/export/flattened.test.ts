import { readFileSync } from 'node:fs';
import { exportReportSchema, type ExportReport } from '@stylet/core/api';
import { wordsOf, type Annotation } from '@stylet/core/document';
import { TestServer, operation, stroke, tool } from '../testing/server';
import { mutool, poppler } from '../testing/viewers';
import { smallPdf } from '../../../core/src/pdf/testing/small-file';

let server: TestServer;
beforeAll(async () => (server = await TestServer.start()));
afterAll(() => server.stop());

/** ISO 32000-1, 12.5.6: annotations with their standard entries and no appearance. */
const WITHOUT_LOOKS = [
  '/Subtype /Highlight /Rect [20 340 120 360] /QuadPoints [20 360 120 360 20 340 120 340] /C [1 1 0]',
  '/Subtype /Underline /Rect [20 300 120 320] /QuadPoints [20 320 120 320 20 300 120 300] /C [1 0 0]',
  '/Subtype /StrikeOut /Rect [20 260 120 280] /QuadPoints [20 280 120 280 20 260 120 260] /C [1 0 0]',
  '/Subtype /Square /Rect [20 200 60 240] /C [0 0 1] /IC [0 1 0] /BS << /W 4 >>',
  '/Subtype /Circle /Rect [80 200 120 240] /C [0 0 1] /BS << /W 4 >>',
  '/Subtype /Line /Rect [140 200 200 240] /L [140 220 200 220] /C [1 0 1] /BS << /W 4 >>',
  '/Subtype /PolyLine /Rect [140 260 200 300] /Vertices [140 260 170 300 200 260] /C [1 0 1] /BS << /W 4 >>',
  '/Subtype /Polygon /Rect [140 320 200 360] /Vertices [140 320 200 320 170 360] /C [0 0 0] /IC [0 1 1]',
  '/Subtype /Ink /Rect [20 160 120 180] /InkList [[20 170 120 170]] /C [1 0 0] /BS << /W 4 >>',
  '/Subtype /FreeText /Rect [20 100 200 140] /DA (/Helv 20 Tf 0 0 1 rg) /Contents (Longshore drift)',
  '/Subtype /Text /Rect [220 340 240 360] /Contents (Is that so?)',
];

const page = (annots: string): string =>
  `<< /Type /Page /Parent 2 0 R /MediaBox [0 0 300 400] /Annots [${annots}] >>`;
const fileWith = (annots: string, more: readonly string[] = []): Uint8Array =>
  smallPdf([
    '<< /Type /Catalog /Pages 2 0 R >>',
    '<< /Type /Pages /Kids [3 0 R] /Count 1 >>',
    page(annots),
    ...more,
  ]);
const asObjects = (list: readonly string[]): Uint8Array =>
  fileWith(
    list.map((_, i) => `${4 + i} 0 R`).join(' '),
    list.map((entries) => `<< /Type /Annot ${entries} >>`),
  );

const report = async (id: string, query: string): Promise<ExportReport> =>
  exportReportSchema.parse(
    (await server.app.inject(`/api/documents/${id}/export/report?${query}`)).json(),
  );

/** Where, in page space, and in which colour something of each is to be seen. */
const SEEN: [string, number, number, (r: number, g: number, b: number) => boolean][] = [
  ['highlight', 70, 50, (r, g, b) => r > 240 && g > 240 && b < 60],
  ['underline', 70, 98.4, (r, g) => r > 180 && g < 160],
  ['strikeout', 70, 131, (r, g) => r > 180 && g < 160],
  ['square, line', 21.5, 180, (r, _g, b) => r < 80 && b > 180],
  ['square, inside', 40, 180, (r, g) => r < 80 && g > 180],
  ['circle', 100, 162, (r, _g, b) => r < 90 && b > 180],
  ['line', 170, 180, (r, g, b) => r > 180 && g < 90 && b > 180],
  ['polygon, inside', 170, 68, (r, g, b) => r < 90 && g > 180 && b > 180],
  ['ink', 70, 230, (r, g) => r > 180 && g < 90],
];

test.each([
  ['as objects', asObjects(WITHOUT_LOOKS)],
  [
    'written directly on their page',
    fileWith(WITHOUT_LOOKS.map((entries) => `<< /Type /Annot ${entries} >>`).join(' ')),
  ],
])(
  'annotations without a look get one that every viewer draws, %s',
  async (_how, bytes) => {
    const { id } = await server.bringIn(bytes, 'Marks.pdf');
    const annotations = await server.annotations(id);
    expect(annotations).toHaveLength(WITHOUT_LOOKS.length);
    const flat = server.file('flat.pdf', await server.export(id, 'flattened', '&notes=false'));
    expect(tool('qpdf', '--check', flat)).toContain('No syntax or stream encoding errors');
    // They are part of the page: no program shows annotations there.
    expect(tool('pdftotext', flat, '-')).toContain('Longshore drift');
    for (const draw of [poppler, mutool]) {
      const picture = draw(flat, 1, 2);
      for (const [name, x, y, isIt] of SEEN)
        expect([
          draw === poppler ? 'poppler' : 'mutool',
          name,
          isIt(...picture.at(2 * x, 2 * y)),
        ]).toEqual([expect.anything(), name, true]);
    }
    // They can be removed, wherever they were written.
    const [first] = annotations;
    const effect = {
      type: 'annotation.remove',
      pageId: first.pageId,
      annotationId: first.id,
    } as const;
    await server.send(id, [operation(id, effect)]);
    const rest = server.file('rest.pdf', await server.export(id, 'editable'));
    expect(await again(rest)).toHaveLength(WITHOUT_LOOKS.length - 1);
  },
  60_000,
);

const again = async (path: string): Promise<Annotation[]> =>
  server.annotations((await server.bringIn(readFileSync(path), 'Again.pdf')).id);

test('a reply goes with what it answers, and what it is answered by goes with it', async () => {
  const bytes = asObjects([
    '/Subtype /Highlight /Rect [20 340 120 360] /QuadPoints [20 360 120 360 20 340 120 340] /C [1 1 0] /Popup 7 0 R',
    '/Subtype /Text /Rect [20 340 40 360] /Contents (Really?) /IRT 4 0 R',
    '/Subtype /Text /Rect [20 340 40 360] /Contents (Yes.) /IRT 5 0 R',
    '/Subtype /Popup /Rect [0 0 9 9] /Parent 4 0 R',
    '/Subtype /Text /Rect [200 340 220 360] /Contents (Alone)',
  ]);
  const { id } = await server.bringIn(bytes, 'Replies.pdf');
  const mark = (await server.annotations(id)).find(
    (a) => a.kind === 'foreign' && a.subtype === 'Highlight',
  )!;
  await server.send(id, [
    operation(id, { type: 'annotation.remove', pageId: mark.pageId, annotationId: mark.id }),
  ]);
  const file = server.file('replies.pdf', await server.export(id, 'editable'));
  expect((await again(file)).map(wordsOf)).toEqual(['Alone']);
}, 30_000);

test('notes and remarks stay notes, or are left out and said to be, as is chosen', async () => {
  const bytes = asObjects([
    '/Subtype /Square /Rect [20 200 60 240] /C [0 0 1] /Contents (Which figure?)',
    '/Subtype /Text /Rect [220 340 240 360] /Contents (Is that so?)',
    '/Subtype /Text /Rect [220 340 240 360] /Contents (It is.) /IRT 5 0 R',
    '/Subtype /Highlight /Rect [20 340 120 360] /QuadPoints [20 360 120 360 20 340 120 340] /C [1 1 0] /F 2',
  ]);
  const { id } = await server.bringIn(bytes, 'Notes.pdf');
  expect(await report(id, 'annotations=flattened&notes=true')).toMatchObject({
    hidden: 1,
    notes: 0,
  });
  const kept = server.file('kept.pdf', await server.export(id, 'flattened', '&notes=true'));
  const notes = (await again(kept)).map((one) => [one.kind, wordsOf(one)]);
  expect(notes.sort()).toEqual([
    ['note', 'Is that so?'],
    ['note', 'Which figure?'],
    ['reply', 'It is.'],
  ]);
  expect(await report(id, 'annotations=flattened&notes=false')).toMatchObject({ notes: 3 });
  const left = server.file('left.pdf', await server.export(id, 'flattened', '&notes=false'));
  expect(await again(left)).toEqual([]);
}, 30_000);

test('what carries a file stays with it; left out it is said', async () => {
  const bytes = fileWith('4 0 R', [
    '<< /Type /Annot /Subtype /FileAttachment /Rect [20 20 40 40] /FS 5 0 R /Contents (Data) >>',
    '<< /Type /Filespec /F (tides.csv) /EF << /F 6 0 R >> >>',
    '<< /Type /EmbeddedFile /Length 9 >>\nstream\nday,metre\nendstream',
  ]);
  const { id, notices } = await server.bringIn(bytes, 'Carrying.pdf');
  expect(notices).toContainEqual({ kind: 'files-inside', count: 1 });
  const flat = server.file('carrying.pdf', await server.export(id, 'flattened'));
  expect(tool('pdfdetach', '-list', flat)).toContain('1 embedded files');
  expect(await report(id, 'annotations=none')).toMatchObject({ carried: 1 });
  const files = await server.app.inject(`/api/documents/${id}/files`);
  expect(files.json()).toMatchObject({ files: [{ index: 0, name: 'tides.csv' }] });
  const file = await server.app.inject(`/api/documents/${id}/files/0`);
  expect(file.body).toBe('day,metre');
  expect(file.headers['content-disposition']).toContain('attachment; filename="tides.csv"');
  const missing = await server.app.inject(`/api/documents/${id}/files/1`);
  expect(missing.json()).toMatchObject({ status: 404, code: 'attachment-not-found' });
}, 30_000);

test('a page whose contents are missing is flattened so that every viewer draws it', async () => {
  const bytes = smallPdf([
    '<< /Type /Catalog /Pages 2 0 R >>',
    '<< /Type /Pages /Kids [3 0 R] /Count 1 >>',
    '<< /Type /Page /Parent 2 0 R /MediaBox [0 0 300 400] /Contents [77 0 R 4 0 R] >>',
    '<< /Length 22 >>\nstream\n1 0 0 rg 9 9 9 9 re f \nendstream',
  ]);
  const { id } = await server.bringIn(bytes, 'Missing.pdf');
  const [sheet] = (await server.document(id)).pages;
  const points = Array.from({ length: 60 }, (_, i): [number, number] => [50 + 3 * i, 100]);
  await server.send(id, [
    operation(id, { type: 'annotation.add', annotation: stroke(sheet.id, points) }),
  ]);
  const flat = server.file('missing.pdf', await server.export(id, 'flattened'));
  for (const draw of [poppler, mutool]) {
    const [r, g] = draw(flat, 1, 2).at(2 * 140, 2 * 100);
    expect(r - g).toBeGreaterThan(60);
  }
}, 30_000);
