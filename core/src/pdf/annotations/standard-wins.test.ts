import fc from 'fast-check';
import {
  documentState,
  newId,
  type Annotation,
  type Ink,
  type Link,
  type Markup,
  type PageAnnotations,
  type ShapeAnnotation,
} from '../../document/index';
import { simplify } from '../../geometry/index';
import { samplesFromBase64, samplesOf, samplesToBase64 } from '../../ink/index';
import { exportUpdate } from '../export';
import { importPdf } from '../import';
import type { PdfRef } from '../objects/index';
import {
  PdfDict,
  PdfString,
  PdfUpdate,
  bytesOf,
  name,
  textString,
  type PdfFile,
  type PdfValue,
} from '../objects/index';
import { readPages } from '../pages';
import { opened, smallPdf } from '../testing/small-file';

const NOW = '2026-09-01T08:00:00.000Z';
const original = smallPdf([
  '<< /Type /Catalog /Pages 2 0 R >>',
  '<< /Type /Pages /Kids [3 0 R] /Count 1 >>',
  '<< /Type /Page /Parent 2 0 R /MediaBox [0 0 300 400] >>',
]);
const common = {
  pageId: newId(),
  order: 'a1',
  opacity: 1,
  author: 'A',
  created: NOW,
  modified: NOW,
};

const ink: Ink = {
  ...common,
  kind: 'ink',
  id: newId(),
  color: '#22304a',
  instrument: 'nib',
  width: 3,
  smoothing: 0.2,
  samples: samplesToBase64(
    samplesOf(
      Array.from({ length: 30 }, (_, i) => ({
        x: 50 + 5 * i,
        y: 100 + 20 * Math.sin(i / 4),
        pressure: 0.3 + i / 60,
        tiltX: 0,
        tiltY: 0,
        time: 8 * i,
      })),
    ),
  ),
};
const mark: Markup = {
  ...common,
  kind: 'highlight',
  id: newId(),
  color: '#ffe27a',
  quads: [[100, 90, 160, 90, 100, 110, 160, 110]],
  contents: 'words',
};
const line: ShapeAnnotation = {
  ...common,
  kind: 'shape',
  id: newId(),
  color: '#1f6f66',
  instrument: 'fineliner',
  width: 2,
  smoothing: 0,
  form: 'arrow',
  points: [
    { x: 40, y: 40 },
    { x: 120, y: 90 },
  ],
  bends: [],
  fill: 0,
};
const box: ShapeAnnotation = {
  ...line,
  id: newId(),
  form: 'rectangle',
  points: [
    { x: 20, y: 20 },
    { x: 80, y: 20 },
    { x: 80, y: 60 },
    { x: 20, y: 60 },
  ],
  fill: 0.5,
};
const link: Link = {
  ...common,
  kind: 'link',
  id: newId(),
  quads: [[20, 20, 80, 20, 20, 40, 80, 40]],
  target: { address: 'https://tidewater.example/' },
  contents: '',
};

const { pageId } = common;
const pageWith = (annotations: PageAnnotations) => ({
  id: pageId,
  source: 'f'.repeat(64),
  sourceIndex: 0,
  rotation: 0 as const,
  label: '1',
  annotations,
});
function written(...annotations: Annotation[]): Uint8Array[] {
  const file = opened(original);
  const page = pageWith(documentState('', annotations).annotations[pageId]);
  const how = { mode: 'editable', keepsNotes: true } as const;
  return [original, exportUpdate(file, readPages(file), [page], how).bytes];
}

const readBack = (file: PdfFile): Annotation[] => [
  ...importPdf(file, readPages(file), { now: '2026-10-10T10:10:10.000Z', ids: newId }).annotations,
];

/** What comes back of an annotation when another program has changed its dictionary. */
function changedBy(
  annotation: Annotation,
  change: (dict: PdfDict, update: PdfUpdate) => Record<string, PdfValue>,
): Annotation {
  const parts = written(annotation);
  const file = opened(...parts);
  const [ref] = file.array(readPages(file)[0].dict.get('Annots')) as PdfRef[];
  const update = new PdfUpdate(file);
  const dict = file.dict(ref)!;
  update.set(ref, dict.with(change(dict, update)));
  const back = readBack(opened(...parts, update.bytes()));
  expect(back).toHaveLength(1);
  return back[0];
}

