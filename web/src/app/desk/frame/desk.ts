import {
  ChangeDetectionStrategy,
  Component,
  computed,
  effect,
  inject,
  input,
  signal,
  type OnDestroy,
  type OnInit,
} from '@angular/core';
import { takeUntilDestroyed } from '@angular/core/rxjs-interop';
import { MatButtonModule } from '@angular/material/button';
import { MatIconModule } from '@angular/material/icon';
import { MatSnackBar, MatSnackBarModule } from '@angular/material/snack-bar';
import { Router, RouterLink } from '@angular/router';
import type { Place } from '@stylet/core/document';
import { Store } from '@ngrx/store';
import { filter } from 'rxjs';
import { Api } from '../../api/api';
import { PaneFrame } from '../../panes/pane-frame';
import { documentActions, documentFeature } from '../platform/document/document.reducer';
import { OpenDocuments } from '../platform/document/open-documents';
import type { Arrival } from '../platform/feature/arrival';
import { Registered } from '../platform/feature/registered';
import { ShownPart } from '../platform/feature/shown-part';
import { PenPresence } from '../platform/input/pen-presence';
import { kitFeature } from '../platform/kit/kit.reducer';
import { afterPaint } from '../platform/paper/after-paint';
import { PageSource } from '../platform/paper/page-source';
import { PictureBitmaps } from '../platform/pictures/picture-bitmaps';
import { AnnotationSelection } from '../platform/selection/annotation-selection';
import { Clipboard } from '../platform/selection/clipboard';
import { Incoming } from '../platform/selection/incoming';
import { TextSelection } from '../platform/selection/text-selection';
import { syncFeature } from '../platform/sync/sync.reducer';
import { Places } from '../platform/view/places';
import { ReadingLog } from '../platform/view/reading-log';
import { ViewState } from '../platform/view/view-state';
import { StatusBar } from './bars/status-bar';
import { TopBar } from './bars/top-bar';
import { IndexPanel } from './index/index-panel';
import { Shortcuts } from './keys/shortcuts';
import { Rail } from './kit/rail';
import { PageMenuCard } from './page-menu/page-menu-card';
import { PageStrip } from './pages/page-strip';

/** Where an address leads within a document: to a page by its id, with points on it, or by its number from 0. */
export interface Address extends Partial<Arrival> {
  readonly x: number;
  readonly y: number;
  readonly at?: number;
}

/** The width from which the Index has a place of its own, and under which it lies over the pages, in CSS pixels. */
const ROOMY = 900;
const NARROW = 700;

/** When what was not needed at first is loaded at the latest, in ms after the first page: a server may go away. */
const SOON = 1000;

/** The screen on which an open document is worked on. */
@Component({
  selector: 'stylet-desk',
  imports: [
    IndexPanel,
    MatButtonModule,
    MatIconModule,
    MatSnackBarModule,
    PageMenuCard,
    PageStrip,
    Rail,
    RouterLink,
    ShownPart,
    StatusBar,
    TopBar,
  ],
  templateUrl: './desk.html',
  styleUrl: './desk.scss',
  changeDetection: ChangeDetectionStrategy.OnPush,
  host: {
    '(document:keydown)': 'shortcuts.down($event)',
    '(document:keyup)': 'shortcuts.up($event)',
    '(document:copy)': 'clipboard.copied($event)',
    '(document:cut)': 'clipboard.copied($event)',
    '(document:paste)': 'incoming.pasted($event)',
    '(document:dragover)': 'incoming.draggedOver($event)',
    '(document:drop)': 'incoming.dropped($event)',
    '(mousedown)': 'sideButton($event)',
    '[class.left-handed]': 'isLeftHanded()',
    '[class.presenting]': 'isAlone()',
    '[class.finding]': 'isIndexCovered()',
  },
})
export class Desk implements OnInit, OnDestroy {
  readonly id = input.required<string>();
  /** A place to show first. */
  readonly address = input.required<Address>();

  private readonly store = inject(Store);
  private readonly api = inject(Api);
  private readonly registered = inject(Registered);
  private readonly source = inject(PageSource);
  private readonly places = inject(Places);
  private readonly reading = inject(ReadingLog);
  private readonly selection = inject(TextSelection);
  private readonly chosen = inject(AnnotationSelection);
  private readonly view = inject(ViewState);
  private readonly router = inject(Router);
  private readonly panes = inject(PaneFrame);
  private readonly documents = inject(OpenDocuments);
  private readonly pictures = inject(PictureBitmaps);
  private readonly snackBar = inject(MatSnackBar);
  protected readonly incoming = inject(Incoming);
  protected readonly shortcuts = inject(Shortcuts);
  protected readonly clipboard = inject(Clipboard);
  private readonly gone = new AbortController();
  private readonly stopWatching = inject(PenPresence).watch();

