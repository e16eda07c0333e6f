// Changes a highlight and removes an ink annotation as pdf.js's editor does when it saves. Run by tests.
import { readFileSync, writeFileSync } from 'node:fs';
import { getDocument } from 'pdfjs-dist/legacy/build/pdf.mjs';

const [from, to, what] = process.argv.slice(2);
const document = await getDocument({ data: new Uint8Array(readFileSync(from)), verbosity: 0 })
  .promise;
const page = await document.getPage(1);
const annotations = await page.getAnnotations();
const highlight = annotations.find(({ subtype }) => subtype === 'Highlight');
const ink = annotations.find(({ subtype }) => subtype === 'Ink');
const storage = document.annotationStorage;
if (what === 'color') {
  const [x0, y0, x1, y1] = highlight.rect;
  storage.setValue('pdfjs_internal_editor_0', {
    annotationType: 9,
    id: highlight.id,
    ref: highlight.ref,
    color: [255, 0, 0],
    opacity: 1,
    quadPoints: [...highlight.quadPoints],
    outlines: [[x0, y0, x1, y0, x1, y1, x0, y1]],
    pageIndex: 0,
    rect: highlight.rect,
    rotation: 0,
    structTreeParentId: null,
  });
}
if (what === 'removed')
  storage.setValue('pdfjs_internal_editor_1', {
    annotationType: 15,
    id: ink.id,
    deleted: true,
    pageIndex: 0,
    popupRef: '',
  });
const bytes = await document.saveDocument();
writeFileSync(to, bytes);
process.exit(0);
