import type { ConfirmedOperation } from '@stylet/core/document';
import type { KeptState } from './kept-db';
import type { Keeping } from './keeper';

/** What became of keeping a document. */
export type Kept =
  { readonly kind: 'kept'; readonly state: KeptState } | { readonly kind: 'no-room' | 'gone' };

/** What the window asks; the worker's name is that of the database. */
export interface KeptRequests {
  keep: { params: Keeping; result: Kept };
  advance: {
    params: { id: string; operations: readonly ConfirmedOperation[] };
    result: KeptState | undefined;
  };
  remove: { params: { id: string }; result: undefined };
  choose: { params: { id: string; isChosen: boolean }; result: undefined };
  trim: { params: { most: number }; result: undefined };
}
