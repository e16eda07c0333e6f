// Writes notes with replies and a state onto the first page, as scripts with pdf-lib do. Run by tests: IN OUT
import { readFileSync, writeFileSync } from 'node:fs';
import { PDFDocument, PDFHexString, PDFName, PDFString } from '@cantoo/pdf-lib';

const [from, to] = process.argv.slice(2);
const document = await PDFDocument.load(readFileSync(from));
const { context } = document;
const page = document.getPage(0);
const annots = [];
function add(entries) {
  const ref = context.register(
    context.obj({
      Type: 'Annot',
      P: page.ref,
      F: 28,
      M: PDFString.of('D:20260901080000Z'),
      ...entries,
    }),
  );
  annots.push(ref);
  return ref;
}
const words = (text) => PDFHexString.fromText(text);
const note = add({
  Subtype: 'Text',
  Rect: [100, 500, 120, 520],
  Name: 'Key',
  C: [0.5, 1, 0.5],
  T: words('Nerissa'),
  Contents: words('Which gauge?'),
  Vendor: PDFString.of('kept'),
});
const popup = add({ Subtype: 'Popup', Rect: [400, 400, 500, 500], Parent: note, Open: true });
context.lookup(note).set(PDFName.of('Popup'), popup);
const reply = add({
  Subtype: 'Text',
  Rect: [100, 500, 120, 520],
  IRT: note,
  T: words('Oswin'),
  Contents: words('The northern one\rof 2019'),
});
add({
  Subtype: 'Text',
  Rect: [100, 500, 120, 520],
  IRT: reply,
  RT: 'R',
  T: words('Nerissa'),
  StateModel: PDFString.of('Review'),
  State: PDFString.of('Accepted'),
  Contents: words('Accepted set by Nerissa'),
});
add({
  Subtype: 'Highlight',
  Rect: [100, 600, 200, 612],
  QuadPoints: [100, 612, 200, 612, 100, 600, 200, 600],
  C: [1, 1, 0],
  T: words('Oswin'),
  Contents: words('Check this figure'),
});
page.node.set(PDFName.of('Annots'), context.obj(annots));
writeFileSync(to, await document.save({ useObjectStreams: false }));
