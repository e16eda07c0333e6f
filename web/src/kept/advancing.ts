import type { StyletDocument } from '@stylet/core/api';
import {
  applyAll,
  byOrder,
  documentState,
  effectsUnseen,
  whereOf,
  type Annotation,
  type ConfirmedOperation,
} from '@stylet/core/document';
import { picturePath, sourcePath } from './addresses';
import type { KeptDb, KeptState } from './kept-db';

/** What there is to an annotation, in bytes, besides its samples. */
const BESIDES = 400;

/** About how much an annotation takes up, in bytes. */
export const bytesOf = (annotation: Annotation): number =>
  BESIDES + ('samples' in annotation ? annotation.samples.length : 0);

/** The address of the file of a picture. */
export const filesOf = (annotation: Annotation): string[] =>
  annotation.kind === 'picture' ? [picturePath(annotation.digest, annotation.medium)] : [];

/** The addresses of the files that a document's pages are in. */
export const filesOfPages = ({ source, pages }: StyletDocument): string[] => [
  ...new Set([source, ...pages.map((page) => page.source)].map(sourcePath)),
];

/** Those operations that follow on a revision without a gap. */
function following(
  revision: number,
  operations: readonly ConfirmedOperation[],
): readonly ConfirmedOperation[] {
  const later = operations
    .filter((one) => one.revision > revision)
    .sort((a, b) => a.revision - b.revision);
  const gap = later.findIndex((one, i) => one.revision !== revision + 1 + i);
  return gap < 0 ? later : later.slice(0, gap);
}

/** A document that has just been read, in parts. */
export interface JustRead {
  readonly document: StyletDocument;
  readonly state: KeptState;
  /** The revisions at which its annotations were read, none earlier than the state's. */
  readonly readAt: ReadonlyMap<string, number>;
}

/**
 * Brings a kept document on by what was done to it since, or one that was just read, in one transaction: what was done to
 * its annotations costs as much as those are, not as the document is. Returns the state then; undefined for one that is
 * not kept. What comes after a gap between revisions is left out.
 */
export async function advance(
  db: KeptDb,
  id: string,
  operations: readonly ConfirmedOperation[],
  read?: JustRead,
): Promise<KeptState | undefined> {
  const transaction = db.transaction(['states', 'documents', 'annotations'], 'readwrite');
  if (read) {
    void transaction.objectStore('documents').put(read.document);
    void transaction.objectStore('states').put(read.state);
  }
  const states = transaction.objectStore('states');
  const documents = transaction.objectStore('documents');
  const annotations = transaction.objectStore('annotations');
  const state = await states.get(id);
  const next = state ? following(state.revision, operations) : [];
  if (!state || next.length === 0) {
    await transaction.done;
    return state;
  }
  const effects = effectsUnseen(next, (each) => read?.readAt.get(each));
  const touched = new Set(effects.flatMap((effect) => whereOf(effect, 'annotation')?.id ?? []));
  const rows = await Promise.all([...touched].map((each) => annotations.get([id, each])));
  const before = rows.flatMap((row) => row?.annotation ?? []);
  // What annotations come to does not depend on pages and landmarks: those are read only where they change.
  const isMore = effects.some((effect) => !whereOf(effect, 'annotation'));
  const document = isMore ? await documents.get(id) : undefined;
  const { title, landmarks, pages } = document ?? { title: '', landmarks: [], pages: [] };
  const after = applyAll(documentState(title, before, landmarks, pages), effects);

  const counts = { ...state.counts };
  let { bytes } = state;
  const files = new Set(state.files);
  const count = (annotation: Annotation, by: 1 | -1): void => {
    const { pageId } = annotation;
    counts[pageId] = (counts[pageId] ?? 0) + by;
    if (counts[pageId] === 0) Reflect.deleteProperty(counts, pageId);
    bytes += by * bytesOf(annotation);
  };
  const left = new Map<string, Annotation>();
  for (const page of Object.values(after.annotations))
    for (const annotation of Object.values(page)) left.set(annotation.id, annotation);
  for (const annotation of before) {
    count(annotation, -1);
    if (!left.has(annotation.id)) void annotations.delete([id, annotation.id]);
  }
  for (const annotation of left.values()) {
    count(annotation, 1);
    for (const path of filesOf(annotation)) files.add(path);
    void annotations.put({
      documentId: id,
      id: annotation.id,
      pageId: annotation.pageId,
      annotation,
    });
  }
  const { revision } = next[next.length - 1];
  if (document) {
    const now: StyletDocument = {
      ...document,
      title: after.title,
      landmarks: Object.values(after.landmarks),
      pages: Object.values(after.pages).sort(byOrder),
      revision,
    };
    for (const path of filesOfPages(now)) files.add(path);
    void documents.put(now);
  }
  const reached: KeptState = { ...state, revision, counts, bytes, files: [...files] };
  void states.put(reached);
  await transaction.done;
  return reached;
}
