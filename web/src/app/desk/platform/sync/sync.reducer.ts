import {
  createActionGroup,
  createFeature,
  createReducer,
  createSelector,
  emptyProps,
  on,
  props,
} from '@ngrx/store';
import type { OperationResult } from '@stylet/core/api';
import type { Trouble } from '../../../api/problem';
import type { AsideOperation } from '../../../storage/browser-db';
import { documentActions } from '../document/document.reducer';

export const syncActions = createActionGroup({
  source: 'Sync',
  events: {
    'Waiting Counted': props<{ count: number }>(),
    Acknowledged: props<{ count: number }>(),
    'Server Away': emptyProps(),
    'Server Back': emptyProps(),
    /** The server will not take a change; the others go on without it. */
    'Put Aside': props<{ aside: AsideOperation }>(),
    'Aside Read': props<{ aside: readonly AsideOperation[] }>(),
    /** Changes that could not be kept here were refused as well. */
    Lost: props<{ count: number; trouble: Trouble }>(),
    'Keeping Failed': props<{ trouble: Trouble }>(),
    /** Somebody had removed pages that were written on. */
    'Written On Removed': props<{
      documentId: string;
      removedPages: OperationResult['removedPages'];
    }>(),
  },
});

export interface SyncState {
  /** Changes the server has not acknowledged. */
  readonly waiting: number;
  readonly reachable: boolean;
  /** Changes the server has refused. */
  readonly aside: readonly AsideOperation[];
  /** Why changes could not be stored, or kept here. */
  readonly trouble: Trouble | undefined;
}

const initial: SyncState = { waiting: 0, reachable: true, aside: [], trouble: undefined };

const grown = (state: SyncState, { step }: { step: { operations: readonly unknown[] } }) => ({
  ...state,
  waiting: state.waiting + step.operations.length,
});

export const syncFeature = createFeature({
  name: 'sync',
  reducer: createReducer(
    initial,
    on(documentActions.stepMade, grown),
    on(syncActions.waitingCounted, (state, { count }) => ({ ...state, waiting: count })),
    on(syncActions.acknowledged, (state, { count }) => ({
      ...state,
      waiting: Math.max(0, state.waiting - count),
      reachable: true,
    })),
    on(syncActions.serverAway, (state) => ({ ...state, reachable: false })),
    on(syncActions.serverBack, (state) => ({ ...state, reachable: true })),
    on(syncActions.putAside, (state, { aside }) => ({
      ...state,
      waiting: Math.max(0, state.waiting - 1),
      reachable: true,
      aside: [...state.aside, aside],
      trouble: { ...aside.trouble, advice: 'It is kept in this browser; see below.' },
    })),
    on(syncActions.asideRead, (state, { aside }) => ({ ...state, aside })),
    on(syncActions.lost, (state, { count, trouble }) => ({
      ...state,
      waiting: Math.max(0, state.waiting - count),
      reachable: true,
      trouble,
    })),
    on(syncActions.keepingFailed, (state, { trouble }) => ({ ...state, trouble })),
  ),
  extraSelectors: ({ selectWaiting, selectReachable, selectAside }) => ({
    selectWords: createSelector(selectWaiting, selectReachable, selectAside, describe),
  }),
});

/** The state of saving in words. */
export function describe(
  waiting: number,
  reachable: boolean,
  aside: readonly unknown[] = [],
): string {
  const saved = aside.length > 0 ? 'All else saved' : 'Saved';
  if (waiting === 0) return reachable ? saved : 'Offline';
  if (reachable) return 'Saving';
  return `Offline · ${waiting} ${waiting === 1 ? 'change' : 'changes'} kept here`;
}
