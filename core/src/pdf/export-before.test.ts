import fc from 'fast-check';
import { documentState, newId, type Annotation, type Ink, type Link } from '../document/index';
import { samplesOf, samplesToBase64 } from '../ink/index';
import { WrittenAnnotations } from './annotations/written';
import { exportUpdate } from './export';
import { importPdf } from './import';
import { PdfDict, PdfStream, deflateHere, type PdfFile, type PdfValue } from './objects/index';
import { readPages } from './pages';
import { builtPdf, type BuiltObject } from './testing/built-file';
import { opened } from './testing/small-file';

const NOW = '2026-09-01T08:00:00.000Z';
const PAGES = 4;
/** Only files with cross-reference streams have object streams. */
const original = builtPdf(
  new Map<number, BuiltObject>([
    [1, '<< /Type /Catalog /Pages 2 0 R >>'],
    [2, `<< /Type /Pages /Kids [${[3, 4, 5, 6].map((n) => `${n} 0 R`).join(' ')}] /Count 4 >>`],
    ...[3, 4, 5, 6].map((number): [number, BuiltObject] => [
      number,
      '<< /Type /Page /Parent 2 0 R /MediaBox [0 0 300 400] >>',
    ]),
  ]),
  { form: 'stream', trailer: '/Root 1 0 R' },
);
const pageIds = Array.from({ length: PAGES }, () => newId());

const looks = ['nib', 'pencil', 'wash'] as const;

const stroke = (page: number, at: number, instrument: Ink['instrument'] = 'nib'): Ink => ({
  pageId: pageIds[page],
  id: newId(),
  order: `a${at}`,
  opacity: 1,
  author: 'A',
  created: NOW,
  modified: NOW,
  kind: 'ink',
  color: '#22304a',
  instrument,
  width: 2,
  smoothing: 0,
  samples: samplesToBase64(
    samplesOf(
      [0, 1, 2, 3].map((i) => ({
        x: 20 + at + i * 20,
        y: 100 + 10 * (i % 2),
        pressure: 0.5,
        tiltX: 0,
        tiltY: 0,
        time: i * 4,
      })),
    ),
  ),
});

/** Its object names another page of the file. */
const link = (page: number, at: number): Link => ({
  pageId: pageIds[page],
  id: newId(),
  order: `b${at}`,
  opacity: 1,
  author: 'A',
  created: NOW,
  modified: NOW,
  kind: 'link',
  quads: [[20, at, 60, at, 20, at + 9, 60, at + 9]],
  contents: '',
  target: { place: { pageId: pageIds[(page + 1) % PAGES], x: 10, y: 20 } },
});

function tailOf(
  file: PdfFile,
  annotations: readonly Annotation[],
  written?: WrittenAnnotations,
  leftOut?: number,
): Uint8Array {
  const state = documentState('', annotations);
  const pages = pageIds.map((id, i) => ({
    id,
    source: 'f'.repeat(64),
    sourceIndex: i,
    rotation: 0 as const,
    label: String(i + 1),
    annotations: state.annotations[id] ?? {},
  }));
  if (leftOut !== undefined) pages.splice(leftOut, 1);
  const landmarks = { landmarks: {}, isOutlineChanged: false };
  const how = { mode: 'editable', keepsNotes: true } as const;
  return exportUpdate(file, readPages(file), pages, how, landmarks, written).bytes;
}

/** What a reader finds in an export: annotations by page and order, without where they stand in the file. */
function found(tail: Uint8Array): unknown[] {
  const file = opened(original, tail);
  const { pages, annotations } = importPdf(file, readPages(file), { now: NOW, ids: newId });
  const indexOf = (pageId: string): number => pages.findIndex(({ id }) => id === pageId);
  return annotations.map(({ origin: _, order: _order, pageId, ...fields }) => ({
    ...fields,
    page: indexOf(pageId),
    ...('target' in fields && 'place' in fields.target
      ? { target: indexOf(fields.target.place.pageId) }
      : {}),
  }));
}

