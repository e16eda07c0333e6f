import fc from 'fast-check';
import { documentState, newId, type Annotation, type Ink, type Markup } from '../document/index';
import { distanceToSegment, transform } from '../geometry/index';
import { samplesOf, samplesToBase64, windingNumber } from '../ink/index';
import { contentOf } from './content-stream';
import { exportUpdate, type ExportMode } from './export';
import { importPdf } from './import';
import type { PdfDict, PdfStream } from './objects/index';
import { PdfRef, latin1, type PdfFile, type PdfValue } from './objects/index';
import { readPages } from './pages';
import { opened, smallPdf } from './testing/small-file';

const NOW = '2026-09-01T08:00:00.000Z';
const original = smallPdf([
  '<< /Type /Catalog /Pages 2 0 R >>',
  '<< /Type /Pages /Kids [3 0 R] /Count 1 >>',
  '<< /Type /Page /Parent 2 0 R /MediaBox [0 0 300 400] /Annots [4 0 R 5 0 R 6 0 R 7 0 R] >>',
  '<< /Type /Annot /Subtype /Link /Rect [0 0 10 10] >>',
  '<< /Type /Annot /Subtype /Square /Rect [20 20 60 60] /Popup 6 0 R /Custom (kept) /AP << /N 8 0 R >> >>',
  '<< /Type /Annot /Subtype /Popup /Rect [0 0 5 5] /Parent 5 0 R >>',
  '<< /Type /Annot /Subtype /Widget /Rect [70 70 90 90] >>',
  '<< /Type /XObject /Subtype /Form /BBox [0 0 10 10] /Length 0 >>\nstream\n\nendstream',
]);
const imported = importPdf(opened(original), readPages(opened(original)), { now: NOW, ids: newId });
const pageId = imported.pages[0].id;

const common = { pageId, opacity: 1, author: 'A', created: NOW, modified: NOW };
const ink: Ink = {
  ...common,
  kind: 'ink',
  id: newId(),
  order: 'a8',
  color: '#22304a',
  instrument: 'fineliner',
  width: 2,
  smoothing: 0,
  samples: samplesToBase64(
    samplesOf(
      [0, 1, 2, 3].map((i) => ({
        x: 100 + i * 20,
        y: 100,
        pressure: 0.5,
        tiltX: 0,
        tiltY: 0,
        time: i * 4,
      })),
    ),
  ),
};
const mark: Markup = {
  ...common,
  kind: 'highlight',
  id: newId(),
  order: 'a9',
  color: '#ffe27a',
  quads: [[100, 90, 160, 90, 100, 110, 160, 110]],
  contents: 'words',
};

function exported(annotations: readonly Annotation[], mode: ExportMode): PdfFile {
  const file = opened(original);
  const state = documentState('', annotations);
  const { bytes: tail } = exportUpdate(
    file,
    readPages(file),
    [
      {
        id: pageId,
        source: 'f'.repeat(64),
        sourceIndex: 0,
        rotation: 0,
        label: '1',
        annotations: state.annotations[pageId] ?? {},
      },
    ],
    { mode, keepsNotes: true },
  );
  return opened(original, tail);
}
const pageOf = (file: PdfFile): PdfDict => readPages(file)[0].dict;
const subtypes = (file: PdfFile): unknown[] =>
  file
    .array(pageOf(file).get('Annots'))
    .map((a) => (file.dict(a)!.get('Subtype') as { text: string }).text);

test('what is under the words comes before the ink, behind what was there', () => {
  expect(subtypes(exported([...imported.annotations, ink, mark], 'editable'))).toEqual([
    'Link',
    'Square',
    'Popup',
    'Widget',
    'Highlight',
    'Ink',
  ]);
});

test('an erased mark goes with its window; links and fields stay', () => {
  expect(subtypes(exported([], 'editable'))).toEqual(['Link', 'Widget']);
  expect(subtypes(exported(imported.annotations, 'none'))).toEqual(['Link', 'Widget']);
});

test('a mark left alone keeps its object, unknown entries and all', () => {
  const file = exported([...imported.annotations, ink], 'editable');
  expect(latin1((file.dict(new PdfRef(5, 0))!.get('Custom') as { bytes: Uint8Array }).bytes)).toBe(
    'kept',
  );
});

test('flattened, everything is drawn by the page itself, other programs’ marks included', () => {
  const file = exported([...imported.annotations, ink, mark], 'flattened');
  expect(subtypes(file)).toEqual(['Link', 'Widget']);
  const page = pageOf(file);
  const forms = file.dict(file.dict(page.get('Resources'))!.get('XObject'))!;
  expect(forms.entries.size).toBe(3);
  const last = file.resolve(file.array(page.get('Contents')).at(-1)!) as PdfStream;
  expect(latin1(file.decode(last)).match(/ Do Q/g)).toHaveLength(3);
});

test('the highlight multiplies (ISO 32000-1, table 136), the ink does not', () => {
  const file = exported([ink, mark], 'editable');
  const blend = (subtype: string): unknown => {
    const dict = file
      .array(pageOf(file).get('Annots'))
      .map((a) => file.dict(a)!)
      .find((d) => (d.get('Subtype') as { text: string }).text === subtype)!;
    const form = file.dict(file.dict(dict.get('AP'))!.get('N'))!;
    const states = file.dict(file.dict(form.get('Resources'))?.get('ExtGState') ?? null);
    // Table 58: a form begins with the mode Normal.
    if (!states) return 'Normal';
    const [[, state]] = states.entries;
    return (file.dict(state as PdfValue)!.get('BM') as { text: string }).text;
  };
  expect([blend('Highlight'), blend('Ink')]).toEqual(['Multiply', 'Normal']);
});

test('an outline written down covers what it covered, to 1/15 pt', () => {
  const corner = fc.tuple(
    fc.double({ min: 0, max: 90, noNaN: true }),
    fc.double({ min: 0, max: 90, noNaN: true }),
  );
  fc.assert(
    fc.property(fc.array(corner, { minLength: 3, maxLength: 12 }), (corners) => {
      const polygon = Float64Array.from(corners.flat());
      const { bytes, matrix } = contentOf(
        [{ pieces: [{ polygon, grain: 0 }], color: '#000000', opacity: 1, blend: 'normal' }],
        [1, 0, 0, -1, 5, 300],
        { x: 5, y: 210 },
      );
      // Where it crosses itself, it may have become several.
      const written: number[][] = [];
      for (const [, px, py, operator] of latin1(bytes).matchAll(/(-?\d+) (-?\d+) ([ml])/g)) {
        const at = transform(matrix, { x: Number(px), y: Number(py) });
        if (operator === 'm') written.push([]);
        written.at(-1)!.push(at.x - 5, 300 - at.y);
      }
      const again = written.map((outline) => Float64Array.from(outline));
      for (let x = 3; x < 90; x += 9.7) {
        for (let y = 3; y < 90; y += 9.7) {
          const covers = (outlines: readonly Float64Array[]): boolean =>
            outlines.reduce((sum, outline) => sum + windingNumber(outline, { x, y }), 0) !== 0;
          if (covers([polygon]) === covers(again)) continue;
          // Where they differ, an edge is near.
          const near = corners.some(([ax, ay], i) => {
            const [bx, by] = corners[(i + 1) % corners.length];
            return distanceToSegment({ x, y }, { x: ax, y: ay }, { x: bx, y: by }) < 0.067;
          });
          expect(near).toBe(true);
        }
      }
    }),
  );
});
