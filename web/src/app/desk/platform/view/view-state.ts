import { Injectable, computed, inject, signal } from '@angular/core';
import type { Point } from '@stylet/core/geometry';
import type { Page } from '@stylet/core/api';
import type { Destination } from '@stylet/core/pdf';
import { Store } from '@ngrx/store';
import { documentFeature } from '../document/document.reducer';
import {
  GAP,
  PIXELS_PER_POINT,
  arrangements,
  clampZoom,
  fittingZoom,
  insetOf,
  layOut,
  needsRoom,
  pageLookedAt,
  rowsTogether,
  type Arrangement,
  type Part,
  type Placed,
} from '../paper/layout';
import { ZoomAnchor } from './zoom-anchor';
import { endsOf, shareDown, viewpointOf, type Viewpoint } from './viewpoint';
import { Visited, type PlaceOnPage } from './visited';
import { accountStorage } from '../../../storage/account';

/** Where this browser keeps how pages are laid out. */
const KEY = 'stylet.arrangement';

/** Room around what is brought into view, in pixels. */
const AROUND = 44;

/** What is made to fit the view. */
export type Fit = 'width' | 'height' | 'page';

/** What of a document shows on the desk: zoom, scroll position, and the way back. */
@Injectable()
export class ViewState {
  private readonly store = inject(Store);
  private readonly inDocument = this.store.selectSignal(documentFeature.selectPages);
  /** How far the view is turned, in degrees clockwise; the document is not. */
  readonly turn = signal<Page['rotation']>(0);
  /** The pages as they are shown. */
  readonly pages = computed(() => turned(this.inDocument(), this.turn()));

  readonly zoom = signal(1);
  /** The zoom at which pages are drawn: follows `zoom` once it rests. */
  readonly restingZoom = signal(1);
  /** Top left of the view in the column of pages, and its size; CSS pixels. */
  readonly left = signal(0);
  readonly top = signal(0);
  readonly size = signal({ width: 0, height: 0 });
  private readonly arranging = signal<Arrangement>(keptArrangement());
  readonly arrangement = this.arranging.asReadonly();
  private readonly room = computed(() =>
    needsRoom(this.zoom(), this.arrangement()) ? this.size().width : 0,
  );
  readonly layout = computed(() =>
    layOut(this.pages(), this.zoom(), this.arrangement(), this.room()),
  );
  /** How far the pages stand in from the left of what scrolls. */
  readonly inset = computed(() => insetOf(this.layout(), this.size().width));
  /** The page one looks at. */
  readonly currentPage = computed(() => pageLookedAt(this.layout(), this.part()));
  /** The part of what is laid out that shows. */
  readonly part = computed<Part>(() => this.partAt(this.left(), this.top()));

  /** Whether zoom and place have been chosen: before that nothing is worth drawing. */
  readonly isPlaced = signal(false);

  /** Whether the page board lies over the pages. */
  readonly isBoardOpen = signal(false);
  /** The page that alone is shown, by its place from 0. */
  readonly alone = signal<number | undefined>(undefined);

  /** While the space bar is held, dragging moves the pages. */
  readonly isSpaceHeld = signal(false);

  private readonly indexes = computed(
    () => new Map(this.inDocument().map(({ id }, index) => [id, index])),
  );
  private readonly visited = new Visited(this.indexes, () => {
    const { pageIndex, share } = this.place();
    const page = this.pages()[pageIndex];
    return page && { pageId: page.id, share };
  });
  readonly canGoBack = this.visited.canGoBack;
  readonly canGoForward = this.visited.canGoForward;

  /** What the pages were fitted to, until one zooms: they are fitted again when the view becomes narrower or wider. */
  readonly fitted = signal<Fit | undefined>(undefined);
  private outer = { width: 0, height: 0 };
  /** Where one was before pages were so small that they fill the width, while nothing has been done since. */
  private overviewFrom: { place: Viewpoint; about: Point; left: number; top: number } | undefined;

