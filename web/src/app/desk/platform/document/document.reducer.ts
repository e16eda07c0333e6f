import type { AnnotationList, ReadingPlace, StyletDocument } from '@stylet/core/api';
import {
  documentState,
  hear,
  type Annotation,
  historyAfter,
  isBehind,
  noHistory,
  pagesInOrder,
  presentAnnotations,
  presentLandmarks,
  replicaOf,
  type ConfirmedOperation,
  type DocumentState,
  type History,
  type News,
  type Operation,
  type Replica,
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
import type { Trouble } from '../../../api/problem';

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
      /** Pages whose annotations are not among these. */
      unread?: AnnotationList['unread'];
      waiting: readonly Operation[];
      /** What was done since. */
      since?: readonly ConfirmedOperation[];
      /** It is as it is kept in this browser; the server may have more. */
      isKept?: boolean;
      history: History;
    }>(),
    'Load Failed': props<{ trouble: Trouble }>(),
    Closed: emptyProps(),
    'Companion Chosen': props<{ documentId: string; companion: StyletDocument['companion'] }>(),
    'Step Made': props<{ documentId: string; kind: StepKind; step: Step }>(),
    /** `isFromHere`: other windows of this browser are to hear of it too. */
    Heard: props<{ documentId: string; news: News; isFromHere: boolean }>(),
  },
});

export interface OpenDocument {
  readonly status: 'none' | 'loading' | 'ready' | 'failed';
  readonly id: string | undefined;
  /** The digest of its own file. */
  readonly source: string | undefined;
  /** Whether it has typed pages. */
  readonly isTyped: boolean;
  /** The notebook that is kept beside it. */
  readonly companion: StyletDocument['companion'];
  /** What there was to say about its file when it came. */
  readonly notices: StyletDocument['notices'];
  readonly trouble: Trouble | undefined;
  /** Where one was last, on whatever device, when it was opened. */
  readonly place: ReadingPlace | null;
  readonly replica: Replica;
  /** The document as it is shown. */
  readonly state: DocumentState;
  /** The server's, up to which all is known here. */
  readonly revision: number;
  /** What was heard while it was being loaded. */
  readonly heard: readonly News[];
  readonly history: History;
}

const nothing = replicaOf(documentState('', []), 0);

const initial: OpenDocument = {
  status: 'none',
  id: undefined,
  source: undefined,
  isTyped: false,
  companion: null,
  notices: [],
  trouble: undefined,
  place: null,
  replica: nothing,
  state: nothing.shown,
  revision: 0,
  heard: [],
  history: noHistory,
};

const withReplica = (open: OpenDocument, replica: Replica): OpenDocument => ({
  ...open,
  replica,
  state: replica.shown,
  revision: replica.revision,
});

const hearing = (open: OpenDocument, news: News): OpenDocument =>
  open.status === 'ready'
    ? withReplica(open, hear(open.replica, news))
    : { ...open, heard: [...open.heard, news] };

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
      (open, { document, annotations, unread, waiting, since, history }): OpenDocument => {
        if (document.id !== open.id) return open;
        const { title, landmarks, pages, revision } = document;
        const news: News[] = [
          // What follows on a gap shows all the same.
          {
            kind: 'made',
            operations: (since ?? [])
              .filter((one) => one.revision > revision)
              .map(({ operation }) => operation),
          },
          { kind: 'confirmed', operations: since ?? [] },
          { kind: 'made', operations: waiting },
          ...open.heard,
        ];
        const loaded = replicaOf(
          documentState(title, annotations, landmarks, pages),
          revision,
          new Map(unread?.map(({ pageId, count }) => [pageId, count])),
        );
        return {
          ...withReplica(open, news.reduce(hear, loaded)),
          status: 'ready',
          source: document.source,
          isTyped: document.isTyped,
          companion: document.companion,
          notices: document.notices,
          place: document.place,
          heard: [],
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
            ...hearing(open, { kind: 'made', operations: of(documentId, step.operations) }),
            history: historyAfter(open.history, kind, step.reversals),
          }
        : open,
    ),
    on(documentActions.heard, (open, { documentId, news }) =>
      documentId === open.id && (open.status === 'ready' || open.status === 'loading')
        ? hearing(open, news)
        : open,
    ),
  ),
  extraSelectors: ({ selectState, selectHistory, selectReplica }) => ({
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
    selectUnread: createSelector(selectReplica, ({ unread }) => unread),
    selectIsBehind: createSelector(selectReplica, isBehind),
    selectCanUndo: createSelector(selectHistory, ({ undo }) => undo.length > 0),
    selectCanRedo: createSelector(selectHistory, ({ redo }) => redo.length > 0),
  }),
});
