import type { UnderFault } from './under-fault';

/** What checks count together. */
export interface Tally {
  /** What times may be more than, on a machine that others use as well. */
  readonly leniency: number;
  files: number;
  refused: number;
  longestAnswer: number;
  peakMemory: number;
  peakOfPrograms: number;
  kills: number;
  acknowledged: number;
  lost: number;
}

export const emptyTally = (leniency: number): Tally => ({
  leniency,
  files: 0,
  refused: 0,
  longestAnswer: 0,
  peakMemory: 0,
  peakOfPrograms: 0,
  kills: 0,
  acknowledged: 0,
  lost: 0,
});

/** One kind of harm, and what must be true all the same. */
export interface Check {
  readonly name: string;
  /** Throws when it is not true. `seed` differs each time it is run. */
  readonly run: (server: UnderFault, seed: number, tally: Tally) => Promise<void>;
}

/** Throws with words when something is not so. */
export function insist(holds: boolean, words: string): asserts holds {
  if (!holds) throw new Error(words);
}

/** A copied annotation of the first page, as an operation that adds it. */
export function addition(
  documentId: string,
  pageId: string,
  id: string,
  operationId: string,
  at = Date.now(),
) {
  const now = new Date(at).toISOString();
  return {
    id: operationId,
    documentId,
    author: 'Fault',
    at: now,
    baseRevision: 0,
    effect: {
      type: 'annotation.add',
      annotation: {
        kind: 'highlight',
        id,
        pageId,
        order: 'a1',
        color: '#ffe27a',
        opacity: 1,
        author: 'Fault',
        created: now,
        modified: now,
        quads: [[10, 10, 60, 10, 10, 20, 60, 20]],
        contents: 'marked',
      },
    },
  };
}