/** What a page's objects come to when every reference is followed: shared patterns and pages that links lead to too. */
function drawn(tail: Uint8Array): string {
  const file = opened(original, tail);
  const followed = (value: PdfValue, depth: number): unknown => {
    const it = file.resolve(value);
    if (value !== null && it === null) return 'nothing';
    if (depth === 0) return '';
    if (Array.isArray(it)) return it.map((one: PdfValue) => followed(one, depth - 1));
    if (it instanceof PdfStream)
      return [followed(it.dict, depth), Buffer.from(it.raw()).toString('base64')];
    if (!(it instanceof PdfDict)) return it;
    const kept = [...it.entries].filter(([key]) => !/Stylet|Parent|NM|^P$|Prints/.test(key));
    return kept.map(([key, entry]) => [key, followed(entry, depth - 1)]);
  };
  return JSON.stringify(readPages(file).map(({ dict }) => followed(dict.get('Annots'), 9)));
}

type Own = Ink | Link;
type Step =
  | {
      readonly type: 'add';
      readonly page: number;
      readonly at: number;
      readonly look: Ink['instrument'] | 'link';
    }
  | { readonly type: 'leave'; readonly page: number }
  | { readonly type: 'remove' | 'recolour'; readonly which: number };

const step: fc.Arbitrary<Step> = fc.oneof(
  fc.record({
    type: fc.constant('add' as const),
    page: fc.nat(PAGES - 1),
    at: fc.integer({ min: 10, max: 99 }),
    look: fc.constantFrom(...looks, 'link' as const),
  }),
  fc.record({ type: fc.constant('leave' as const), page: fc.nat(PAGES - 1) }),
  fc.record({ type: fc.constantFrom('remove' as const, 'recolour' as const), which: fc.nat(30) }),
);

function after(annotations: readonly Own[], change: Step): readonly Own[] {
  if (change.type === 'leave') return annotations;
  if (change.type === 'add') {
    const { page, at, look } = change;
    return [...annotations, look === 'link' ? link(page, at) : stroke(page, at, look)];
  }
  const at = change.which % Math.max(1, annotations.length);
  if (change.type === 'remove') return annotations.filter((_, i) => i !== at);
  return annotations.map((one, i) =>
    i === at && one.kind === 'ink' ? { ...one, color: '#a03030' } : one,
  );
}

test('exported again after any changes a document is what it is exported afresh', () => {
  fc.assert(
    fc.property(fc.array(step, { minLength: 1, maxLength: 6 }), (steps) => {
      const file = opened(original);
      const written = new WrittenAnnotations(deflateHere, () => undefined);
      let annotations: readonly Own[] = Array.from({ length: 8 }, (_, i) =>
        stroke(i % PAGES, 10 + i, looks[i % looks.length]),
      );
      for (const change of steps) {
        annotations = after(annotations, change);
        const leftOut = change.type === 'leave' ? change.page : undefined;
        const again = tailOf(file, annotations, written, leftOut);
        const afresh = tailOf(opened(original), annotations, undefined, leftOut);
        expect(found(again)).toEqual(found(afresh));
        expect(drawn(again)).toBe(drawn(afresh));
      }
    }),
    { numRuns: 9 },
  );
});

test('without a change the same is written, and of what did not change nothing is compressed again', () => {
  let compressed = 0;
  const counting = (bytes: Uint8Array): Uint8Array => {
    compressed += bytes.length;
    return deflateHere(bytes);
  };
  const file = opened(original);
  const written = new WrittenAnnotations(counting, () => undefined);
  const annotations = Array.from({ length: 260 }, (_, i) => stroke(i % PAGES, 10 + (i % 90)));
  const first = tailOf(file, annotations, written);
  const whole = compressed;
  compressed = 0;
  expect(Buffer.compare(tailOf(file, annotations, written), first)).toBe(0);
  expect(compressed).toBeLessThan(0.15 * whole);
  compressed = 0;
  tailOf(file, [...annotations, stroke(1, 50)], written);
  expect(compressed).toBeLessThan(0.6 * whole);
});
