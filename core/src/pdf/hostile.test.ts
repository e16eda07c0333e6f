import { annotationSchema, documentState, landmarkSchema, newId } from '../document/index';
import { exportUpdate } from './export';
import { importPdf } from './import';
import { PdfLimitError } from './limits';
import { PdfFile, PdfSyntaxError, bytesInMemory } from './objects/index';
import { readPages } from './pages';
import { hostilePdf } from './testing/hostile';
import { opened } from './testing/small-file';
import { tidyingUpdate } from './tidy';

const FILES = 400;

/** What a reader may say of a file; anything else is a flaw of the reader. */
const isRefusal = (error: unknown): boolean =>
  error instanceof PdfSyntaxError || error instanceof PdfLimitError;

test('a hostile file is read to something that can be kept, or refused; and comes to an end', () => {
  let read = 0;
  for (let seed = 1; seed <= FILES; seed++) {
    const bytes = hostilePdf(seed);
    try {
      const first = new PdfFile(bytesInMemory(bytes));
      const tail = tidyingUpdate(first, readPages(first), false);
      const file = opened(bytes, tail);
      const inFile = readPages(file);
      const imported = importPdf(file, inFile, { now: '2026-09-01T08:00:00.000Z', ids: newId });
      for (const annotation of imported.annotations)
        expect(annotationSchema.safeParse(annotation).error?.issues).toBeUndefined();
      for (const landmark of imported.landmarks)
        expect(landmarkSchema.safeParse(landmark).error?.issues).toBeUndefined();
      const ids = [...imported.annotations, ...imported.landmarks].map(({ id }) => id);
      expect(new Set(ids).size).toBe(ids.length);
      read++;
      exportAll(bytes, tail, imported);
    } catch (error) {
      if (!isRefusal(error)) throw new Error(`seed ${seed}`, { cause: error });
    }
  }
  // Most are only odd.
  expect(read).toBeGreaterThan(FILES / 4);
}, 120_000);

function exportAll(
  bytes: Uint8Array,
  tail: Uint8Array,
  { pages, annotations }: ReturnType<typeof importPdf>,
): void {
  const state = documentState('', annotations);
  for (const mode of ['editable', 'flattened', 'none'] as const) {
    const file = opened(bytes, tail);
    const placed = pages.map(({ id, index, rotation, label }) => ({
      id,
      source: 'f'.repeat(64),
      sourceIndex: index,
      rotation,
      label: label ?? String(index + 1),
      annotations: state.annotations[id] ?? {},
    }));
    const update = exportUpdate(file, readPages(file), placed, { mode, keepsNotes: true });
    if (update.bytes.length > 0) readPages(opened(bytes, tail, update.bytes));
  }
}
