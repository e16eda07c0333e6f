import { CdkVirtualScrollViewport, ScrollingModule } from '@angular/cdk/scrolling';
import {
  ChangeDetectionStrategy,
  Component,
  ElementRef,
  computed,
  effect,
  inject,
  output,
  signal,
  untracked,
  viewChild,
} from '@angular/core';
import { MatButtonModule } from '@angular/material/button';
import { MatIconModule } from '@angular/material/icon';
import { MatMenuModule } from '@angular/material/menu';
import { MatTooltipModule } from '@angular/material/tooltip';
import { coloredFields } from '@stylet/core/document';
import type { OutlineNode, Place } from '@stylet/core/document';
import { Store } from '@ngrx/store';
import { UnreadPages } from '../../platform/document/unread-pages';
import { documentFeature } from '../../platform/document/document.reducer';
import { Registered } from '../../platform/feature/registered';
import { rested } from '../../platform/document/rested';
import { inkColors } from '../../platform/kit/palettes';
import { AnnotationSelection } from '../../platform/selection/annotation-selection';
import { SelectionActions } from '../../platform/selection/selection-actions';
import { Grip, type Drag } from '../../platform/input/grip';
import { ViewState } from '../../platform/view/view-state';
import { IndexFilter, kindNames } from './index-filter';
import { IndexFilterMenu } from './index-filter-menu';
import { facetsOf, isUnrestricted, restrictedTo } from './index-restriction';
import { IndexList, ROW } from './index-list';
import { allRowsOf, countsOf, indexKinds, rowsOf, type IndexRow } from './index-rows';
import { LandmarkActions, type OutlinePlace } from '../../platform/landmarks/landmark-actions';
import { outlinePlaceAt } from './outline-place';
import { threadWords } from './thread-words';
import { WritingPicture } from '../../platform/paper/writing-picture';

/** What an entry stands in for each level above it. */
const STEP = 16;
/** Handwriting is listed once the pen has rested, in ms. */
const RESTS = 400;

/** All one finds one's way by, in one list in page order. */
@Component({
  selector: 'stylet-index-panel',
  imports: [
    Grip,
    IndexFilterMenu,
    MatButtonModule,
    MatIconModule,
    MatMenuModule,
    MatTooltipModule,
    ScrollingModule,
    WritingPicture,
  ],
  templateUrl: './index-panel.html',
  styleUrl: './index-panel.scss',
  changeDetection: ChangeDetectionStrategy.OnPush,
  host: {
    role: 'complementary',
    'aria-label': 'Index',
    '(pointerenter)': 'isUsed.set(true)',
    '(focusin)': 'isUsed.set(true)',
  },
})
export class IndexPanel {
  readonly chosen = output<Place>();
  private readonly store = inject(Store);
  private readonly view = inject(ViewState);
  private readonly unread = inject(UnreadPages);
  private readonly selection = inject(AnnotationSelection);
  private readonly selected = inject(SelectionActions);
  protected readonly actions = inject(LandmarkActions);
  private readonly registered = inject(Registered);
  protected readonly entries = this.registered.menu('index');
  /** What else can be done with what a row stands for. */
  protected readonly further = this.registered
    .made('selectionActions', 'action')
    .filter(({ entry }) => entry.inIndex !== undefined);
  protected readonly filter = inject(IndexFilter);
  private readonly viewport = viewChild(CdkVirtualScrollViewport);
  private readonly landmarks = this.store.selectSignal(documentFeature.selectLandmarks);
  private readonly annotations = this.store.selectSignal(documentFeature.selectAnnotations);
  private readonly rested = rested(this.annotations, RESTS);
  /** Entries opened or closed by hand. */
  private readonly toggled = signal<ReadonlyMap<string, boolean>>(new Map());
  protected readonly row = ROW;
  protected readonly threadWords = threadWords;
  protected readonly colors = inkColors;
  protected readonly renaming = signal<string | undefined>(undefined);
  protected readonly dragging = signal<
    { row: IndexRow; top: number; left: number; place: OutlinePlace } | undefined
  >(undefined);

