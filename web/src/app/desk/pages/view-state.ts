import { Injectable, computed, inject, signal } from '@angular/core';
import type { Point } from '@stylet/core/geometry';
import type { Destination } from '@stylet/core/pdf';
import { Store } from '@ngrx/store';
import { documentFeature } from '../document/document.reducer';
import {
  GAP,
  PIXELS_PER_POINT,
  clampZoom,
  fittingZoom,
  layOut,
  pageAt,
  type Layout,
} from './layout';

/** Room around what is brought into view, in pixels. */
const AROUND = 44;

/** A place one has been: a page and how far down it, as a share of its height. */
export interface Place {
  readonly pageIndex: number;
  readonly share: number;
}

/** What of a document shows on the desk: zoom, scroll position, and the way back. */
@Injectable()
export class ViewState {
  private readonly store = inject(Store);
  readonly pages = this.store.selectSignal(documentFeature.selectPages);

  readonly zoom = signal(1);
  /** The zoom at which pages are drawn: follows `zoom` once it rests. */
  readonly restingZoom = signal(1);
  /** Top left of the view in the column of pages, and its size; CSS pixels. */
  readonly left = signal(0);
  readonly top = signal(0);
  readonly size = signal({ width: 0, height: 0 });
  readonly layout = computed(() => layOut(this.pages(), this.zoom()));
  /** The page at the upper third of the view. */
  readonly currentPage = computed(() => pageAt(this.layout(), this.top() + this.size().height / 3));

  /** Whether zoom and place have been chosen: before that nothing is worth drawing. */
  readonly isPlaced = signal(false);

  /** While the space bar is held, dragging moves the pages. */
  readonly isSpaceHeld = signal(false);

  private readonly behind = signal<readonly Place[]>([]);
  private readonly ahead = signal<readonly Place[]>([]);
  readonly canGoBack = computed(() => this.behind().length > 0);
  readonly canGoForward = computed(() => this.ahead().length > 0);

  private settling: ReturnType<typeof setTimeout> | undefined;
  /** Set by the strip of pages: moves the real scroll position. */
  scrollTo: (left: number, top: number) => void = () => undefined;

  /** Zooms so that what is under `about` (pixels in the view) stays there. */
  zoomTo(wanted: number, about = { x: this.size().width / 2, y: this.size().height / 2 }): void {
    const before = this.layout();
    const zoom = clampZoom(wanted);
    if (zoom === before.zoom || before.pages.length === 0) return;
    const factor = zoom / before.zoom;
    const y = this.top() + about.y;
    const index = pageAt(before, y);
    const within = y - before.pages[index].top;
    const viewWidth = this.size().width;
    const sheetBefore = Math.max(viewWidth, before.width);
    const fromMiddle = this.left() + about.x - sheetBefore / 2;
    this.zoom.set(zoom);
    const after = this.layout();
    // The gap between pages does not grow with them.
    const height = before.pages[index].height;
    const grown = within <= height ? within * factor : height * factor + (within - height);
    const sheetAfter = Math.max(viewWidth, after.width);
    this.scrollTo(
      sheetAfter / 2 + fromMiddle * factor - about.x,
      after.pages[index].top + grown - about.y,
    );
    clearTimeout(this.settling);
    this.settling = setTimeout(() => this.restingZoom.set(this.zoom()), 140);
  }

  /** Fits the width, or the page in view; stays at the page in view. */
  fit(kind: 'width' | 'page'): void {
    if (this.pages().length === 0) return;
    const current = this.currentPage();
    const place = this.place();
    this.zoom.set(fittingZoom(this.pages(), current, this.size(), kind));
    this.restingZoom.set(this.zoom());
    this.show(kind === 'page' ? { pageIndex: current, share: 0 } : place);
  }

  /** Scrolls as little as it takes for part of a page (heights as shown, in points) to be in view. */
  reveal(pageIndex: number, from: number, to: number): void {
    const page = this.layout().pages[pageIndex];
    if (!page) return;
    const scale = this.zoom() * PIXELS_PER_POINT;
    const top = page.top + from * scale - AROUND;
    const bottom = page.top + to * scale + AROUND;
    const { height } = this.size();
    // Of what does not fit, the beginning shows.
    const down = Math.min(top, Math.max(this.top(), bottom - height));
    if (down !== this.top()) this.scrollTo(this.left(), down);
  }

  /** Goes to a place on a page, if the document still has that. */
  jumpToPage(pageId: string, at: Partial<Point>): void {
    const pageIndex = this.pages().findIndex(({ id }) => id === pageId);
    if (pageIndex >= 0) this.jump({ pageIndex, ...at });
  }

  /** Has Back lead to where one is now. */
  remember(): void {
    this.behind.update((places) => [...places, this.place()].slice(-200));
    this.ahead.set([]);
  }

  /** Goes to a place without remembering the one left: while something is dragged. */
  goTo(place: Place): void {
    this.show(place);
  }

  /** Goes to a place and remembers the one left. */
  jump(to: Destination): void {
    this.remember();
    const page = this.pages()[to.pageIndex];
    if (!page) return;
    const down = shareDown(to, page);
    this.show({ pageIndex: to.pageIndex, share: down });
  }

  back(): void {
    this.retrace(this.behind, this.ahead);
  }

  forward(): void {
    this.retrace(this.ahead, this.behind);
  }

  private retrace(from: typeof this.behind, to: typeof this.behind): void {
    const place = from().at(-1);
    if (!place) return;
    to.update((places) => [...places, this.place()]);
    from.update((places) => places.slice(0, -1));
    this.show(place);
  }

  place(): Place {
    return this.placeAt(this.layout(), this.top() + GAP);
  }

  /** The place at a height of the column of pages. */
  placeAt(layout: Layout, y: number): Place {
    const pageIndex = pageAt(layout, y);
    const page = layout.pages[pageIndex];
    return { pageIndex, share: page ? (y - page.top) / page.height : 0 };
  }

  private show({ pageIndex, share }: Place): void {
    const layout = this.layout();
    const page = layout.pages[pageIndex];
    const left = (Math.max(this.size().width, layout.width) - this.size().width) / 2;
    this.scrollTo(left, page.top + share * page.height - GAP);
  }
}

/** How far down a page, as shown, a destination is. */
function shareDown(
  { x = 0, y = 0 }: Destination,
  { width, height, rotation }: { width: number; height: number; rotation: 0 | 90 | 180 | 270 },
): number {
  switch (rotation) {
    case 0:
      return y / height;
    case 90:
      return x / width;
    case 180:
      return 1 - y / height;
    case 270:
      return 1 - x / width;
  }
}
