import type { Naming, NotebookWanted } from '@stylet/core/api';

/** A picture that goes with a text, and what it is called in that. */
export interface Beside {
  readonly path: string;
  readonly file: Blob;
}

/** What a document begins from. */
export type Origin =
  | {
      readonly kind: 'file';
      readonly file: Blob;
      readonly name: string;
      readonly folder?: string;
      readonly naming: Naming;
      readonly beside?: readonly Beside[];
    }
  | { readonly kind: 'notebook'; readonly wanted: NotebookWanted };

/** A document that begins here, and what it begins from. */
export interface Beginning {
  readonly id: string;
  readonly origin: Origin;
  /** In ms since 1970. */
  readonly now: number;
}

/** What the server has said of a document that it does not take. */
export interface Refusal {
  readonly code: string;
  readonly title: string;
  readonly detail: string;
  readonly advice: string;
}

/** A document that has begun in this browser, and that the server does not have yet. */
export interface BegunDocument {
  readonly id: string;
  readonly origin: Origin;
  readonly title: string;
  /** When it began, in ms since 1970. */
  readonly at: number;
  /** Whether it can be opened and written on here. */
  readonly isOpenable: boolean;
  readonly refusal?: Refusal;
}
