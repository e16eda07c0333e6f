import type { Page } from '@stylet/core/api';
import type { Box, Point } from '@stylet/core/geometry';
import type { ReadyPicture } from '../pictures/recent-pictures';
import type { Inject } from './inject';

/** In the menu of a page at a place. */
export interface PageMenuAction {
  readonly id: string;
  readonly name: string;
  readonly icon?: string;
  readonly order: number;
  /** `at`: in the window. */
  readonly run: Inject<(page: Page, at: Point) => void>;
}

/** Of something in a bar: a button, or an entry of its menu where it has no icon. */
export interface ActionEntry<T> {
  readonly id: string;
  readonly icon?: string;
  readonly order: number;
  readonly action: Inject<T>;
}

export interface ActionOn {
  /** What it is called now. */
  name(): string;
  /** More words, where its name does not say all. */
  tip?(): string;
  /** Whether it can be done with what is selected; left out, it can. */
  isThere?(): boolean;
  isDisabled?(): boolean;
}

/** One of several things that an action can do. */
export interface ActionChoice {
  readonly id: string;
  readonly name: string;
  /** How its name is shown, in properties of CSS. */
  readonly look?: Readonly<Record<string, string>>;
  run(): void;
}

/** With the annotations that are selected; what has choices offers these, and does nothing by itself. */
export type SelectionAction = ActionEntry<
  ActionOn & { choices?(): readonly ActionChoice[]; run(): void }
> & {
  /** What the menu of a row of the Index calls it, which selects what the row stands for and does it. */
  readonly inIndex?: string;
};

/**
 * With the words that are selected; `end`: where they end, in the window. `isForMarks`: also where they are held by a mark
 * that was tapped.
 */
export type WordAction = ActionEntry<
  ActionOn & { readonly isForMarks?: boolean; run(end: DOMRect): void }
>;

/**
 * With a part of a page that was cut out: `area` in page space, `picture` as it is drawn there, once the server has cut it out.
 */
export type SnipAction = ActionEntry<
  ActionOn & { run(page: Page, area: Box, picture: ReadyPicture | undefined): void }
>;

/** Something of interest on a page: where it lies, in page space; none where it is the page itself. */
export interface PageMark {
  readonly pageIndex: number;
  readonly boxes: readonly Box[];
}
