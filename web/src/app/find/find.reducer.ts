import type { FindResult, FoundDocument, Hit, Search } from '@stylet/core/api';
import {
  createActionGroup,
  createFeature,
  createReducer,
  createSelector,
  emptyProps,
  on,
  props,
} from '@ngrx/store';
import type { Trouble } from '../api/problem';
import { counted } from '../library/counted';

export const noSearch: Search = { typed: '', keepsCase: false, wholeWords: false, near: false };

export const findActions = createActionGroup({
  source: 'Find',
  events: {
    Asked: props<{ search: Search }>(),
    Answered: props<{ search: Search; result: FindResult }>(),
    'More Asked': emptyProps(),
    'More Answered': props<{ search: Search; result: FindResult }>(),
    'All In Document Asked': props<{ id: string }>(),
    'All In Document Answered': props<{ search: Search; document: FoundDocument }>(),
    Failed: props<{ search: Search; trouble: Trouble }>(),
    /** A hit is gone to; the list is as far down as that. */
    'Hit Opened': props<{ key: string; scrolled: number }>(),
  },
});

export interface FindState {
  readonly search: Search;
  /** Undefined until the first answer. */
  readonly result: FindResult | undefined;
  readonly isAsking: boolean;
  readonly trouble: Trouble | undefined;
  /** Documents all of whose hits are shown. */
  readonly whole: readonly string[];
  /** The hit gone to last, and how far down the list was: it is found again as it was left. */
  readonly opened: string | undefined;
  readonly scrolled: number;
}

const initial: FindState = {
  search: noSearch,
  result: undefined,
  isAsking: false,
  trouble: undefined,
  whole: [],
  opened: undefined,
  scrolled: 0,
};

export const isSameSearch = (a: Search, b: Search): boolean =>
  a.typed === b.typed &&
  a.keepsCase === b.keepsCase &&
  a.wholeWords === b.wholeWords &&
  a.near === b.near &&
  a.folder === b.folder;

/** Answers to what is not asked any more change nothing. */
const ifAsked =
  <P extends { search: Search }>(change: (state: FindState, props: P) => FindState) =>
  (state: FindState, props: P): FindState =>
    isSameSearch(state.search, props.search) ? change(state, props) : state;

export const findFeature = createFeature({
  name: 'find',
  reducer: createReducer(
    initial,
    on(findActions.asked, (state, { search }) => ({
      ...initial,
      search,
      // What was found before stays until there is something else to see.
      result: search.typed.trim() === '' ? undefined : state.result,
      isAsking: search.typed.trim() !== '',
    })),
    on(
      findActions.answered,
      ifAsked<{ search: Search; result: FindResult }>((state, { result }) => ({
        ...state,
        result,
        isAsking: false,
        trouble: undefined,
      })),
    ),
    on(findActions.moreAsked, (state) => ({ ...state, isAsking: true })),
    on(
      findActions.moreAnswered,
      ifAsked<{ search: Search; result: FindResult }>((state, { result }) => ({
        ...state,
        isAsking: false,
        result: {
          ...result,
          documents: [...(state.result?.documents ?? []), ...result.documents],
        },
      })),
    ),
    on(
      findActions.allInDocumentAnswered,
      ifAsked<{ search: Search; document: FoundDocument }>((state, { document }) => ({
        ...state,
        whole: [...state.whole, document.id],
        result: state.result && {
          ...state.result,
          documents: state.result.documents.map((other) =>
            other.id === document.id ? document : other,
          ),
        },
      })),
    ),
    on(
      findActions.failed,
      ifAsked<{ search: Search; trouble: Trouble }>((state, { trouble }) => ({
        ...state,
        isAsking: false,
        trouble,
        result: undefined,
      })),
    ),
    on(findActions.hitOpened, (state, { key, scrolled }) => ({ ...state, opened: key, scrolled })),
  ),
  extraSelectors: ({ selectResult, selectSearch }) => ({
    selectWords: createSelector(selectResult, selectSearch, wordsFor),
  }),
});

/** What has been found, in words. */
export function wordsFor(result: FindResult | undefined, { typed, folder }: Search): string {
  if (!result || typed.trim() === '') return '';
  const { documentCount, pageCount, isAbout } = result;
  const where = folder === undefined ? 'your documents' : 'this folder';
  if (documentCount === 0) return `Nothing in ${where} says “${typed.trim()}”.`;
  const pages = `${isAbout ? 'About ' : ''}${counted(pageCount, 'page')}`;
  return `${pageCount === 0 ? 'No page' : pages} in ${counted(documentCount, 'document')}`;
}

/** A hit by what it is, for as long as the list stays. */
export const hitKey = (documentId: string, hit: Hit, at: number): string =>
  `${documentId} ${hit.kind} ${hit.page?.id ?? ''} ${at}`;
