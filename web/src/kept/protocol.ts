import type { ConfirmedOperation } from '@stylet/core/document';
import type { Beginning } from './begun';
import type { KeptState } from './kept-db';
import type { Keeping } from './keeper';

/** What became of keeping a document. */
export type Kept =
  { readonly kind: 'kept'; readonly state: KeptState } | { readonly kind: 'no-room' | 'gone' };

/** What became of a document that begins here; `unreadable`: only the server can read its file. */
export interface BegunHere {
  readonly kind: 'kept' | 'unreadable' | 'no-room';
  /** What it is called, once it has been read. */
  readonly title?: string;
}

/** What the window asks; the worker's name is that of the database. */
export interface KeptRequests {
  keep: { params: Keeping; result: Kept };
  begin: { params: Beginning; result: BegunHere };
  advance: {
    params: { id: string; operations: readonly ConfirmedOperation[] };
    result: KeptState | undefined;
  };
  remove: { params: { id: string }; result: undefined };
  choose: { params: { id: string; isChosen: boolean }; result: undefined };
  trim: { params: { most: number }; result: undefined };
}