  private readonly anchor = new ZoomAnchor();
  /** The pages one of which the anchor is on. */
  private anchored: readonly Page[] | undefined;
  private settling: ReturnType<typeof setTimeout> | undefined;
  /** Set by the strip of pages: moves the real scroll position. */
  scrollTo: (left: number, top: number) => void = () => undefined;
  /** Set by the strip of pages: where a point of the window is among the pages as they are laid out. */
  fromWindow: (point: Point) => Point = (point) => point;

  /** The view is of another size: within its scroll bars, and with them. */
  resize(size: { width: number; height: number }, outer: { width: number; height: number }): void {
    const before = this.outer;
    const isOther = before.width !== outer.width || before.height !== outer.height;
    const [place, fit] = [this.place(), this.fitted()];
    this.outer = outer;
    this.size.set(size);
    // Scroll bars come and go with what is fitted.
    if (!isOther || before.width === 0 || !this.isPlaced() || !fit) return;
    if (this.pages().length === 0 || size.width === 0) return;
    this.fitAt(fit === 'page' ? { ...place, share: 0 } : place, fit, place.pageIndex);
  }

  /** Zooms so that what is under `about` (pixels in the view) stays there. */
  zoomTo(wanted: number, about = { x: this.size().width / 2, y: this.size().height / 2 }): void {
    const before = this.layout();
    const zoom = clampZoom(wanted);
    if (zoom === before.zoom || before.pages.length === 0) return;
    if (this.anchored !== this.pages()) this.anchor.drop();
    this.anchored = this.pages();
    this.anchor.hold(before, about, { left: this.left(), top: this.top(), inset: this.inset() });
    const wasIn = needsRoom(before.zoom, this.arrangement());
    const from = this.place();
    this.zoom.set(zoom);
    this.fitted.set(undefined);
    const isIn = needsRoom(zoom, this.arrangement());
    if (wasIn && !isIn && this.returns(about)) return;
    const to = this.anchor.scrollFor(this.layout(), about, this.inset());
    this.scrollTo(to.left, to.top);
    const [left, top] = [this.left(), this.top()];
    this.anchor.leave(left, top);
    if (isIn && (!wasIn || this.overviewFrom))
      this.overviewFrom = { place: this.overviewFrom?.place ?? from, about, left, top };
    this.settle();
  }

  /** Goes back to where one was before the overview, unless one has gone or points elsewhere. Whether it did. */
  private returns(about: Point): boolean {
    const before = this.overviewFrom;
    this.overviewFrom = undefined;
    if (!before || before.left !== this.left() || before.top !== this.top()) return false;
    if (Math.hypot(before.about.x - about.x, before.about.y - about.y) > 2) return false;
    this.show(before.place);
    this.settle();
    return true;
  }

  /** Zooms to just this and nothing after it: it is drawn sharp at once. */
  zoomJust(wanted: number): void {
    this.restingZoom.set(clampZoom(wanted));
    this.zoomTo(wanted);
    this.rest();
  }

  /** Pages are drawn anew once the zoom rests. */
  private settle(): void {
    clearTimeout(this.settling);
    this.settling = setTimeout(() => this.rest(), 140);
  }

  private rest(): void {
    clearTimeout(this.settling);
    this.restingZoom.set(this.zoom());
  }

  /** Fits the width, the height, or the page in view; stays at the page in view. */
  fit(kind: Fit): void {
    if (this.pages().length === 0) return;
    const current = this.currentPage();
    this.fitAt(kind === 'width' ? this.place() : { pageIndex: current, share: 0 }, kind, current);
  }

  private fitAt(place: Viewpoint, kind: Fit, current: number): void {
    this.fitted.set(kind);
    this.overviewFrom = undefined;
    this.zoom.set(fittingZoom(this.pages(), current, this.size(), kind, this.arrangement()));
    this.restingZoom.set(this.zoom());
    this.show(place);
  }

