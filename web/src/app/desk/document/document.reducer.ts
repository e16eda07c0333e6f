import type { ReadingPlace, StyletDocument } from '@stylet/core/api';
import {
  applyAll,
  documentState,
  type Annotation,
  historyAfter,
  noHistory,
  pagesInOrder,
  presentAnnotations,
  presentLandmarks,
  type DocumentState,
  type History,
  type Operation,
  type Reversal,
  type StepKind,
} from '@stylet/core/document';
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
  readonly reversals: readonly Reversal[];
}

export const documentActions = createActionGroup({
  source: 'Document',
  events: {
    Opened: props<{ id: string }>(),
    Loaded: props<{
      document: StyletDocument;
      annotations: readonly Annotation[];
      waiting: readonly Operation[];
      history: History;
    }>(),
    'Load Failed': props<{ trouble: Trouble }>(),
    Closed: emptyProps(),
    'Companion Chosen': props<{ documentId: string; companion: StyletDocument['companion'] }>(),
    'Step Made': props<{ documentId: string; kind: StepKind; step: Step }>(),
    'Operations Received': props<{ documentId: string; operations: readonly Operation[] }>(),
    'Revision Reached': props<{ documentId: string; revision: number }>(),
  },
});

export interface OpenDocument {
  readonly status: 'none' | 'loading' | 'ready' | 'failed';
  readonly id: string | undefined;
  /** The digest of its own file. */
  readonly source: string | undefined;
  /** The notebook that is kept beside it. */
  readonly companion: StyletDocument['companion'];
  /** What there was to say about its file when it came. */
  readonly notices: StyletDocument['notices'];
  readonly trouble: Trouble | undefined;
  /** Where one was last, on whatever device, when it was opened. */
  readonly place: ReadingPlace | null;
  readonly state: DocumentState;
  readonly revision: number;
  readonly history: History;
}

const initial: OpenDocument = {
  status: 'none',
  id: undefined,
  source: undefined,
  companion: null,
  notices: [],
  trouble: undefined,
  place: null,
  state: documentState('', []),
  revision: 0,
  history: noHistory,
};

const perform = (state: DocumentState, operations: readonly Operation[]): DocumentState =>
  applyAll(
    state,
    operations.map(({ effect }) => effect),
  );

/** A step may do something in another document too. */
const of = (documentId: string, operations: readonly Operation[]): readonly Operation[] =>
  operations.filter((operation) => operation.documentId === documentId);

export const documentFeature = createFeature({
  name: 'document',
  reducer: createReducer(
    initial,
    on(documentActions.opened, (_, { id }): OpenDocument => ({
      ...initial,
      id,
      status: 'loading',
    })),
    on(
      documentActions.loaded,
      (open, { document, annotations, waiting, history }): OpenDocument => {
        if (document.id !== open.id) return open;
        return {
          ...open,
          status: 'ready',
          source: document.source,
          companion: document.companion,
          notices: document.notices,
          place: document.place,
          state: perform(
            documentState(document.title, annotations, document.landmarks, document.pages),
            waiting,
          ),
          revision: document.revision,
          history,
        };
      },
    ),
    on(documentActions.loadFailed, (open, { trouble }): OpenDocument => ({
      ...open,
      status: 'failed',
      trouble,
    })),
    on(documentActions.closed, () => initial),
    on(documentActions.companionChosen, (open, { documentId, companion }) =>
      documentId === open.id ? { ...open, companion } : open,
    ),
    on(documentActions.stepMade, (open, { documentId, kind, step }) =>
      documentId === open.id
        ? {
            ...open,
            state: perform(open.state, of(documentId, step.operations)),
            history: historyAfter(open.history, kind, step.reversals),
          }
        : open,
    ),
    on(documentActions.operationsReceived, (open, { documentId, operations }) =>
      documentId === open.id && open.status === 'ready'
        ? { ...open, state: perform(open.state, operations) }
        : open,
    ),
    on(documentActions.revisionReached, (open, { documentId, revision }) =>
      documentId === open.id ? { ...open, revision: Math.max(open.revision, revision) } : open,
    ),
  ),
  extraSelectors: ({ selectState, selectHistory }) => ({
    selectTitle: createSelector(selectState, ({ title }) => title),
    selectPages: createSelector(selectState, ({ pages }) => pagesInOrder(pages)),
    selectLandmarks: createSelector(selectState, ({ landmarks, pages }) =>
      presentLandmarks(landmarks, pages),
    ),
    selectAnnotations: createSelector(
      createSelector(selectState, ({ annotations }) => annotations),
      createSelector(selectState, ({ pages }) => pages),
      (annotations, pages) => presentAnnotations({ annotations, pages }),
    ),
    selectCanUndo: createSelector(selectHistory, ({ undo }) => undo.length > 0),
    selectCanRedo: createSelector(selectHistory, ({ redo }) => redo.length > 0),
  }),
});
