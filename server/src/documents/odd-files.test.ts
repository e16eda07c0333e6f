import { readFileSync } from 'node:fs';
import { documentSummarySchema, exportReportSchema, problemSchema } from '@stylet/core/api';
import { newId, wordsOf, type Annotation, type Landmark } from '@stylet/core/document';
import { TestServer, highlight, operation, realPdf, stroke, tool } from '../testing/server';
import { builtPdf, type BuiltObject } from '../../../core/src/pdf/testing/built-file';
import { smallPdf } from '../../../core/src/pdf/testing/small-file';

let server: TestServer;
beforeAll(async () => (server = await TestServer.start()));
afterAll(() => server.stop());

const card = (): Buffer => readFileSync(realPdf('asymptote-doc/asyRefCard.pdf'));

/** A document with a stroke, a highlight, a keyword on the stroke and a bookmark; its export. */
async function marked(): Promise<{ bytes: Buffer; ids: string[] }> {
  const { id } = await server.bringIn(card(), 'Card.pdf');
  const [page] = (await server.document(id)).pages;
  const group = newId();
  const ink = stroke(
    page.id,
    [
      [100, 100],
      [140, 130],
    ],
    { group },
  );
  const mark = highlight(page.id, [[60, 200, 260, 200, 60, 216, 260, 216]], 'words');
  const created = '2026-09-01T08:00:00.000Z';
  const place = { pageId: page.id, x: 10, y: 20 };
  const landmarks: Landmark[] = [
    { kind: 'keyword', id: newId(), place, word: 'berm', annotationIds: [ink.id], created },
    { kind: 'bookmark', id: newId(), place, title: 'Here', created },
  ];
  const added: Annotation[] = [ink, { ...mark, group }];
  const reply = await server.send(id, [
    ...added.map((annotation) => operation(id, { type: 'annotation.add', annotation })),
    ...landmarks.map((landmark) => operation(id, { type: 'landmark.add', landmark })),
  ]);
  if (reply.statusCode !== 200) throw new Error(reply.body);
  return { bytes: await server.export(id, 'editable'), ids: [ink.id, mark.id] };
}

test.each([
  ['merged with itself', ['--empty', '--pages', 'IN', '1-z', 'IN', '1-z', '--', 'OUT']],
  ['with its first page twice', ['IN', '--pages', 'IN', '1,1,2-z', '--', 'OUT']],
])(
  'an export %s by another program comes in, each annotation and keyword once for itself',
  async (how, args) => {
    const { bytes, ids } = await marked();
    const [from, to] = [
      server.file('once.pdf', bytes),
      server.file(`${how}.pdf`, new Uint8Array()),
    ];
    tool('qpdf', ...args.map((arg) => arg.replace('IN', from).replace('OUT', to)));
    const { id } = await server.bringIn(readFileSync(to), 'Twice.pdf');
    const [annotations, document] = [await server.annotations(id), await server.document(id)];
    expect(annotations.map(({ kind }) => kind).sort()).toEqual([
      'highlight',
      'highlight',
      'ink',
      'ink',
    ]);
    expect(new Set(annotations.map((a) => a.id)).size).toBe(4);
    expect(annotations.filter((a) => ids.includes(a.id))).toHaveLength(2);
    // What is selected together is so on its own page only.
    const groups = new Map(annotations.map(({ pageId, group }) => [pageId, group]));
    expect(new Set(groups.values()).size).toBe(2);
    const keywords = document.landmarks.filter((l) => l.kind === 'keyword');
    expect(keywords).toHaveLength(2);
    for (const { place, annotationIds } of keywords) {
      const face = annotations.find((a) => a.id === annotationIds![0])!;
      expect([face.kind, face.pageId]).toEqual(['ink', place.pageId]);
    }
    // Each can be changed for itself.
    const exported = server.file('again.pdf', await server.export(id, 'editable'));
    expect(tool('qpdf', '--check', exported)).toContain('No syntax or stream encoding errors');
  },
  60_000,
);

