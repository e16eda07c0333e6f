// Writes marks of all kinds that reviewers use onto the first page, as scripts with pdf-lib do. Run by tests: IN OUT
import { readFileSync, writeFileSync } from 'node:fs';
import { PDFDocument, PDFHexString, PDFName, PDFString } from '@cantoo/pdf-lib';

const [from, to] = process.argv.slice(2);
const document = await PDFDocument.load(readFileSync(from));
const { context } = document;
const page = document.getPage(0);
const quad = [100, 612, 200, 612, 100, 600, 200, 600];
const marks = [
  { Subtype: 'Ink', Rect: [95, 95, 205, 125], InkList: [[100, 100, 150, 120, 200, 100]] },
  { Subtype: 'Line', Rect: [95, 195, 205, 225], L: [100, 200, 200, 220] },
  { Subtype: 'Square', Rect: [300, 100, 360, 140] },
  { Subtype: 'Circle', Rect: [300, 200, 360, 240] },
  { Subtype: 'Polygon', Rect: [295, 295, 365, 345], Vertices: [300, 300, 360, 300, 330, 340] },
  { Subtype: 'PolyLine', Rect: [95, 295, 205, 325], Vertices: [100, 300, 150, 320, 200, 300] },
  { Subtype: 'Highlight', Rect: [100, 600, 200, 612], QuadPoints: quad },
  { Subtype: 'Underline', Rect: [100, 600, 200, 612], QuadPoints: quad },
  { Subtype: 'StrikeOut', Rect: [100, 600, 200, 612], QuadPoints: quad },
  { Subtype: 'Squiggly', Rect: [100, 600, 200, 612], QuadPoints: quad },
  { Subtype: 'FreeText', Rect: [300, 400, 400, 440], DA: PDFString.of('/Helv 12 Tf 1 0 0 rg') },
  { Subtype: 'Caret', Rect: [210, 600, 218, 612] },
  { Subtype: 'Stamp', Rect: [300, 500, 400, 540], Name: 'Draft' },
];
const refs = marks.map((entries) =>
  context.register(
    context.obj({
      Type: 'Annot',
      P: page.ref,
      F: 4,
      M: PDFString.of('D:20260901080000Z'),
      T: PDFHexString.fromText('Nerissa'),
      Contents: PDFHexString.fromText(`A ${entries.Subtype}`),
      Vendor: PDFString.of('kept'),
      ...(['FreeText', 'Stamp'].includes(entries.Subtype) ? {} : { C: [1, 0, 0] }),
      ...entries,
    }),
  ),
);
page.node.set(PDFName.of('Annots'), context.obj(refs));
writeFileSync(to, await document.save({ useObjectStreams: false }));