  /** Lays the pages out another way; stays at the page in view. */
  arrange(arrangement: Arrangement): void {
    const place = this.place();
    this.arranging.set(arrangement);
    accountStorage.setItem(KEY, arrangement);
    this.fitted.set(undefined);
    if (arrangement === 'fitting') this.show(place);
    else if (arrangement === 'across') this.fitAt({ ...place, share: 0 }, 'page', place.pageIndex);
    else if (rowsTogether(arrangement) > 1)
      this.fitAt({ ...place, share: 0 }, 'page', place.pageIndex);
    else this.fitAt(place, 'width', place.pageIndex);
  }

  /** Turns the view by a quarter, clockwise; stays at the page in view. */
  turnView(): void {
    const pageIndex = this.currentPage();
    this.turn.update((turn) => ((turn + 90) % 360) as Page['rotation']);
    if (this.pages().length > 0) this.fitAt({ pageIndex, share: 0 }, 'width', pageIndex);
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
    const across = this.layout().isAcross ? this.leftFor(page) : this.left();
    const isBeside = pageIndex !== this.currentPage() && across !== this.left();
    if (down !== this.top() || isBeside) this.scrollTo(isBeside ? across : this.left(), down);
  }

  /** Goes to a place on a page, if the document still has that. */
  jumpToPage(pageId: string, at: Partial<Point>): void {
    const pageIndex = this.pages().findIndex(({ id }) => id === pageId);
    if (pageIndex >= 0) this.jump({ pageIndex, ...at });
  }

  /** Has Back lead to where one is now. */
  remember(): void {
    this.visited.remember();
  }

  /** Goes to a place without remembering the one left: while something is dragged. */
  goTo(place: Viewpoint): void {
    this.show(place);
  }

  /** Goes to a place and remembers the one left. */
  jump(to: Destination): void {
    const page = this.pages()[to.pageIndex];
    if (!page) return;
    this.remember();
    const down = shareDown(to, page);
    this.show({ pageIndex: to.pageIndex, share: down });
  }

  back(): void {
    this.retrace(this.visited.back());
  }

  forward(): void {
    this.retrace(this.visited.forward());
  }

  private retrace(to: PlaceOnPage | undefined): void {
    if (to) this.show({ pageIndex: this.indexes().get(to.pageId)!, share: to.share });
  }

  /** The part that shows once one has scrolled. */
  partAt(left: number, top: number): Part {
    return Object.assign({ left: left - this.inset(), top }, this.size());
  }

  place(): Viewpoint {
    return viewpointOf(this.layout(), this.part());
  }

  /** The first and the last place that shows; across, shares count from the left. */
  ends(): readonly [Viewpoint, Viewpoint] {
    return endsOf(this.layout(), this.part());
  }

  /** The middle of all pages, or the page where that is out of sight. */
  private leftFor(page: Placed): number {
    const { width } = this.size();
    const middle = Math.max(0, this.layout().width - width) / 2;
    const from = this.inset() + page.left;
    // Across, the page is brought into the middle, or its left edge to that of the view.
    if (this.layout().isAcross) return from - Math.max(GAP, (width - page.width) / 2);
    return from >= middle && from + page.width <= middle + width ? middle : Math.max(0, from - GAP);
  }

  private show({ pageIndex, share }: Viewpoint): void {
    this.anchor.drop();
    const layout = this.layout();
    const page = layout.pages[pageIndex];
    // Pages may have gone since the place was noted.
    if (!page) return;
    const down = page.top + share * page.height - GAP;
    const beside = (this.size().height - page.height) / 2;
    const isInMiddle = layout.isAcross && beside >= 0;
    this.scrollTo(this.leftFor(page), isInMiddle ? page.top - beside : down);
  }
}

function turned(pages: readonly Page[], by: Page['rotation']): readonly Page[] {
  if (by === 0) return pages;
  return pages.map((page) =>
    Object.assign({}, page, { rotation: ((page.rotation + by) % 360) as Page['rotation'] }),
  );
}

function keptArrangement(): Arrangement {
  const kept = accountStorage.getItem(KEY);
  return arrangements.find((arrangement) => arrangement === kept) ?? 'one';
}
