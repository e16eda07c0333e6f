import { DestroyRef, computed, inject, type Signal } from '@angular/core';
import type { Page } from '@stylet/core/api';
import { UnreadPages } from '../../platform/document/unread-pages';
import { PageSource } from '../../platform/paper/page-source';
import { ViewState } from '../../platform/view/view-state';

/** So many pages before and after those that exist come into view next. */
const AROUND = 4;

/** The pages that exist, from one place to another. */
interface Near {
  readonly pages: readonly Page[];
  readonly range: readonly [number, number];
}

/** Has what is on pages near the view read, as long as the component is there; used within an injection context. */
export function wantPagesNear(near: Signal<Near | undefined>): void {
  const unread = inject(UnreadPages);
  const { hasDrawn } = inject(PageSource);
  const current = inject(ViewState).currentPage;
  const wanted = computed(() => {
    const { pages, range } = near() ?? { pages: [], range: [0, 0] };
    const [first, last] = range;
    if (!hasDrawn()) return pages.slice(current(), current() + 1).map(({ id }) => id);
    const inView = pages.slice(first, last + 1);
    const around = pages.slice(Math.max(0, first - AROUND), last + 1 + AROUND);
    return [...inView, ...around].map(({ id }) => id);
  });
  unread.lookAt(current, hasDrawn);
  inject(DestroyRef).onDestroy(unread.want(wanted));
}
