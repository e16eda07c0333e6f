import fc from 'fast-check';
import { documentState, newId, type Annotation, type Ink } from '../document/index';
import { samplesOf, samplesToBase64 } from '../ink/index';
import { WrittenAnnotations } from './annotations/written';
import { exportUpdate } from './export';
import { importPdf } from './import';
import { deflateHere, type PdfFile } from './objects/index';
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

const stroke = (page: number, at: number): Ink => ({
  pageId: pageIds[page],
  id: newId(),
  order: `a${at}`,
  opacity: 1,
  author: 'A',
  created: NOW,
  modified: NOW,
  kind: 'ink',
  color: '#22304a',
  instrument: 'nib',
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

function tailOf(
  file: PdfFile,
  annotations: readonly Annotation[],
  written?: WrittenAnnotations,
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
  const landmarks = { landmarks: {}, isOutlineChanged: false };
  const how = { mode: 'editable', keepsNotes: true } as const;
  return exportUpdate(file, readPages(file), pages, how, landmarks, written).bytes;
}

/** What a reader finds in an export: annotations by page and order, without where they stand in the file. */
function found(tail: Uint8Array): unknown[] {
  const file = opened(original, tail);
  const { pages, annotations } = importPdf(file, readPages(file), NOW);
  return annotations.map(({ origin: _, order: _order, pageId, ...fields }) => ({
    ...fields,
    page: pages.findIndex(({ id }) => id === pageId),
  }));
}

type Step =
  | { readonly type: 'add'; readonly page: number; readonly at: number }
  | { readonly type: 'remove' | 'recolour'; readonly which: number };

const step: fc.Arbitrary<Step> = fc.oneof(
  fc.record({
    type: fc.constant('add' as const),
    page: fc.nat(PAGES - 1),
    at: fc.integer({ min: 10, max: 99 }),
  }),
  fc.record({ type: fc.constantFrom('remove' as const, 'recolour' as const), which: fc.nat(30) }),
);

function after(annotations: readonly Ink[], change: Step): Ink[] {
  if (change.type === 'add') return [...annotations, stroke(change.page, change.at)];
  const at = change.which % Math.max(1, annotations.length);
  if (change.type === 'remove') return annotations.filter((_, i) => i !== at);
  return annotations.map((one, i) => (i === at ? { ...one, color: '#a03030' } : one));
}

test('exported again after any changes a document is what it is exported afresh', () => {
  fc.assert(
    fc.property(fc.array(step, { minLength: 1, maxLength: 6 }), (steps) => {
      const file = opened(original);
      const written = new WrittenAnnotations(deflateHere, () => undefined);
      let annotations = Array.from({ length: 14 }, (_, i) => stroke(i % PAGES, 10 + i));
      for (const change of steps) {
        annotations = after(annotations, change);
        const again = tailOf(file, annotations, written);
        expect(found(again)).toEqual(found(tailOf(opened(original), annotations)));
      }
    }),
    { numRuns: 8 },
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
