import { Injectable, computed, inject, signal } from '@angular/core';
import type { Page } from '@stylet/core/api';
import type { Annotation, Thread } from '@stylet/core/document';
import { pageView, transform, type Point } from '@stylet/core/geometry';
import { boundsOfAnnotation } from '../../platform/paper/drawing';
import { PIXELS_PER_POINT, pagesIn } from '../../platform/paper/layout';
import { ViewState } from '../../platform/view/view-state';
import { placesInMargin } from './margin-places';
import { Notes } from './notes';

/** Between cards, in CSS pixels; and how far above its mark a card begins. */
const GAP = 8;
const ABOVE = 20;
/** How high a card is taken to be until it has been measured. */
const USUAL_HEIGHT = 72;
/** What closes the margin lies above all cards; marks that are out of view so far have none. */
const TOP = 44;
const OUT = 40;

/** A thread beside its page. */
export interface ThreadInMargin {
  readonly key: string;
  readonly thread: Thread;
  readonly page: Page;
  /** Where its mark is, from the top left of the view of the pages, in CSS pixels. */
  readonly mark: Point;
}

/** Where the threads of the pages in view stand in the margin. */
@Injectable()
export class Margin {
  private readonly view = inject(ViewState);
  private readonly notes = inject(Notes);
  private readonly heights = signal<ReadonlyMap<string, number>>(new Map());

  readonly threads = computed<readonly ThreadInMargin[]>(() => {
    const [layout, part, pages] = [this.view.layout(), this.view.part(), this.view.pages()];
    if (layout.pages.length === 0 || part.height === 0) return [];
    const [first, last] = pagesIn(layout, part, 0);
    const active = this.notes.active()?.id;
    return pages.slice(first, last + 1).flatMap((page, i) =>
      this.notes.threads(page.id).flatMap((thread) => {
        const key = thread.root.id;
        const mark = this.shown(page, first + i, markOf(thread.root, page));
        const isOut = mark.y < -OUT || mark.y > part.height + OUT;
        return isOut && key !== active ? [] : [{ key, thread, page, mark }];
      }),
    );
  });
  /** The tops of the cards, by their keys. */
  readonly places = computed(() => {
    const heights = this.heights();
    const items = this.threads().map(({ key, mark }) => ({
      key,
      wanted: mark.y - ABOVE,
      height: heights.get(key) ?? USUAL_HEIGHT,
    }));
    return placesInMargin(items, GAP, this.notes.active()?.id, TOP);
  });

  /** A card is so high. */
  measured(key: string, height: number): void {
    if (this.heights().get(key) !== height)
      this.heights.update((before) => new Map(before).set(key, height));
  }

  /** Where a place of a page is in the view of the pages. */
  private shown(page: Page, index: number, at: Point): Point {
    const placed = this.view.layout().pages[index];
    const scale = this.view.layout().zoom * PIXELS_PER_POINT;
    const { x, y } = transform(pageView(page.width, page.height, page.rotation, scale), at);
    return {
      x: placed.left + this.view.inset() - this.view.left() + x,
      y: placed.top - this.view.top() + y,
    };
  }
}

/** Where a thread hangs on its page: a note at its mark, all else at its corner that lies nearest to the margin. */
export function markOf(root: Annotation, page: Page): Point {
  if (root.kind === 'note') return root.at;
  const box = boundsOfAnnotation(root);
  if (!box) return { x: page.width, y: 0 };
  const corners = [
    { x: box.x0, y: box.y0 },
    { x: box.x1, y: box.y0 },
    { x: box.x0, y: box.y1 },
    { x: box.x1, y: box.y1 },
  ];
  const view = pageView(page.width, page.height, page.rotation, 1);
  const far = (p: Point): number => {
    const shown = transform(view, p);
    return shown.x - shown.y / 1000;
  };
  return corners.reduce((best, one) => (far(one) > far(best) ? one : best));
}