  protected readonly status = this.store.selectSignal(documentFeature.selectStatus);
  /** Whether the document has been asked for: what needs none is made while one is waited for. */
  protected readonly isBegun = signal(false);
  protected readonly isReady = computed(() => this.status() === 'ready');
  protected readonly trouble = this.store.selectSignal(documentFeature.selectTrouble);
  private readonly title = this.store.selectSignal(documentFeature.selectTitle);
  protected readonly mode = this.store.selectSignal(kitFeature.selectMode);
  private readonly tool = this.store.selectSignal(kitFeature.selectTool);
  private readonly refusal = this.store.selectSignal(syncFeature.selectTrouble);
  protected readonly isLeftHanded = this.store.selectSignal(kitFeature.selectIsLeftHanded);
  protected readonly indexOpen = signal(innerWidth >= ROOMY);
  protected readonly isAlone = computed(() => this.view.alone() !== undefined);
  protected readonly hasDrawn = computed(
    () => this.source.hasDrawn() || this.source.trouble() !== undefined,
  );
  protected readonly isWriting = computed(() => this.mode() === 'write');

  private readonly overlays = this.registered.made('overlays', 'shows');
  private readonly shown = computed(() =>
    this.overlays.filter(({ shows }) => shows()).map(({ entry }) => entry),
  );
  protected readonly overPages = computed(() => this.shown().filter((part) => part.in === 'pages'));
  protected readonly overAll = computed(() => this.shown().filter((part) => part.in === 'window'));
  protected readonly beside = computed(() => this.shown().filter((part) => part.in === 'beside'));
  /** What is beside the pages lies where the Index does. */
  protected readonly isIndexCovered = computed(() => this.beside().length > 0);
  /** What the pen does next, where that is not what it shows. */
  protected readonly hint = computed(() => this.registered.toolOf(this.tool())?.hint?.());

  constructor() {
    this.registered.start();
    // Not an effect: the page one will look at is asked for before the interface follows.
    this.store
      .select(documentFeature.selectStatus)
      .pipe(
        filter((status) => status === 'ready'),
        takeUntilDestroyed(),
      )
      .subscribe(() => this.places.restore(this.id(), () => this.showAddressed()));
    effect(() => {
      // There the Index would lie over it.
      if (this.view.isBoardOpen() && innerWidth < NARROW) this.indexOpen.set(false);
    });
    effect(() => {
      if (this.isWriting()) this.selection.clear();
      else this.chosen.clear();
    });
    effect(() => {
      const trouble = this.refusal();
      if (trouble) this.tell(`Not saved: ${trouble.title}. ${trouble.advice}`);
    });
    effect(() => {
      const trouble = this.source.trouble();
      // Where there is no document, that is said.
      if (trouble && this.isReady())
        this.tell(`A page could not be shown: ${trouble}. It is tried again.`);
    });
    effect(() => {
      const trouble = this.pictures.trouble();
      if (trouble) this.tell(`A picture could not be shown: ${trouble}. It is tried again.`);
    });
    effect(() => {
      if (this.isReady()) this.panes.shows(this.id());
    });
    effect(() => {
      if (this.isReady()) void this.documents.announce(this.id(), this.title());
    });
    effect(() => {
      if (!this.hasDrawn()) return;
      const rest = (): void => {
        this.pictures.prepare();
        void this.registered.preload(this.gone.signal);
      };
      requestIdleCallback(rest, { timeout: SOON });
    });
    this.documents.taken = (pictures) => this.incoming.taken(pictures);
  }

  /** Asks before the first of the interface is made. */
  ngOnInit(): void {
    this.load();
    afterPaint(() => this.isBegun.set(true));
  }

  ngOnDestroy(): void {
    this.stopWatching();
    this.gone.abort();
    void this.reading.tell();
    this.store.dispatch(documentActions.closed());
  }

  /** Goes where the address says, once: a reload stays where one is. */
  private showAddressed(): void {
    const { page, at, x, y, find } = this.address();
    if (page) {
      this.registered.arrived({ page, y, ...(find ? { find } : {}) });
      this.view.jumpToPage(page, { x, y });
    } else if (at !== undefined) this.view.jump({ pageIndex: at });
    else return;
    void this.router.navigate([], { queryParams: {}, replaceUrl: true });
  }

  protected load(): void {
    this.store.dispatch(documentActions.opened({ id: this.id() }));
    void this.source.open(this.api.fileUrl(this.id()));
  }

  protected jump({ pageId, x, y }: Place): void {
    this.view.jumpToPage(pageId, {
      ...(x === undefined ? {} : { x }),
      ...(y === undefined ? {} : { y }),
    });
    this.view.isBoardOpen.set(false);
    if (innerWidth < NARROW) this.indexOpen.set(false);
  }

  /** The back and forward buttons on the side of a mouse. */
  protected sideButton(event: MouseEvent): void {
    if (event.button !== 3 && event.button !== 4) return;
    event.preventDefault();
    if (event.button === 3) this.view.back();
    else this.view.forward();
  }

  private tell(message: string): void {
    this.snackBar.open(message, 'Close', { duration: 12_000 });
  }
}
