import { documentState, newId, type Annotation, type TextBox } from '../../document/index';
import { FORMULA, bodyOf, usualLook, type Body } from '../../typed/index';
import { Typesetter, facesIn } from '../../typesetting/index';
import { engineWith, fontFile } from '../../typesetting/testing/typesetter';
import { exportUpdate } from '../export';
import { importPdf } from '../import';
import type { PdfRef } from '../objects/index';
import { PdfDict, PdfUpdate, deflateHere, textString, type PdfValue } from '../objects/index';
import { readPages } from '../pages';
import { opened, smallPdf } from '../testing/small-file';
import { TypeTools } from '../type/index';
import { WrittenAnnotations } from './written';

const NOW = '2026-09-01T08:00:00.000Z';
const original = smallPdf([
  '<< /Type /Catalog /Pages 2 0 R >>',
  '<< /Type /Pages /Kids [3 0 R] /Count 1 >>',
  '<< /Type /Page /Parent 2 0 R /MediaBox [0 0 300 400] >>',
]);
const pageId = newId();

const boxOf = (
  { look: { color, ...look }, paragraphs }: Body,
  more: Partial<TextBox> = {},
): TextBox => ({
  kind: 'textBox',
  id: newId(),
  pageId,
  order: 'a1',
  author: 'A',
  created: NOW,
  modified: NOW,
  opacity: 1,
  color,
  look,
  paragraphs,
  frame: { padding: 4 },
  size: { width: 120, height: 60 },
  transform: [1, 0, 0, 1, 50, 60],
  ...more,
});

/** A box as it is read back of its export, after somebody else has changed entries of it. */
async function afterChange(box: TextBox, change: Record<string, PdfValue>): Promise<Annotation> {
  const body = { look: { ...box.look, color: box.color }, paragraphs: box.paragraphs };
  const engine = await engineWith(...facesIn(body));
  // What is written need not be drawn here: the whole font stands for some of its glyphs.
  const tools = new TypeTools(new Typesetter(engine), (face) => fontFile(face));
  const written = new WrittenAnnotations(
    deflateHere,
    () => undefined,
    Infinity,
    deflateHere,
    tools,
  );
  const file = opened(original);
  const state = documentState('', [box]);
  const page = {
    id: pageId,
    source: 'f'.repeat(64),
    sourceIndex: 0,
    rotation: 0 as const,
    label: '1',
  };
  const { bytes: tail } = exportUpdate(
    file,
    readPages(file),
    [{ ...page, annotations: state.annotations[pageId] }],
    { mode: 'editable', keepsNotes: false },
    undefined,
    written,
  );
  const exported = opened(original, tail);
  const [ref] = exported.array(readPages(exported)[0].dict.get('Annots')) as PdfRef[];
  const update = new PdfUpdate(exported, deflateHere);
  if (Object.keys(change).length > 0) update.set(ref, exported.dict(ref)!.with(change));
  const changed = update.size > 0 ? opened(original, tail, update.bytes()) : exported;
  return importPdf(changed, readPages(changed), { now: NOW, ids: newId }).annotations[0];
}

const listed: Body = {
  look: usualLook,
  paragraphs: [
    { runs: [{ text: 'Tides' }, { text: ' today', look: { bold: true } }], align: 'center' },
    { runs: [{ text: 'ebb at six' }], list: 'bullet', indent: 1 },
    { runs: [{ text: 'flood at noon' }], list: 'bullet' },
  ],
};

test('what nobody has changed comes back as it was', async () => {
  const box = boxOf(listed);
  expect(await afterChange(box, {})).toMatchObject({
    kind: 'textBox',
    paragraphs: box.paragraphs,
    look: box.look,
    color: box.color,
    transform: box.transform,
  });
});

test('rich text that others have changed counts; what it has no word for stays where it stood', async () => {
  const rich =
    '<?xml version="1.0"?><body xmlns="http://www.w3.org/1999/xhtml"><p style="text-align:right">High ' +
    '<b>water</b> &amp; <span style="color:#ff0000;font-size:18pt;text-decoration:underline">low</span></p>' +
    '<p>◦ ebb at seven</p><p>and a new line</p></body>';
  const now = (await afterChange(boxOf(listed), { RC: textString(rich) })) as TextBox;
  expect(now.paragraphs).toEqual([
    {
      align: 'end',
      runs: [
        { text: 'High ' },
        { text: 'water', look: { bold: true } },
        { text: ' & ' },
        { text: 'low', look: { color: '#ff0000', size: 18, underline: true } },
      ],
    },
    { list: 'bullet', indent: 1, runs: [{ text: 'ebb at seven' }] },
    { runs: [{ text: 'and a new line' }] },
  ]);
});

test('plain words that others have changed count, and leave the looks of the lines that they left', async () => {
  const contents = textString('Tides today\n◦ ebb at eight\n• flood at noon');
  const now = (await afterChange(boxOf(listed), { Contents: contents, RC: null })) as TextBox;
  expect(now.paragraphs).toEqual([
    listed.paragraphs[0],
    { list: 'bullet', indent: 1, runs: [{ text: 'ebb at eight' }] },
    listed.paragraphs[2],
  ]);
});

test('formulas stay formulas in words that others have changed, as far as these tell of them', async () => {
  const [square, half] = ['x^2', '\\frac12'].map((formula) => ({
    text: FORMULA,
    look: { formula },
  }));
  const box = boxOf({ look: usualLook, paragraphs: [{ runs: [{ text: 'a ' }, square, half] }] });
  const contents = textString('now $x^2$, and $y$');
  const now = (await afterChange(box, { Contents: contents, RC: null })) as TextBox;
  expect(now.paragraphs).toEqual([{ runs: [{ text: 'now ' }, square, { text: ', and $y$' }] }]);
  expect(await afterChange(box, {})).toMatchObject({ paragraphs: box.paragraphs });
});

// ISO 32000-1, 12.7.3.3 (DA), 12.5.6.6 (RD, BS) and 12.5.5 (algorithm 8.1: the look follows the rectangle).
test.each([
  [
    'colour and size',
    { DA: textString('1 0 0 rg /Helv 20 Tf') },
    { color: '#ff0000', look: { font: 'source-serif-4', size: 20 } },
  ],
  ['paper', { C: [1, 1, 0] }, { frame: { padding: 4, background: '#ffff00' } }],
  [
    'border',
    { BS: PdfDict.of({ W: 3 }) },
    { frame: { padding: 4, border: { color: '#22304a', width: 3 } } },
  ],
])('%s that others have changed count', async (_, change, expected) => {
  expect(await afterChange(boxOf(bodyOf('Tide', usualLook)), change)).toMatchObject(expected);
});

test('a box that was moved with its look is moved; one whose look is gone has the size it was given', async () => {
  const box = boxOf(bodyOf('Tide', usualLook));
  const rect = [60, 290, 182, 352];
  const moved = (await afterChange(box, { Rect: [59, 269, 181, 331] })) as TextBox;
  expect(moved.transform.slice(4).map(Math.round)).toEqual([60, 70]);
  const resized = (await afterChange(box, { Rect: rect, AP: null })) as TextBox;
  expect(resized.keepsWidth).toBe(true);
  expect(Math.round(resized.size.width)).toBe(120);
});