  private readonly contents = computed(() => ({
    pages: this.view.pages(),
    tree: this.actions.tree(),
    landmarks: this.landmarks(),
    annotations: this.rested(),
  }));
  private readonly every = computed(() => allRowsOf(this.contents()));
  protected readonly facets = computed(() => facetsOf(this.every()));
  protected readonly rows = computed(() => {
    const restriction = this.filter.restriction();
    const isFree = isUnrestricted(restriction);
    // What is asked for shows, folded or not.
    const rows = rowsOf(this.contents(), this.filter.kinds(), (n) => !isFree || this.isOpen(n));
    return isFree ? rows : restrictedTo(restriction, rows, this.contents());
  });
  protected readonly chips = computed(() => {
    const counts = countsOf(this.every());
    const restriction = this.filter.restriction();
    const listed = isUnrestricted(restriction)
      ? counts
      : countsOf(restrictedTo(restriction, this.every(), this.contents()));
    return indexKinds
      .filter((kind) => counts.has(kind))
      .map((kind) => ({ kind, count: listed.get(kind) ?? 0, words: kindNames[kind] }));
  });
  protected readonly isEmpty = computed(() => this.chips().length === 0);
  /** The row of the page in view. */
  protected readonly current = computed(() => {
    const page = this.view.currentPage();
    const first = this.rows().findIndex(({ pageIndex }) => pageIndex === page);
    if (first >= 0) return first;
    return this.rows().findLastIndex(({ pageIndex }) => pageIndex >= 0 && pageIndex < page);
  });

  /** The row that has or had the focus. */
  protected readonly focused = signal<string | undefined>(undefined);
  /** The one row that Tab leads to; arrows go on from there (WAI-ARIA 1.2, tree; APG, tree view). */
  protected readonly inTabOrder = computed(() => {
    const focused = this.rows().findIndex(({ key }) => key === this.focused());
    return Math.max(0, focused >= 0 ? focused : this.current());
  });

  protected readonly list = new IndexList(
    inject<ElementRef<HTMLElement>>(ElementRef).nativeElement,
    this.viewport,
    this.rows,
  );

  /** Whoever looks something up wants to find all of it. */
  protected readonly isUsed = signal(false);
  protected readonly reads = computed(() => this.isUsed() && this.unread.hasAny());

  constructor() {
    this.unread.wantAllWhile(this.isUsed);
    // The list follows the page in view.
    effect(() => {
      const [at, viewport] = [this.current(), this.viewport()];
      if (at >= 0 && viewport) untracked(() => this.list.reveal(at));
    });
  }

  protected isOpen({ entry }: OutlineNode): boolean {
    return this.toggled().get(entry.id) ?? entry.open;
  }

  protected toggle(row: IndexRow): void {
    this.toggled.update((map) => new Map(map).set(row.key, !row.isOpen));
  }

  protected go(row: IndexRow): void {
    if (!row.place) return;
    this.chosen.emit(row.place);
    // What is written is selected where it is, to be worked on.
    this.take(row);
    if (row.annotations) this.registered.goneTo(row.annotations);
  }

  /** Selects what a row stands for; whether that is anything on a page. */
  private take({ place, annotations }: IndexRow): boolean {
    if (!place || !annotations) return false;
    this.selection.take(
      place.pageId,
      annotations.map(({ id }) => id),
    );
    return true;
  }

  protected nameOf({ kind, words, label, thread }: IndexRow): string {
    const said = threadWords(thread);
    return `${kindNames[kind]}: ${words || 'drawn'}${said && `, ${said}`}, page ${label}`;
  }

  protected depthOf({ depth }: IndexRow): number {
    return depth * STEP;
  }

