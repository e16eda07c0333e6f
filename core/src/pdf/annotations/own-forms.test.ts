import { asOwn, annotationSchema, type Foreign } from '../../document/index';
import { smallPdf } from '../testing/small-file';
import { PdfFile } from '../objects/index';
import { readPages } from '../pages';
import { Cleaning } from '../storable';
import { readAnnotations } from './read';

const NOW = '2026-09-01T08:00:00.000Z';
const LATER = '2026-10-01T08:00:00.000Z';
let made = 0;
const id = (): string => `018f0000-0000-7000-8000-${String(++made).padStart(12, '0')}`;

/** What one annotation of a page of 300 by 400 points is read as. */
function read(entries: string, page = ''): Foreign {
  const file = new PdfFile(
    smallPdf([
      '<< /Type /Catalog /Pages 2 0 R >>',
      '<< /Type /Pages /Kids [3 0 R] /Count 1 >>',
      `<< /Type /Page /Parent 2 0 R /MediaBox [0 0 300 400] /Annots [4 0 R] ${page} >>`,
      `<< /Type /Annot ${entries} /M (D:20260901080000Z) >>`,
    ]),
  );
  const clean = new Cleaning();
  const [one] = readAnnotations(file, readPages(file)[0], {
    pageId: id(),
    now: NOW,
    clean,
    ids: id,
  });
  expect(annotationSchema.parse(one)).toEqual(one);
  return one as Foreign;
}
const own = (entries: string, page?: string) => asOwn(read(entries, page), LATER, id);

// Entries by ISO 32000-1, 12.5.6.7 to 12.5.6.13; y goes down here, from the top of the page.
test.each([
  [
    '/Subtype /Line /Rect [0 0 9 9] /L [10 390 60 340] /LE [/None /ClosedArrow] /C [1 0 0] /BS << /W 3 >>',
    {
      kind: 'shape',
      form: 'arrow',
      width: 3,
      color: '#ff0000',
      points: [
        { x: 10, y: 10 },
        { x: 60, y: 60 },
      ],
    },
  ],
  [
    '/Subtype /Line /Rect [0 0 9 9] /L [10 390 60 340] /LE [/OpenArrow /None]',
    {
      form: 'arrow',
      points: [
        { x: 60, y: 60 },
        { x: 10, y: 10 },
      ],
    },
  ],
  [
    '/Subtype /Square /Rect [10 300 60 390] /BS << /W 2 >> /C [0 0 1] /IC [0.5 0.5 1]',
    {
      form: 'rectangle',
      fill: 0.5,
      points: [
        { x: 11, y: 99 },
        { x: 59, y: 99 },
        { x: 59, y: 11 },
        { x: 11, y: 11 },
      ],
    },
  ],
  [
    '/Subtype /Circle /Rect [10 300 60 390] /RD [5 5 5 5] /BS << /W 2 >>',
    {
      form: 'ellipse',
      fill: 0,
      points: [
        { x: 35, y: 55 },
        { x: 54, y: 55 },
        { x: 35, y: 16 },
      ],
    },
  ],
  [
    '/Subtype /Polygon /Rect [0 0 9 9] /Vertices [10 390 60 390 35 340]',
    {
      form: 'polygon',
      points: [
        { x: 10, y: 10 },
        { x: 60, y: 10 },
        { x: 35, y: 60 },
      ],
    },
  ],
  ['/Subtype /PolyLine /Rect [0 0 9 9] /Vertices [10 390 60 340]', { form: 'line' }],
  ['/Subtype /PolyLine /Rect [0 0 9 9] /Vertices [10 390 60 340 90 340]', { kind: 'ink' }],
  [
    '/Subtype /StrikeOut /Rect [0 0 9 9] /QuadPoints [10 390 60 390 10 380 60 380] /Contents (Why?)',
    { kind: 'strikeout', quads: [[10, 10, 60, 10, 10, 20, 60, 20]], remark: 'Why?', contents: '' },
  ],
  [
    '/Subtype /FreeText /Rect [20 100 200 140] /DA (/Helv 20 Tf 0 0 1 rg) /Contents (Longshore drift) /Q 1',
    {
      kind: 'textBox',
      color: '#0000ff',
      look: { font: 'inter', size: 20 },
      size: { width: 180, height: 40 },
      transform: [1, 0, 0, 1, 20, 260],
      paragraphs: [{ align: 'center', runs: [{ text: 'Longshore drift' }] }],
    },
  ],
])('%s', (entries, expected) => {
  const foreign = read(entries);
  const [first, ...more] = asOwn(foreign, LATER, id)!;
  expect(first).toMatchObject(expected);
  // It is what it was in the file, changed since.
  expect(first).toMatchObject({ id: foreign.id, origin: foreign.origin, modified: LATER });
  expect(more).toEqual([]);
});

test('ink of several strokes is as many, in one group', () => {
  const all = own(
    '/Subtype /Ink /Rect [0 0 9 9] /InkList [[10 390 20 380] [30 370 40 360]] /Contents (Two)',
  )!;
  expect(all.map(({ kind }) => kind)).toEqual(['ink', 'ink']);
  expect(new Set(all.map(({ group }) => group)).size).toBe(1);
  expect(all[0].group).toBeDefined();
  expect(all.map(({ origin }) => origin !== undefined)).toEqual([true, false]);
  expect(all.map((one) => ('contents' in one ? one.contents : undefined))).toEqual([
    'Two',
    undefined,
  ]);
});

test('what there is nothing like here stays as it is', () => {
  for (const entries of [
    '/Subtype /Stamp /Rect [0 0 9 9]',
    '/Subtype /Caret /Rect [0 0 9 9]',
    '/Subtype /Square /Rect [0 0 90 90] /BE << /S /C /I 1 >>',
    '/Subtype /Square /Rect [0 0 90 90] /C [1 0 0] /IC [0 1 0]',
    '/Subtype /Square /Rect [0 0 1 1] /BS << /W 9 >>',
    '/Subtype /Line /Rect [0 0 9 9] /L [1 2]',
    '/Subtype /Highlight /Rect [0 0 9 9]',
    '/Subtype /Ink /Rect [0 0 9 9] /InkList []',
  ])
    expect([entries, own(entries)]).toEqual([entries, undefined]);
  const text = '/Subtype /FreeText /Rect [20 100 200 140] /DA (/Helv 9 Tf) /Contents (Turned)';
  expect(own(text, '/Rotate 90')).toBeUndefined();
});