test('one annotation that stands on two pages is one on each, and can be changed on one alone', async () => {
  const objects = new Map<number, BuiltObject>([
    [1, '<< /Type /Catalog /Pages 2 0 R >>'],
    [2, '<< /Type /Pages /Kids [3 0 R 4 0 R] /Count 2 /MediaBox [0 0 300 400] >>'],
    [3, '<< /Type /Page /Parent 2 0 R /Annots [5 0 R] >>'],
    [4, '<< /Type /Page /Parent 2 0 R /Annots [5 0 R] >>'],
    [5, '<< /Type /Annot /Subtype /Square /Rect [20 20 60 60] /C [1 0 0] >>'],
  ]);
  const bytes = builtPdf(objects, { form: 'stream', trailer: '/Root 1 0 R' });
  const { id } = await server.bringIn(bytes, 'Shared.pdf');
  const annotations = await server.annotations(id);
  expect(new Set(annotations.map(({ pageId }) => pageId)).size).toBe(2);
  const [{ pageId, id: annotationId }] = annotations;
  await server.send(id, [operation(id, { type: 'annotation.remove', pageId, annotationId })]);
  const exported = await server.export(id, 'editable');
  expect(exported.subarray(0, bytes.length).equals(bytes)).toBe(true);
  const { id: back } = await server.bringIn(exported, 'Shared once.pdf');
  expect(await server.annotations(back)).toHaveLength(1);
}, 30_000);

test('an id stands once in a document: added on another page an annotation is there and not here', async () => {
  const { id } = await server.bringIn(card(), 'Card.pdf');
  const [first, second] = (await server.document(id)).pages;
  const ink = stroke(first.id, [
    [10, 10],
    [40, 30],
  ]);
  const there = { ...ink, pageId: second.id };
  const [add, move] = [ink, there].map((annotation) =>
    operation(id, { type: 'annotation.add', annotation }),
  );
  const reply = await server.send(id, [add, move]);
  expect(reply.statusCode).toBe(200);
  expect((await server.annotations(id)).map(({ pageId }) => pageId)).toEqual([second.id]);
  const back = operation(id, { type: 'annotation.add', annotation: ink });
  expect((await server.send(id, [back])).statusCode).toBe(200);
  expect((await server.annotations(id)).map(({ pageId }) => pageId)).toEqual([first.id]);
});

// What a file has is made storable, and said.
test('odd labels, numbers, dates and texts come in cleaned, and the document answers afterwards', async () => {
  const nul = '<FEFF00410000D8000042>';
  const bytes = smallPdf([
    `<< /Type /Catalog /Pages 2 0 R /PageLabels << /Nums [0 << /P (${'x'.repeat(5000)}) /S /r /St 2000000000 >>] >> /Outlines 5 0 R >>`,
    '<< /Type /Pages /Kids [3 0 R] /Count 1 >>',
    `<< /Type /Page /Parent 2 0 R /MediaBox [0 0 ${'9'.repeat(400)} -${'9'.repeat(400)}] /Annots [4 0 R] >>`,
    `<< /Type /Annot /Subtype /Text /Rect [0 0 ${'9'.repeat(400)} 9] /M (D:99999999999999) /CreationDate (D:00000101) /Contents ${nul} /T ${nul} >>`,
    '<< /First 6 0 R /Last 6 0 R >>',
    `<< /Title ${nul} /Parent 5 0 R /Dest [3 0 R /XYZ ${'9'.repeat(400)} 0 0] >>`,
  ]);
  const summary = await server.bringIn(bytes, 'O\u0000dd \ud800.pdf');
  expect(summary.notices).toContainEqual({ kind: 'cleaned', count: expect.any(Number) as number });
  const document = await server.document(summary.id);
  expect(document.pages[0].label).toHaveLength(500);
  const [note] = await server.annotations(summary.id);
  expect([wordsOf(note), note.author]).toEqual(['A\ufffdB', 'A\ufffdB']);
  for (const mode of ['editable', 'flattened', 'none'])
    expect((await server.export(summary.id, mode)).length).toBeGreaterThan(0);
}, 30_000);

test('outline titles keep their spaces, and a number tree its order, however often it is exported', async () => {
  const bytes = smallPdf([
    '<< /Type /Catalog /Pages 2 0 R /Outlines 5 0 R /PageLabels << /Kids [7 0 R 8 0 R] >> >>',
    '<< /Type /Pages /Kids [3 0 R 4 0 R] /Count 2 /MediaBox [0 0 300 400] >>',
    '<< /Type /Page /Parent 2 0 R >>',
    '<< /Type /Page /Parent 2 0 R >>',
    '<< /First 6 0 R /Last 6 0 R >>',
    '<< /Title ( 2.1  Tides ) /Parent 5 0 R /Dest [3 0 R /Fit] >>',
    '<< /Limits [0 0] /Nums [0 << /S /r >>] >>',
    '<< /Limits [1 1] /Nums [1 << /S /D >>] >>',
  ]);
  const { id } = await server.bringIn(bytes, 'Trees.pdf');
  const document = await server.document(id);
  expect(document.landmarks).toMatchObject([{ title: ' 2.1  Tides ' }]);
  const [first] = document.pages;
  for (let i = 0; i < 3; i++) {
    const annotation = stroke(first.id, [
      [10 + i, 10],
      [40, 30],
    ]);
    await server.send(id, [operation(id, { type: 'annotation.add', annotation })]);
    const file = server.file('trees.pdf', await server.export(id, 'editable'));
    const json = JSON.parse(tool('qpdf', '--json', '--json-key=pagelabels', file)) as {
      pagelabels: { index: number }[];
    };
    expect(json.pagelabels.map(({ index }) => index)).toEqual([0, 1]);
    expect(tool('qpdf', '--check', file)).not.toMatch(/WARNING/);
  }
}, 30_000);