  protected beginRenaming({ key }: IndexRow): void {
    this.renaming.set(key);
    setTimeout(() => this.list.showName(key));
  }

  protected rename(row: IndexRow, words: string): void {
    if (row.landmark && this.renaming() === row.key) this.actions.rename(row.landmark, words);
    this.renaming.set(undefined);
  }

  protected remove(row: IndexRow): void {
    if (row.landmark) this.actions.remove(row.landmark);
    if (this.take(row)) this.selected.remove();
  }

  protected act(row: IndexRow, run: () => void): void {
    if (!row.place) return;
    this.chosen.emit(row.place);
    if (this.take(row)) run();
  }

  protected recolor(row: IndexRow, color: string): void {
    if (row.landmark?.kind === 'bookmark') this.actions.recolor(row.landmark, color);
    if (!this.take(row)) return;
    this.selected.recolor(color);
    this.selection.clear();
  }

  protected canBeColored({ kind, annotations }: IndexRow): boolean {
    return (
      kind === 'bookmark' ||
      (annotations?.some((a) => coloredFields(a, '#000000') !== undefined) ?? false)
    );
  }

  /** Keys on a row: F2 renames, Del removes, Alt with arrows moves entries. */
  protected key(event: KeyboardEvent, row: IndexRow): void {
    const ways = { ArrowUp: 'up', ArrowDown: 'down', ArrowLeft: 'out', ArrowRight: 'in' } as const;
    const act = this.keyAction(event, row, ways[event.key as keyof typeof ways]);
    if (!act) return;
    event.preventDefault();
    event.stopPropagation();
    act();
  }

  private keyAction(
    event: KeyboardEvent,
    row: IndexRow,
    way: 'up' | 'down' | 'in' | 'out' | undefined,
  ): (() => void) | undefined {
    if (event.key === 'Home') return () => this.list.focus(0);
    if (event.key === 'End') return () => this.list.focus(this.rows().length - 1);
    if (event.key === 'F2' && row.landmark) return () => this.beginRenaming(row);
    if (/^(Delete|Backspace)$/.test(event.key)) return () => this.remove(row);
    if (!way) return undefined;
    if (event.altKey && row.kind === 'outline')
      return () => {
        this.actions.step(row.key, way);
        this.list.focusLater(row.key);
      };
    if (way === 'up' || way === 'down')
      return () => this.list.focusBeside(row, way === 'up' ? -1 : 1);
    const folds = row.node && row.node.children.length > 0;
    return folds && row.isOpen === (way === 'out') ? () => this.toggle(row) : undefined;
  }

  protected async addEntry(): Promise<void> {
    const entry = await this.actions.addPage();
    if (!entry) return;
    this.filter.show('outline');
    this.renaming.set(entry.id);
    setTimeout(() => this.list.showName(entry.id));
  }

  /** Shows where an entry would go that is dragged: between two others, as deep as it is held. */
  protected drag(row: IndexRow, { event }: Drag): void {
    const gap = this.list.gapAt(event);
    if (!gap) return;
    const wanted = Math.max(0, Math.floor((event.clientX - gap.left - 40) / STEP));
    const found = outlinePlaceAt(this.rows(), this.actions.tree(), gap.index, wanted, row.key);
    if (!found) return;
    const left = 28 + found.depth * STEP;
    this.dragging.set({ row, top: gap.top, left, place: found.place });
  }

  protected drop(event: PointerEvent): void {
    const dragging = this.dragging();
    this.dragging.set(undefined);
    if (dragging && event.type !== 'pointercancel')
      this.actions.move(dragging.row.key, dragging.place);
  }

  /** The menu of a row where it is asked for, by key or by the right button. */
  protected openMenu(event: Event): void {
    event.preventDefault();
    (event.target as Element).closest('.row')?.querySelector<HTMLElement>('.more')?.click();
  }

  protected readonly keyOf = (_: number, { key }: IndexRow): string => key;
}
