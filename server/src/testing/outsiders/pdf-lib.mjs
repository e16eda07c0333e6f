// Changes annotations of the first page as scripts with pdf-lib do: entries alone. Run by tests.
import { readFileSync, writeFileSync } from 'node:fs';
import { PDFDocument, PDFHexString, PDFName, PDFString } from '@cantoo/pdf-lib';

const [from, to, what, isDated] = process.argv.slice(2);
const document = await PDFDocument.load(readFileSync(from));
const { context } = document;
const annots = document.getPage(0).node.Annots();
for (let i = 0; i < annots.size(); i++) {
  const dict = context.lookup(annots.get(i));
  const set = (key, value) => dict.set(PDFName.of(key), context.obj(value));
  const moved = (list) => list.map((n, k) => n + (k % 2 === 0 ? 10 : -5));
  const numbers = (array) => array.asArray().map((n) => n.asNumber());
  const subtype = dict.get(PDFName.of('Subtype')).asString();
  if (what === 'color') set('C', [1, 0, 0]);
  if (what === 'opacity') set('CA', 0.5);
  if (what === 'contents') dict.set(PDFName.of('Contents'), PDFHexString.fromText('A remark'));
  if (what === 'hidden') set('F', 2);
  if (what === 'moved' && subtype === '/Ink') {
    const list = dict.lookup(PDFName.of('InkList'));
    set('InkList', [moved(numbers(list.get(0)))]);
  }
  if (what === 'moved' && subtype === '/Highlight')
    set('QuadPoints', moved(numbers(dict.lookup(PDFName.of('QuadPoints')))));
  if (isDated === 'dated') dict.set(PDFName.of('M'), PDFString.of('D:20261001120000Z'));
}
writeFileSync(to, await document.save({ useObjectStreams: true }));
