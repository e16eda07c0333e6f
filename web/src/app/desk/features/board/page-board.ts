import {
  ChangeDetectionStrategy,
  Component,
  DestroyRef,
  Injector,
  afterNextRender,
  computed,
  effect,
  inject,
  signal,
  viewChild,
  type ElementRef,
} from '@angular/core';
import { MatButtonModule } from '@angular/material/button';
import { MatSliderModule } from '@angular/material/slider';
import { MatDialog } from '@angular/material/dialog';
import { MatIconModule } from '@angular/material/icon';
import { MatTooltipModule } from '@angular/material/tooltip';
import { noAnnotations, type PageAnnotations } from '@stylet/core/document';
import { Store } from '@ngrx/store';
import { firstValueFrom } from 'rxjs';
import { UnreadPages } from '../../platform/document/unread-pages';
import { documentFeature } from '../../platform/document/document.reducer';
import { Registered } from '../../platform/feature/registered';
import { shownSize } from '../../platform/paper/page-geometry';
import { PageSource } from '../../platform/paper/page-source';
import { Passing } from '../../platform/view/passing';
import { ViewState } from '../../platform/view/view-state';
import { BoardDrag, type BoardDragging } from './board-drag';
import { boardFilters, filterWords, filtered, sortPages, type BoardFilter } from './board-filter';
import { BoardKeys } from './board-keys';
import {
  FEWEST_ACROSS,
  MOST_ACROSS,
  boardLayout,
  gapAt,
  gapLine,
  mostTiles,
  tileAt,
  tilesBetween,
  tilesIn,
} from './board-layout';
import { BoardPictures } from './board-pictures';
import { BoardSelection } from './board-selection';
import { BoardTile } from './board-tile';
import type { PutPagesWanted } from './put-pages-dialog';
import { PageActions } from './page-actions';
import { accountStorage } from '../../../storage/account';

/** Where this browser keeps how many pages stand beside each other. */
const KEY = 'stylet.board';
/** Width of a page beside others that is good to look at first, in CSS pixels. */
const GOOD = 170;
/** Views a second, each of dozens of pages, at which they are gone before they are drawn. */
const FAST = 8;

/** The grid of pages on which pages are moved, copied, rotated, removed. */
@Component({
  selector: 'stylet-page-board',
  imports: [MatSliderModule, BoardTile, MatButtonModule, MatIconModule, MatTooltipModule],
  providers: [BoardPictures],
  templateUrl: './page-board.html',
  styleUrl: './page-board.scss',
  changeDetection: ChangeDetectionStrategy.OnPush,
  host: { '(document:keydown)': 'keys.down($event)' },
})
export class PageBoard {
  private readonly store = inject(Store);
  protected readonly view = inject(ViewState);
  private readonly registered = inject(Registered);
  private readonly unread = inject(UnreadPages);
  protected readonly actions = inject(PageActions);
  private readonly dialog = inject(MatDialog);
  private readonly injector = inject(Injector);
  private readonly documentId = this.store.selectSignal(documentFeature.selectId);
  private readonly annotations = this.store.selectSignal(documentFeature.selectAnnotations);
  private readonly landmarks = this.store.selectSignal(documentFeature.selectLandmarks);
  private readonly scroller = viewChild.required<ElementRef<HTMLElement>>('scroller');

  protected readonly filter = signal<BoardFilter>('all');
  private readonly sorts = computed(() => {
    const pages = this.view.pages();
    const found = this.registered.marks().flatMap(({ pageIndex }) => pages[pageIndex]?.id ?? []);
    return sortPages(this.annotations(), this.landmarks(), new Set(found));
  });
  protected readonly pages = computed(() =>
    filtered(this.view.pages(), this.filter(), this.sorts()),
  );
  protected readonly chips = computed(() =>
    boardFilters.map((filter) => ({
      filter,
      words: filterWords[filter],
      count: filter === 'all' ? this.view.pages().length : this.sorts()[filter].size,
    })),
  );
  protected readonly selection = new BoardSelection(this.pages);
  protected readonly count = computed(() => this.selection.ids().size);

