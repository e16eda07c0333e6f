// What pdf.js says of the annotations of a page that are notes or are answered. Run by tests; prints JSON.
import { readFileSync } from 'node:fs';
import { getDocument } from 'pdfjs-dist/legacy/build/pdf.mjs';

const [path, number] = process.argv.slice(2);
const data = new Uint8Array(readFileSync(path));
const document = await getDocument({ data, verbosity: 0 }).promise;
const page = await document.getPage(Number(number));
const said = (await page.getAnnotations()).map((one) => ({
  id: one.id,
  subtype: one.subtype,
  words: one.contentsObj?.str ?? '',
  author: one.titleObj?.str ?? '',
  answers: one.inReplyTo ?? null,
  how: one.replyType ?? null,
  state: one.state ?? null,
  model: one.stateModel ?? null,
  window: one.popupRef ?? null,
  parent: one.parentRect ? one.parentType : null,
  rich: one.richText?.str ?? null,
}));
process.stdout.write(JSON.stringify(said), () => process.exit(0));