const numbers = (dict: PdfDict, key: string): number[] => dict.get(key) as number[];
const shifted = (list: readonly number[], dx: number, dy: number): number[] =>
  list.map((n, i) => n + (i % 2 === 0 ? dx : dy));
/** Another look: what a program draws that makes appearances anew. */
const newLook = (update: PdfUpdate): PdfDict =>
  PdfDict.of({
    N: update.addStream(
      PdfDict.of({ Type: name('XObject'), Subtype: name('Form'), BBox: [0, 0, 9, 9] }),
      bytesOf('0 0 9 9 re f'),
    ),
  });
const DATED = { M: textString('D:20261001120000Z') };

test.each([ink, mark, line, box, link])('a %# nobody has changed comes back as it was', (one) => {
  const [back] = readBack(opened(...written(one)));
  const { origin: _, pageId: _p, order: _o, ...fields } = back;
  const { pageId: _p2, order: _o2, ...was } = one;
  expect(fields).toEqual(was);
});

/** ISO 32000-1, 12.5: what each entry says, and the field that has to say so then. */
const CHANGES: [string, Annotation, (dict: PdfDict) => Record<string, PdfValue>, object][] = [
  ['the colour of ink', ink, () => ({ C: [1, 0, 0] }), { color: '#ff0000' }],
  ['the opacity of ink', ink, () => ({ CA: 0.25 }), { opacity: 0.25 }],
  ['the author', mark, () => ({ T: textString('Å. Reviewer') }), { author: 'Å. Reviewer' }],
  ['a remark on ink', ink, () => ({ Contents: textString('Look') }), { contents: 'Look' }],
  [
    'the words of a highlight',
    mark,
    () => ({ Contents: textString('other') }),
    { contents: 'other' },
  ],
  ['the width of ink', ink, () => ({ BS: PdfDict.of({ W: 5 }) }), { width: 5 }],
  ['ink that is hidden', ink, () => ({ F: 4 | 2 }), { hidden: true }],
  ['ink that is locked', ink, () => ({ F: 4 | 128 }), { locked: true }],
  [
    'a highlight made an underline',
    mark,
    () => ({ Subtype: name('Underline') }),
    { kind: 'underline' },
  ],
  [
    'the areas of a highlight',
    mark,
    () => ({ QuadPoints: [10, 390, 50, 390, 10, 370, 50, 370] }),
    { quads: [[10, 10, 50, 10, 10, 30, 50, 30]] },
  ],
  [
    'the ends of a line',
    line,
    () => ({ L: [10, 390, 30, 370] }),
    {
      points: [
        { x: 10, y: 10 },
        { x: 30, y: 30 },
      ],
    },
  ],
  ['the head of an arrow', line, () => ({ LE: [name('None'), name('None')] }), { form: 'line' }],
  ['the filling of a box', box, () => ({ IC: null }), { fill: 0 }],
  ['the width of a box', box, () => ({ BS: PdfDict.of({ W: 4 }) }), { width: 4 }],
  [
    'where a link leads',
    link,
    () => ({
      A: PdfDict.of({ S: name('URI'), URI: new PdfString(bytesOf('https://dune.example/a')) }),
    }),
    { target: { address: 'https://dune.example/a' } },
  ],
  [
    'a link that leads into the file',
    link,
    () => ({ A: null, Dest: [0, name('XYZ'), 10, 380, null] }),
    { target: { place: { x: 10, y: 20 } } },
  ],
];

describe.each([
  ['without a date', {}],
  ['with a date', DATED],
])('what others change counts, %s', (_, dated) => {
  describe.each([
    ['the look as it was', false],
    ['a new look', true],
  ])('%s', (_look, hasNewLook) => {
    test.each(CHANGES)('%s', (_name, annotation, change, expected) => {
      const back = changedBy(annotation, (dict, update) => ({
        ...change(dict),
        ...dated,
        ...(hasNewLook && annotation.kind !== 'link' ? { AP: newLook(update) } : {}),
      }));
      expect(back).toMatchObject({ id: annotation.id, ...expected });
      // Everything else is as it was: pressure and instrument, too.
      const keys = new Set([...Object.keys(expected), 'origin', 'pageId', 'order', 'modified']);
      for (const [key, value] of Object.entries(annotation))
        if (!keys.has(key)) expect([key, back[key as keyof Annotation]]).toEqual([key, value]);
      expect(back.modified).toBe('M' in dated ? '2026-10-01T12:00:00.000Z' : NOW);
    });
  });
});

