import {
  ChangeDetectionStrategy,
  Component,
  computed,
  effect,
  inject,
  input,
  booleanAttribute,
  numberAttribute,
  signal,
  type OnDestroy,
} from '@angular/core';
import { MatDialog, MatDialogModule } from '@angular/material/dialog';
import { MatSnackBar, MatSnackBarModule } from '@angular/material/snack-bar';
import { MatButtonModule } from '@angular/material/button';
import { MatIconModule } from '@angular/material/icon';
import { Router, RouterLink } from '@angular/router';
import type { Effect, Place } from '@stylet/core/document';
import { Store } from '@ngrx/store';
import type { PageLink } from '../../workers/protocol';
import { Api } from '../api/api';
import { CloseUp } from './close-up/close-up';
import { CloseUpStrip } from './close-up/close-up-strip';
import { CoverageChart } from './coverage/coverage-chart';
import { documentActions, documentFeature } from './document/document.reducer';
import { Editing } from './document/editing';
import { DocumentMap } from './map/document-map';
import { LookingUp } from './dictionary/looking-up';
import { LookupCard } from './dictionary/lookup-card';
import { PageMenu } from './page-menu/page-menu';
import { PageMenuCard } from './page-menu/page-menu-card';
import { LinkCard } from './links/link-card';
import { LinkCardState } from './links/link-card-state';
import { LinkMaking } from './links/link-making';
import { FindBar } from './find/find-bar';
import { Finding } from './find/finding';
import { Gaps } from './gap/gaps';
import { Guides } from './guides/guides';
import { FingerDrawing } from './hands/finger-drawing';
import { HandsCard } from './hands/hands-card';
import { HandsCardState } from './hands/hands-card-state';
import { PenPresence } from './hands/pen-presence';
import { RestingArea } from './hands/resting-area';
import { TouchTaps } from './hands/touch-taps';
import { IndexPanel } from './index/index-panel';
import { LandmarkActions } from './index/landmark-actions';
import { LandmarksFrom } from './index/landmarks-from';
import { OutlineProposal } from './index/outline-proposal';
import { kitFeature } from './kit/kit.reducer';
import { Rail } from './kit/rail';
import { AnnotationSelection } from './lasso/annotation-selection';
import { Clipboard } from './lasso/clipboard';
import { SelectionActions } from './lasso/selection-actions';
import { PageActions } from './board/page-actions';
import { PageBoard } from './board/page-board';
import { AnnotationPainting } from './snip/annotation-painting';
import { PaneFrame } from '../panes/pane-frame';
import { ScrollTogether } from '../panes/scroll-together';
import { OpenDocuments } from './open-documents';
import { LiveViews } from './pages/live-views';
import { PageGestures } from './pages/page-gestures';
import { PageSource } from './pages/page-source';
import { Cropping } from './pictures/crop/cropping';
import { Incoming } from './pictures/incoming';
import { PictureBitmaps } from './pictures/picture-bitmaps';
import { PictureOrigin } from './pictures/picture-origin';
import { BesideHost } from './companion/beside-host';
import { Companion } from './companion/companion';
import { CompanionWindow } from './companion/companion-window';
import { PageSupplies } from './insert/page-supplies';
import { Presenting } from './presenting/presenting';
import { PresentingBar } from './presenting/presenting-bar';
import { Trail } from './presenting/trail';
import { PuttingIn } from './pictures/putting-in';
import { PagesOnScreen } from './pages/pages-on-screen';
import { PageStrip } from './pages/page-strip';
import { Places } from './pages/places';
import { ReadAloud } from './read-aloud/read-aloud';
import { ReadAloudBar } from './read-aloud/read-aloud-bar';
import { ReadingLine } from './reading-line/reading-line';
import { ReadingLog } from './pages/reading-log';
import { ViewState } from './pages/view-state';
import { Marking } from './selection/marking';
import { TextSelection } from './selection/text-selection';
import { Meanings } from './shorthand/meanings';
import { ShorthandNotice } from './shorthand/shorthand-notice';
import { PageDrawing } from './snip/page-drawing';
import { Snipping } from './snip/snipping';
import { ShorthandOffer } from './shorthand/shorthand-offer';
import { Shortcuts } from './shortcuts';
import { StatusBar } from './status-bar';
import { syncFeature } from './sync/sync.reducer';
import { TopBar } from './top-bar';

