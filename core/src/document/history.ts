import { find } from './apply';
import type { Effect } from './operation';
import type { DocumentState } from './state';

/** What takes an effect back, and the effect it takes back. */
export interface Reversal {
  readonly effect: Effect;
  readonly of: Effect;
  /** The document it is about, where that is another one. */
  readonly documentId?: string;
}

/** What undo and redo would do, a gesture each, the next one last. */
export interface History {
  readonly undo: readonly (readonly Reversal[])[];
  readonly redo: readonly (readonly Reversal[])[];
}

/** How a step came about; one that amends an earlier one is undone with it. */
export type StepKind = 'changed' | 'amended' | 'undone' | 'redone';

export const noHistory: History = { undo: [], redo: [] };

/** The history after a step that `reversals` take back. */
export function historyAfter(
  { undo, redo }: History,
  kind: StepKind,
  reversals: readonly Reversal[],
): History {
  switch (kind) {
    case 'changed':
      return { undo: [...undo, reversals], redo: [] };
    case 'amended':
      return { undo: amended(undo, reversals), redo };
    case 'undone':
      return { undo: undo.slice(0, -1), redo: [...redo, reversals] };
    case 'redone':
      return { undo: [...undo, reversals], redo: redo.slice(0, -1) };
  }
}

/** The step that made what is put back is taken back together with what has become of it. */
function amended(undo: History['undo'], reversals: readonly Reversal[]): History['undo'] {
  const replaced = new Set(
    reversals.flatMap(({ effect }) =>
      effect.type === 'annotation.add' ? [effect.annotation.id] : [],
    ),
  );
  const at = undo.findLastIndex((step) =>
    step.some(({ of }) => of.type === 'annotation.add' && replaced.has(of.annotation.id)),
  );
  if (at < 0) return [...undo, reversals];
  return undo.with(at, [...reversals, ...undo[at]]);
}

/**
 * Whether what an effect brought about is still as it left it. If not, somebody has gone on from
 * there, whose work taking the effect back would undo.
 */
export function stands(state: DocumentState, effect: Effect): boolean {
  switch (effect.type) {
    case 'annotation.add': {
      const { id, pageId, modified } = effect.annotation;
      return find(state, pageId, id)?.modified === modified;
    }
    case 'annotation.remove':
      return find(state, effect.pageId, effect.annotationId) === undefined;
    case 'annotation.change': {
      const now = find(state, effect.pageId, effect.annotationId) as
        Record<string, unknown> | undefined;
      return now !== undefined && holds(now, effect.fields);
    }
    case 'landmark.add':
      return isSame(state.landmarks[effect.landmark.id], effect.landmark);
    case 'landmark.remove':
      return state.landmarks[effect.landmarkId] === undefined;
    case 'landmark.change': {
      const now = state.landmarks[effect.landmarkId] as Record<string, unknown> | undefined;
      return now !== undefined && holds(now, effect.fields);
    }
    case 'page.add':
      return isSame(state.pages[effect.page.id], effect.page);
    case 'page.remove':
      return state.pages[effect.pageId] === undefined;
    case 'page.change': {
      const now = state.pages[effect.pageId] as Record<string, unknown> | undefined;
      return now !== undefined && holds(now, effect.fields);
    }
    case 'document.rename':
      return state.title === effect.title;
  }
}

const holds = (now: Record<string, unknown>, fields: object): boolean =>
  Object.entries(fields).every(([key, value]) => isSame(now[key], value));

const isSame = (a: unknown, b: unknown): boolean =>
  a === b || JSON.stringify(a ?? null) === JSON.stringify(b ?? null);
