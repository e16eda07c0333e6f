import type { Page, StyletDocument } from '@stylet/core/api';
import {
  apply,
  documentState,
  type Annotation,
  type DocumentState,
  type Effect,
  type Operation,
} from '@stylet/core/document';
import type { OutlineEntry } from '@stylet/core/pdf';
import {
  createActionGroup,
  createFeature,
  createReducer,
  createSelector,
  emptyProps,
  on,
  props,
} from '@ngrx/store';
import type { Trouble } from '../../api/problem';

/** One thing done by the person at the desk: what was done, and what takes it back. */
export interface Step {
  readonly operations: readonly Operation[];
  readonly inverse: readonly Effect[];
}

export const documentActions = createActionGroup({
  source: 'Document',
  events: {
    Opened: props<{ id: string }>(),
    Loaded: props<{
      document: StyletDocument;
      annotations: readonly Annotation[];
      waiting: readonly Operation[];
    }>(),
    'Load Failed': props<{ trouble: Trouble }>(),
    Closed: emptyProps(),
    Changed: props<{ step: Step }>(),
    Undone: props<{ step: Step }>(),
    Redone: props<{ step: Step }>(),
    'Revision Reached': props<{ documentId: string; revision: number }>(),
  },
});

export interface OpenDocument {
  readonly status: 'none' | 'loading' | 'ready' | 'failed';
  readonly id: string | undefined;
  readonly trouble: Trouble | undefined;
  readonly pages: readonly Page[];
  readonly outline: readonly OutlineEntry[];
  readonly state: DocumentState;
  readonly revision: number;
  /** What undo and redo would do, the next one last. */
  readonly undo: readonly (readonly Effect[])[];
  readonly redo: readonly (readonly Effect[])[];
}

const initial: OpenDocument = {
  status: 'none',
  id: undefined,
  trouble: undefined,
  pages: [],
  outline: [],
  state: documentState('', []),
  revision: 0,
  undo: [],
  redo: [],
};

const perform = (state: DocumentState, operations: readonly Operation[]): DocumentState =>
  operations.reduce((before, { effect }) => apply(before, effect), state);

export const documentFeature = createFeature({
  name: 'document',
  reducer: createReducer(
    initial,
    on(documentActions.opened, (_, { id }): OpenDocument => ({
      ...initial,
      id,
      status: 'loading',
    })),
    on(documentActions.loaded, (open, { document, annotations, waiting }): OpenDocument => {
      if (document.id !== open.id) return open;
      return {
        ...open,
        status: 'ready',
        pages: document.pages,
        outline: document.outline,
        state: perform(documentState(document.title, annotations), waiting),
        revision: document.revision,
      };
    }),
    on(documentActions.loadFailed, (open, { trouble }): OpenDocument => ({
      ...open,
      status: 'failed',
      trouble,
    })),
    on(documentActions.closed, () => initial),
    on(documentActions.changed, (open, { step }) => ({
      ...open,
      state: perform(open.state, step.operations),
      undo: [...open.undo, step.inverse],
      redo: [],
    })),
    on(documentActions.undone, (open, { step }) => ({
      ...open,
      state: perform(open.state, step.operations),
      undo: open.undo.slice(0, -1),
      redo: [...open.redo, step.inverse],
    })),
    on(documentActions.redone, (open, { step }) => ({
      ...open,
      state: perform(open.state, step.operations),
      undo: [...open.undo, step.inverse],
      redo: open.redo.slice(0, -1),
    })),
    on(documentActions.revisionReached, (open, { documentId, revision }) =>
      documentId === open.id ? { ...open, revision: Math.max(open.revision, revision) } : open,
    ),
  ),
  extraSelectors: ({ selectState, selectUndo, selectRedo }) => ({
    selectTitle: createSelector(selectState, ({ title }) => title),
    selectAnnotations: createSelector(selectState, ({ annotations }) => annotations),
    selectCanUndo: createSelector(selectUndo, (steps) => steps.length > 0),
    selectCanRedo: createSelector(selectRedo, (steps) => steps.length > 0),
  }),
});