  private readonly size = signal({ width: 0, height: 0 });
  private readonly top = signal(0);
  private readonly passing = new Passing(inject(PageSource).client, FAST);
  private readonly wantedAcross = signal<number | undefined>(
    Number(accountStorage.getItem(KEY)) || undefined,
  );
  protected readonly across = computed(() => {
    const wanted = this.wantedAcross() ?? Math.floor(this.size().width / GOOD);
    return Math.min(MOST_ACROSS, Math.max(FEWEST_ACROSS, wanted));
  });
  protected readonly fewest = FEWEST_ACROSS;
  protected readonly most = MOST_ACROSS;
  protected readonly layout = computed(() => {
    const aspects = this.view.pages().map((page) => {
      const { width, height } = shownSize(page);
      return height / width;
    });
    return boardLayout(this.size().width, this.across(), this.pages().length, usual(aspects));
  });
  /** Rows kept ready above and below: none while those in view are still to come. */
  private readonly ready = signal(0);
  private resting = 0;
  /** The tiles in view, and those kept ready. What goes out of view makes room for what comes in. */
  protected readonly tiles = computed(() => {
    const [layout, { height }, sorts] = [this.layout(), this.size(), this.sorts()];
    if (height === 0) return [];
    const ready = this.ready() * layout.cell.height;
    const top = this.top();
    const { first, last } = tilesBetween(layout, top - ready, top + height + ready);
    const pages = this.pages();
    const slots = mostTiles(layout, height + 2 * layout.cell.height);
    return Array.from({ length: Math.max(0, last - first + 1) }, (_, i) => {
      const page = pages[first + i];
      return {
        page,
        index: first + i,
        slot: (first + i) % slots,
        ...tileAt(layout, first + i),
        isAnnotated: sorts.annotated.has(page.id),
        isBookmarked: sorts.bookmarked.has(page.id),
        hasKeywords: sorts.keywords.has(page.id),
      };
    });
  });

  private drag: BoardDrag | undefined;
  protected readonly dragging = signal<BoardDragging | undefined>(undefined);
  protected readonly line = computed(() => {
    const dragging = this.dragging();
    if (dragging?.kind !== 'pages') return undefined;
    const layout = this.layout();
    return gapLine(layout, gapAt(layout, dragging.at.x, dragging.at.y), dragging.at.x);
  });
  protected readonly band = computed(() => {
    const dragging = this.dragging();
    if (dragging?.kind !== 'band') return undefined;
    const { from, at } = dragging;
    return {
      left: Math.min(from.x, at.x),
      top: Math.min(from.y, at.y),
      width: Math.abs(at.x - from.x),
      height: Math.abs(at.y - from.y),
    };
  });
  protected readonly heldAt = computed(() => {
    const dragging = this.dragging();
    return dragging?.kind === 'pages' ? dragging.screen : undefined;
  });
  protected readonly words = computed(() => {
    const count = this.count();
    if (count === 0) return 'Choose pages to work on';
    return count === 1 ? '1 page chosen' : `${count} pages chosen`;
  });
  /** Chosen before a band was drawn. */
  private before: ReadonlySet<string> = new Set();

  protected readonly keys = new BoardKeys(this.selection, this.actions, {
    across: () => this.across(),
    open: (id) => this.open(id),
    close: () => this.close(),
    duplicate: () => void this.duplicate(),
    paste: () => void this.paste(),
    putIn: () => void this.putIn(),
    shown: (id) => this.reveal(id),
  });

  constructor() {
    this.unread.wantAllWhile(() => true);
    const { miniatures } = inject(PageSource);
    effect(() => {
      if (this.passing.isOn()) cancelIdleCallback(this.resting);
      else this.readySoon();
    });
    effect(() => {
      const [tiles, pages] = [this.tiles(), this.pages()];
      if (tiles.length > 0) miniatures.prepare(pages, tiles[0].index, tiles.at(-1)!.index);
    });
    const resized = new ResizeObserver(() => this.measure());
    afterNextRender(() => {
      const element = this.scroller().nativeElement;
      element.focus({ preventScroll: true });
      // The board shows first, then what is on it: both at once take longer than a frame.
      setTimeout(() => {
        this.measure();
        this.begin();
        resized.observe(element);
      });
      this.drag = new BoardDrag(element, {
        tapped: (tile, event) => this.tapped(tile, event),
        taken: (tile) => {
          if (!this.selection.ids().has(tile)) this.selection.take([tile]);
        },
        moved: (dragging) => this.moved(dragging),
        dropped: (dragging) => this.dropped(dragging),
      });
    });
    inject(DestroyRef).onDestroy(() => {
      resized.disconnect();
      cancelIdleCallback(this.resting);
      this.passing.stand();
      this.drag?.disconnect();
    });
  }

  /** Begins at the page that was in view. */
  private begin(): void {
    const index = this.view.currentPage();
    const here = this.view.pages()[index];
    if (!here) return;
    this.selection.focus.set(here.id);
    const { y } = tileAt(this.layout(), index);
    this.top.set(Math.max(0, y + this.layout().cell.height - this.size().height));
    // The grid has its height with the next frame.
    requestAnimationFrame(() => this.reveal(here.id));
    this.readySoon();
  }

  protected annotationsOf(pageId: string): PageAnnotations {
    return this.annotations()[pageId] ?? noAnnotations;
  }

  protected readonly urgencyOf = (index: number): (() => number) => {
    return () => {
      const { height } = this.size();
      const middle = this.top() + height / 2;
      const { y } = tileAt(this.layout(), index);
      return Math.abs(y + this.layout().cell.height / 2 - middle) / height;
    };
  };