test('a page tree that says wrongly how many pages it has is put right in the export', async () => {
  const bytes = smallPdf([
    '<< /Type /Catalog /Pages 2 0 R >>',
    '<< /Type /Pages /Kids [3 0 R 4 0 R] /Count 1 /MediaBox [0 0 300 400] >>',
    '<< /Type /Page /Parent 2 0 R >>',
    '<< /Type /Pages /Parent 2 0 R /Kids [5 0 R] /Count 9 >>',
    '<< /Type /Page /Parent 4 0 R >>',
  ]);
  const { id, pageCount } = await server.bringIn(bytes, 'Lies.pdf');
  expect(pageCount).toBe(2);
  const file = server.file('lies.pdf', await server.export(id, 'editable'));
  // poppler believes what it is told.
  expect(tool('pdfinfo', file)).toMatch(/Pages:\s+2\n/);
  expect(tool('qpdf', '--show-npages', file).trim()).toBe('2');
}, 30_000);

const signed = (level?: number): Uint8Array =>
  smallPdf([
    `<< /Type /Catalog /Pages 2 0 R /AcroForm << /Fields [4 0 R] /SigFlags 3 >> ${level ? '/Perms << /DocMDP 5 0 R >>' : ''} >>`,
    '<< /Type /Pages /Kids [3 0 R] /Count 1 /MediaBox [0 0 300 400] >>',
    '<< /Type /Page /Parent 2 0 R /Annots [4 0 R] >>',
    '<< /Type /Annot /Subtype /Widget /FT /Sig /T (Signature) /Rect [20 20 100 60] /P 3 0 R /V 5 0 R >>',
    `<< /Type /Sig /Filter /Adobe.PPKLite /ByteRange [0 10 20 30] /Contents <00> ${level ? `/Reference [<< /TransformMethod /DocMDP /TransformParams << /P ${level} >> >>]` : ''} >>`,
  ]);

// ISO 32000-1, table 254: 1 no changes, 2 forms, 3 annotations as well.
test.each([
  [1, true],
  [2, true],
  [3, false],
  [undefined, false],
])(
  'a file certified at level %p is said to be signed, and what goes beyond that is asked for first',
  async (level, isBreach) => {
    const bytes = signed(level);
    const { id, notices } = await server.bringIn(bytes, 'Signed.pdf');
    expect(notices).toEqual([{ kind: 'signed', count: 1, ...(level ? { level } : {}) }]);
    const url = `/api/documents/${id}/export`;
    // As it came, it may be handed over.
    expect((await server.app.inject(url)).rawPayload.equals(Buffer.from(bytes))).toBe(true);
    const [page] = (await server.document(id)).pages;
    const ink = stroke(page.id, [
      [10, 10],
      [40, 30],
    ]);
    await server.send(id, [operation(id, { type: 'annotation.add', annotation: ink })]);
    const told = exportReportSchema.parse((await server.app.inject(`${url}/report`)).json());
    expect(told).toMatchObject({ signatures: 1, isBreach });
    const asked = await server.app.inject(url);
    expect(asked.statusCode).toBe(isBreach ? 409 : 200);
    const confirmed = await server.app.inject(`${url}?confirmed=true`);
    expect(confirmed.rawPayload.subarray(0, bytes.length).equals(Buffer.from(bytes))).toBe(true);
    const flat = exportReportSchema.parse(
      (await server.app.inject(`${url}/report?annotations=flattened`)).json(),
    );
    expect(flat.isBreach).toBe(true);
  },
  30_000,
);