test('ink that was moved, turned or enlarged keeps its pressure, wherever it went', () => {
  fc.assert(
    fc.property(
      fc.integer({ min: -40, max: 40 }),
      fc.integer({ min: -40, max: 40 }),
      fc.constantFrom(1, 0.5, 1.7),
      fc.constantFrom(0, 0.6, Math.PI / 2),
      (dx, dy, scale, turn) => {
        const [c, s] = [scale * Math.cos(turn), scale * Math.sin(turn)];
        const moved = (list: number[]): number[] =>
          list.flatMap((_, i) =>
            i % 2 === 0
              ? [
                  c * (list[i] - 150) - s * (list[i + 1] - 300) + 150 + dx,
                  s * (list[i] - 150) + c * (list[i + 1] - 300) + 300 + dy,
                ]
              : [],
          );
        const back = changedBy(ink, (dict) => ({
          InkList: [moved((dict.get('InkList') as number[][])[0])],
        })) as Ink;
        expect(back.samples).toBe(ink.samples);
        expect(back.width).toBe(ink.width);
        // Where the first sample is now, in page space.
        const [a, b, cc, d, e, f] = back.transform ?? [1, 0, 0, 1, 0, 0];
        const { x, y } = samplesFromBase64(back.samples);
        const was = { x: x[0] - 150, y: 400 - y[0] - 300 };
        const now = { x: c * was.x - s * was.y + 150 + dx, y: s * was.x + c * was.y + 300 + dy };
        expect(a * x[0] + cc * y[0] + e).toBeCloseTo(now.x, 0);
        expect(b * x[0] + d * y[0] + f).toBeCloseTo(400 - now.y, 0);
      },
    ),
    { numRuns: 40 },
  );
});

test.each([
  ['fewer points of it', (way: number[]) => simplify(way, 0.12)],
  ['more points than are written', (way: number[]) => way],
])('ink along the same way by %s keeps its pressure, whatever else was changed', (_, some) => {
  const { x, y } = samplesFromBase64(ink.samples);
  const way = Array.from(x, (value, i) => [value, 400 - y[i]]).flat();
  const back = changedBy(ink, () => ({ InkList: [some(way)], C: [1, 0, 0] })) as Ink;
  expect(back).toMatchObject({ color: '#ff0000', samples: ink.samples });
  expect(back.transform).toBeUndefined();
});

test('ink along another way is that way, of the same instrument', () => {
  const back = changedBy(ink, () => ({ InkList: [[10, 390, 60, 350, 90, 390]] })) as Ink;
  expect(back).toMatchObject({ kind: 'ink', instrument: 'nib', id: ink.id });
  expect([...samplesFromBase64(back.samples).x]).toEqual([10, 60, 90]);
});

// 12.5.5, algorithm 8.1: viewers fit the appearance into the rectangle, and so the annotation is there.
test.each([ink, mark, line, box])('a rectangle that was moved takes annotation %# along', (one) => {
  const back = changedBy(one, (dict) => ({ Rect: shifted(numbers(dict, 'Rect'), 12, -8) }));
  const firstOf = (annotation: Annotation): { x: number; y: number } => {
    if (annotation.kind === 'ink') {
      const { x, y } = samplesFromBase64(annotation.samples);
      const [a, b, c, d, e, f] = annotation.transform ?? [1, 0, 0, 1, 0, 0];
      return { x: a * x[0] + c * y[0] + e, y: b * x[0] + d * y[0] + f };
    }
    if (annotation.kind === 'shape') return annotation.points[0];
    const [x, y] = (annotation as Markup).quads[0];
    return { x, y };
  };
  const [was, is] = [firstOf(one), firstOf(back)];
  expect(is.x - was.x).toBeCloseTo(12, 1);
  expect(is.y - was.y).toBeCloseTo(8, 1);
});