/** The screen on which an open document is worked on. */
@Component({
  selector: 'stylet-desk',
  imports: [
    CloseUpStrip,
    CompanionWindow,
    DocumentMap,
    FindBar,
    HandsCard,
    IndexPanel,
    LinkCard,
    LookupCard,
    PageMenuCard,
    MatButtonModule,
    MatDialogModule,
    MatIconModule,
    MatSnackBarModule,
    PageBoard,
    PageStrip,
    PresentingBar,
    ReadAloudBar,
    Trail,
    Rail,
    RestingArea,
    RouterLink,
    StatusBar,
    TopBar,
  ],
  providers: [
    AnnotationPainting,
    AnnotationSelection,
    BesideHost,
    Clipboard,
    CloseUp,
    Companion,
    CoverageChart,
    Cropping,
    Finding,
    FingerDrawing,
    Gaps,
    Guides,
    HandsCardState,
    Incoming,
    LandmarkActions,
    LandmarksFrom,
    LinkCardState,
    PageMenu,
    LinkMaking,
    LiveViews,
    LookingUp,
    Meanings,
    OpenDocuments,
    OutlineProposal,
    PageActions,
    PageSupplies,
    PageDrawing,
    PageGestures,
    PageSource,
    PagesOnScreen,
    PenPresence,
    PictureOrigin,
    Places,
    Presenting,
    PuttingIn,
    ReadAloud,
    ReadingLine,
    ReadingLog,
    ScrollTogether,
    SelectionActions,
    ShorthandNotice,
    ShorthandOffer,
    Shortcuts,
    Snipping,
    TextSelection,
    Marking,
    TouchTaps,
    ViewState,
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
    '[class.presenting]': 'presenting.isOn()',
    '[class.finding]': 'finding.isOpen()',
  },
})
export class Desk implements OnDestroy {
  readonly id = input.required<string>();
  /** A place to show first, from the address: a page's id and points on it. */
  readonly page = input<string>();
  /** Or a page by its number, counted from 0. */
  readonly at = input<string>();
  readonly x = input(0, { transform: numberAttribute });
  readonly y = input(0, { transform: numberAttribute });
  /** What was found there. */
  readonly find = input<string>();
  readonly keepsCase = input(false, { transform: booleanAttribute });
  readonly wholeWords = input(false, { transform: booleanAttribute });

  private readonly store = inject(Store);
  private readonly api = inject(Api);
  private readonly editing = inject(Editing);
  private readonly source = inject(PageSource);
  private readonly places = inject(Places);
  private readonly reading = inject(ReadingLog);
  private readonly selection = inject(TextSelection);
  private readonly view = inject(ViewState);
  private readonly router = inject(Router);
  private readonly panes = inject(PaneFrame);
  private readonly documents = inject(OpenDocuments);
  protected readonly incoming = inject(Incoming);
  private readonly pictures = inject(PictureBitmaps);
  private readonly dialog = inject(MatDialog);
  private readonly snackBar = inject(MatSnackBar);
  protected readonly shortcuts = inject(Shortcuts);
  protected readonly presenting = inject(Presenting);
  protected readonly companion = inject(Companion);
  protected readonly closeUp = inject(CloseUp);
  protected readonly readAloud = inject(ReadAloud);
  protected readonly handsCard = inject(HandsCardState);
  protected readonly clipboard = inject(Clipboard);
  private readonly chosen = inject(AnnotationSelection);
  private readonly stopWatching = inject(PenPresence).watch();