test('with pages of another file no signature pretends to hold; a copied page has none', async () => {
  const { id } = await server.bringIn(signed(), 'Signed.pdf');
  const document = await server.document(id);
  const [page] = document.pages;
  const copy = { ...page, id: newId(), order: `${page.order}5` };
  await server.send(id, [operation(id, { type: 'page.add', page: copy })]);
  const twice = server.file('twice.pdf', await server.export(id, 'editable', '&confirmed=true'));
  const widgets = (path: string): number =>
    tool('qpdf', '--qdf', '--object-streams=disable', path, '-').match(/\/Subtype \/Widget/g)
      ?.length ?? 0;
  expect(widgets(twice)).toBe(1);
  const other = await server.document((await server.bringIn(card(), 'Card.pdf')).id);
  const foreign = { ...other.pages[0], id: newId(), order: `${page.order}6` };
  await server.send(id, [operation(id, { type: 'page.add', page: foreign })]);
  const joined = server.file('joined.pdf', await server.export(id, 'editable', '&confirmed=true'));
  const text = tool('qpdf', '--qdf', '--object-streams=disable', joined, '-');
  expect(text).not.toMatch(/\/Type \/Sig\b/);
  expect(text).toMatch(/\/FT \/Sig/);
}, 60_000);

describe('a PDF with a password', () => {
  const locked = (): Buffer => {
    const [from, to] = [server.file('open.pdf', card()), server.file('locked.pdf', card())];
    tool('qpdf', '--encrypt', 'søl', 'owner', '256', '--', from, to);
    return readFileSync(to);
  };
  const sent = (bytes: Uint8Array, password?: string) => {
    const form = 'stylet-form';
    const field = (name: string, more: string): string =>
      `--${form}\r\ncontent-disposition: form-data; name="${name}"${more}\r\n\r\n`;
    return server.app.inject({
      method: 'POST',
      url: '/api/documents',
      headers: { 'content-type': `multipart/form-data; boundary=${form}` },
      payload: Buffer.concat([
        Buffer.from(password === undefined ? '' : `${field('password', '')}${password}\r\n`),
        Buffer.from(field('file', '; filename="Locked.pdf"')),
        bytes,
        Buffer.from(`\r\n--${form}--\r\n`),
      ]),
    });
  };

  test('asks for it, takes the user’s and the owner’s, and is kept as it came', async () => {
    const bytes = locked();
    expect(problemSchema.parse((await sent(bytes)).json()).code).toBe('pdf-password-protected');
    expect(problemSchema.parse((await sent(bytes, 'no')).json()).code).toBe('pdf-password-wrong');
    for (const password of ['søl', 'owner']) {
      const reply = await sent(bytes, password);
      expect(reply.statusCode).toBe(201);
      const { id, repair, notices } = documentSummarySchema.parse(reply.json());
      expect([repair, notices]).toEqual(['unlocked', [{ kind: 'protected', count: 1 }]]);
      const original = await server.app.inject(`/api/documents/${id}/original`);
      expect(original.rawPayload.equals(bytes)).toBe(true);
      const file = server.file('unlocked.pdf', await server.export(id, 'editable'));
      expect(tool('pdfinfo', file)).toMatch(/Encrypted:\s+no/);
      const report = await server.app.inject(`/api/documents/${id}/export/report`);
      expect(report.json()).toMatchObject({ isUnprotected: true });
    }
  }, 60_000);
});

test('a portfolio says that it has files inside', async () => {
  const bytes = smallPdf([
    '<< /Type /Catalog /Pages 2 0 R /Collection << /View /D >> /Names << /EmbeddedFiles << /Names [(a) 4 0 R (b) 6 0 R] >> >> >>',
    '<< /Type /Pages /Kids [3 0 R] /Count 1 /MediaBox [0 0 300 400] >>',
    '<< /Type /Page /Parent 2 0 R >>',
    '<< /Type /Filespec /UF (One.txt) /EF << /F 5 0 R >> >>',
    '<< /Type /EmbeddedFile /Params << /Size 3 >> /Length 3 >>\nstream\none\nendstream',
    '<< /Type /Filespec /F (Two.txt) /EF << /F 5 0 R >> >>',
  ]);
  const { id, notices } = await server.bringIn(bytes, 'Portfolio.pdf');
  expect(notices).toEqual([{ kind: 'portfolio', count: 2 }]);
  const { files } = (await server.app.inject(`/api/documents/${id}/files`)).json<{
    files: { name: string; size: number }[];
  }>();
  expect(files.map(({ name, size }) => [name, size])).toEqual([
    ['One.txt', 3],
    ['Two.txt', 3],
  ]);
  // They come along when its pages go into another document.
  const target = await server.bringIn(card(), 'Card.pdf');
  const [page] = (await server.document(id)).pages;
  const added = { ...page, id: newId(), order: 'zz' };
  await server.send(target.id, [operation(target.id, { type: 'page.add', page: added })]);
  const joined = server.file('carried.pdf', await server.export(target.id, 'editable'));
  expect(tool('pdfdetach', '-list', joined)).toContain('2 embedded files');
}, 30_000);