  protected scrolled(): void {
    const { scrollTop } = this.scroller().nativeElement;
    if (Math.abs(scrollTop - this.top()) > this.layout().cell.height) this.ready.set(0);
    this.top.set(scrollTop);
    this.passing.step(scrollTop, this.size().height, performance.now());
    if (!this.passing.isOn()) this.readySoon();
  }

  private readySoon(): void {
    cancelIdleCallback(this.resting);
    this.resting = requestIdleCallback(() => this.ready.set(1));
  }

  protected setAcross(across: number): void {
    this.wantedAcross.set(across);
    accountStorage.setItem(KEY, String(across));
  }

  /** Goes to the page and leaves the board. */
  protected open(id: string): void {
    this.view.isBoardOpen.set(false);
    this.view.jumpToPage(id, {});
  }

  protected close(): void {
    if (this.dragging()) {
      this.drag?.cancel();
      this.dragging.set(undefined);
      this.selection.take(this.before);
    } else if (this.count() > 0) this.selection.clear();
    else this.view.isBoardOpen.set(false);
  }

  protected async duplicate(): Promise<void> {
    this.selection.take(await this.actions.duplicate(this.selection.ids()));
  }

  /** After the last of what is chosen, or at the end. */
  protected async paste(): Promise<void> {
    const last = this.view.pages().findLastIndex(({ id }) => this.selection.ids().has(id));
    const index = last < 0 ? this.view.pages().length : last + 1;
    this.selection.take(await this.actions.paste(index));
  }

  protected async putIn(): Promise<void> {
    const { PutPagesDialog } = await import('./put-pages-dialog');
    const data: PutPagesWanted = {
      documentId: this.documentId()!,
      pages: this.view.pages(),
      chosen: this.selection.ids(),
      page: this.view.currentPage(),
    };
    const { injector } = this;
    const opened = this.dialog.open<unknown, PutPagesWanted, readonly string[]>(PutPagesDialog, {
      data,
      injector,
      width: '640px',
    });
    const there = await firstValueFrom(opened.afterClosed());
    if (!there || there.length === 0) return;
    this.filter.set('all');
    this.selection.take(there);
    // The grid has room for them with the next frame.
    requestAnimationFrame(() => this.reveal(there[0]));
  }

  private tapped(tile: string | undefined, event: PointerEvent): void {
    if (!tile) {
      this.selection.clear();
      return;
    }
    // Fingers have no keys: each tap is one more.
    const adds = event.ctrlKey || event.metaKey || event.pointerType === 'touch';
    this.selection.tap(tile, { adds, ranges: event.shiftKey });
  }

  private moved(dragging: BoardDragging): void {
    if (!this.dragging()) this.before = this.selection.ids();
    this.dragging.set(dragging);
    if (dragging.kind !== 'band') return;
    const touched = tilesIn(this.layout(), dragging.from, dragging.at).map(
      (i) => this.pages()[i].id,
    );
    this.selection.take([...(dragging.adds ? this.before : []), ...touched]);
  }

  private dropped(dragging: BoardDragging): void {
    this.dragging.set(undefined);
    if (dragging.kind !== 'pages') return;
    const gap = gapAt(this.layout(), dragging.at.x, dragging.at.y);
    this.actions.move(this.selection.ids(), this.placeOf(gap));
  }

  /** The place in the document of a gap between the pages that are listed. */
  private placeOf(gap: number): number {
    const all = this.view.pages();
    const next = this.pages()[gap];
    if (next) return all.findIndex(({ id }) => id === next.id);
    const last = this.pages().at(-1);
    return last ? all.findIndex(({ id }) => id === last.id) + 1 : all.length;
  }

  private reveal(id: string): void {
    const index = this.pages().findIndex((page) => page.id === id);
    if (index < 0) return;
    const { y } = tileAt(this.layout(), index);
    const { cell } = this.layout();
    const element = this.scroller().nativeElement;
    const { scrollTop, clientHeight } = element;
    if (y < scrollTop) element.scrollTop = y - 8;
    else if (y + cell.height > scrollTop + clientHeight)
      element.scrollTop = y + cell.height - clientHeight + 8;
    this.scrolled();
    requestAnimationFrame(() =>
      element.querySelector<HTMLElement>(`[data-tile="${id}"]`)?.focus({ preventScroll: true }),
    );
  }

  private measure(): void {
    const { clientWidth, clientHeight } = this.scroller().nativeElement;
    this.size.set({ width: clientWidth, height: clientHeight });
  }
}

/** What nine of ten do not exceed: a single page that is turned does not change the whole board. */
function usual(aspects: readonly number[]): number {
  const sorted = [...aspects].sort((a, b) => a - b);
  return sorted[Math.ceil(0.9 * sorted.length) - 1] ?? 1;
}