  protected readonly status = this.store.selectSignal(documentFeature.selectStatus);
  protected readonly trouble = this.store.selectSignal(documentFeature.selectTrouble);
  private readonly title = this.store.selectSignal(documentFeature.selectTitle);
  protected readonly mode = this.store.selectSignal(kitFeature.selectMode);
  private readonly tool = this.store.selectSignal(kitFeature.selectTool);
  protected readonly finding = inject(Finding);
  private readonly puttingIn = inject(PuttingIn);
  protected readonly indexOpen = signal(innerWidth >= 900);
  /** Whether the page board lies over the pages. */
  protected readonly boardOpen = this.view.isBoardOpen;
  private readonly refusal = this.store.selectSignal(syncFeature.selectTrouble);
  protected readonly isLeftHanded = this.store.selectSignal(kitFeature.selectIsLeftHanded);
  protected readonly hasDrawn = computed(
    () => this.source.hasDrawn() || this.source.trouble() !== undefined,
  );
  private readonly hands = this.store.selectSignal(kitFeature.selectHands);
  protected readonly restingArea = computed(() => this.hands()?.restingArea);
  protected readonly isWriting = computed(() => this.mode() === 'write');

  /** What the pen does next, where that is not what it shows. */
  protected readonly hint = computed(() => {
    if (this.tool() !== 'picture' || this.puttingIn.inHand().length === 0) return undefined;
    return 'Tap where the picture is to go';
  });

  constructor() {
    effect(() => {
      const id = this.id();
      this.store.dispatch(documentActions.opened({ id }));
      void this.source.open(this.api.fileUrl(id));
    });
    effect(() => {
      if (this.status() === 'ready') this.places.restore(this.id(), () => this.showAddressed());
    });
    effect(() => {
      // There the Index would lie over it.
      if (this.boardOpen() && innerWidth < 700) this.indexOpen.set(false);
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
      if (trouble) this.tell(`A page could not be shown: ${trouble}. Reload to try again.`);
    });
    effect(() => {
      const trouble = this.pictures.trouble();
      if (trouble) this.tell(`A picture could not be shown: ${trouble}. It is tried again.`);
    });
    effect(() => {
      if (this.status() === 'ready') this.panes.shows(this.id());
    });
    effect(() => {
      if (this.status() === 'ready') void this.documents.announce(this.id(), this.title());
    });
    effect(() => {
      if (this.hasDrawn()) requestIdleCallback(() => this.pictures.prepare());
    });
    this.documents.taken = (pictures) => this.incoming.taken(pictures);
  }

  ngOnDestroy(): void {
    this.stopWatching();
    void this.reading.tell();
    this.store.dispatch(documentActions.closed());
  }

  /** Goes where the address says, once: a reload stays where one is. */
  private showAddressed(): void {
    const [page, at] = [this.page(), this.at()];
    const typed = this.find();
    if (page && typed) {
      const [keepsCase, wholeWords] = [this.keepsCase(), this.wholeWords()];
      this.finding.landOn({ typed, keepsCase, wholeWords }, page, this.y());
    }
    if (page) this.view.jumpToPage(page, { x: this.x(), y: this.y() });
    else if (at !== undefined) this.view.jump({ pageIndex: Number(at) });
    else return;
    void this.router.navigate([], { queryParams: {}, replaceUrl: true });
  }

  protected load(): void {
    this.store.dispatch(documentActions.opened({ id: this.id() }));
    void this.source.open(this.api.fileUrl(this.id()));
  }

  protected change(effects: Effect[]): void {
    this.editing.change(effects);
  }

  protected undo(): void {
    this.editing.undo();
  }

  protected jump({ pageId, x, y }: Place): void {
    this.view.jumpToPage(pageId, {
      ...(x === undefined ? {} : { x }),
      ...(y === undefined ? {} : { y }),
    });
    this.boardOpen.set(false);
    if (innerWidth < 700) this.indexOpen.set(false);
  }

  protected async follow({ target }: PageLink): Promise<void> {
    if (target.kind === 'page') {
      const { page, x, y } = target;
      this.view.jump({
        pageIndex: page,
        ...(x === undefined ? {} : { x }),
        ...(y === undefined ? {} : { y }),
      });
      return;
    }
    if (target.kind === 'document') {
      await this.router.navigate(['/documents', target.id], { queryParams: { at: target.page } });
      return;
    }
    const { AddressDialog } = await import('./address-dialog');
    this.dialog.open(AddressDialog, { data: target.url });
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
