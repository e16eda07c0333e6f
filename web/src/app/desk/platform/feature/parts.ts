import type { Type } from '@angular/core';
import type { Page } from '@stylet/core/api';
import type { Inject } from './inject';

/** A component that is at hand, or loaded when it is first shown. */
export type Part =
  { readonly component: Type<unknown> } | { readonly load: () => Promise<Type<unknown>> };

/** On each page; the component finds that by `PAGE_FACE`. */
export type OnPageEntry = Part & {
  readonly id: string;
  /** Lower ones lie below. */
  readonly order: number;
  /** Asked of each page; signals that it reads are followed. */
  readonly shows: Inject<(page: Page) => boolean>;
  /** Whether it lies under the annotations, on what the file shows. */
  readonly isBeneath?: boolean;
  /** Whether it is what is selected; and whether that is not shown meanwhile. */
  readonly isSelection?: boolean;
  readonly hidesSelection?: boolean;
  /** Whether the page lies over its neighbours: what is taken hold of may stand out. */
  readonly standsOut?: boolean;
};

/** On the strip, once for each page that is there; the component has inputs `page` and `placed` if it wants to know. */
export type OnStripEntry = Part & {
  readonly id: string;
  readonly shows: Inject<(page: Page, index: number) => boolean>;
};

export type OverlayEntry = Part & {
  readonly id: string;
  /** `pages`: over and round the pages; `beside`: where the Index lies; `window`: over all. */
  readonly in: 'pages' | 'beside' | 'window';
  readonly shows: Inject<() => boolean>;
  /** Whether it also shows while one page is shown alone, to others. */
  readonly showsAlone?: boolean;
  /** Whether it waits until the first page is to be seen, and a place of so many CSS pixels is kept for it. */
  readonly keepsPlace?: number;
};