test('a look that somebody gave it, and nothing else, is kept: as the other program’s mark', () => {
  const back = changedBy(ink, (_dict, update) => ({ AP: newLook(update) }));
  expect(back).toMatchObject({ kind: 'foreign', subtype: 'Ink' });
});

test('a link that leads where none of ours can is the file’s own, and stays in every export', () => {
  const parts = written(link);
  const file = opened(...parts);
  const [ref] = file.array(readPages(file)[0].dict.get('Annots')) as PdfRef[];
  const update = new PdfUpdate(file);
  const action = PdfDict.of({ S: name('Launch'), F: textString('program') });
  update.set(ref, file.dict(ref)!.with({ A: action }));
  const after = opened(...parts, update.bytes());
  expect(readBack(after)).toEqual([]);
  const page = pageWith({});
  for (const mode of ['editable', 'flattened', 'none'] as const)
    expect(
      exportUpdate(after, readPages(after), [page], { mode, keepsNotes: true }).bytes,
    ).toHaveLength(0);
});

test('a page that somebody cropped keeps what is on it where it is', () => {
  const parts = written(ink, mark, link);
  const file = opened(...parts);
  const update = new PdfUpdate(file);
  const page = readPages(file)[0];
  update.set(page.ref, page.dict.with({ CropBox: [30, 50, 280, 380] }));
  const back = readBack(opened(...parts, update.bytes()));
  // Page space begins at the top left of what shows: 30 further right, 20 further down.
  expect(back.find(({ id }) => id === mark.id)).toMatchObject({
    kind: 'highlight',
    quads: [[70, 70, 130, 70, 70, 90, 130, 90]],
  });
  expect(back.find(({ id }) => id === ink.id)).toMatchObject({
    kind: 'ink',
    transform: [1, 0, 0, 1, -30, -20],
  });
});

test('what others added to an annotation stays, and their flags, when it is changed here', () => {
  const parts = written(mark);
  const file = opened(...parts);
  const [ref] = file.array(readPages(file)[0].dict.get('Annots')) as PdfRef[];
  const update = new PdfUpdate(file);
  const added = { F: 4 | 8, Subj: textString('kept'), RC: textString('<p>rich</p>') };
  update.set(ref, file.dict(ref)!.with(added));
  const theirs = update.bytes();
  const after = opened(...parts, theirs);
  const [back] = readBack(after);
  const changed = { ...back, pageId, color: '#00ff00', modified: '2026-11-11T11:11:11.000Z' };
  const page = pageWith({ [back.id]: changed as Annotation });
  const how = { mode: 'editable', keepsNotes: true } as const;
  const ours = exportUpdate(after, readPages(after), [page], how).bytes;
  const dict = opened(...parts, theirs, ours).dict(ref)!;
  expect(dict.get('F')).toBe(4 | 8);
  expect(dict.get('C')).toEqual([0, 1, 0]);
  expect(dict.get('Subj')).toBeInstanceOf(PdfString);
  expect(dict.get('RC')).toBeInstanceOf(PdfString);
  // What says the same is not written in other digits.
  expect(dict.get('QuadPoints')).toEqual(numbers(file.dict(ref)!, 'QuadPoints'));
});

// ISO 32000-1, table 179: “the QuadPoints […] coordinates […] shall lie within the region specified by Rect”.
test.each(['highlight', 'underline', 'strikeout'] as const)(
  'the rectangle of %s holds its areas',
  (kind) => {
    const file = opened(...written({ ...mark, kind }));
    const [ref] = file.array(readPages(file)[0].dict.get('Annots')) as PdfRef[];
    const dict = file.dict(ref)!;
    const [x0, y0, x1, y1] = numbers(dict, 'Rect');
    numbers(dict, 'QuadPoints').forEach((n, i) => {
      expect(n).toBeGreaterThanOrEqual(i % 2 === 0 ? x0 : y0);
      expect(n).toBeLessThanOrEqual(i % 2 === 0 ? x1 : y1);
    });
  },
);
