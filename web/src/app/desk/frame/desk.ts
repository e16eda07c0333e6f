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
import type { PageLink } from '../../../workers/protocol';
import { Api } from '../../api/api';
import { CloseUp } from '../features/close-up/close-up';
import { CloseUpStrip } from '../features/close-up/close-up-strip';
import { CoverageChart } from '../features/coverage/coverage-chart';
import { documentActions, documentFeature } from '../platform/document/document.reducer';
import { Editing } from '../platform/document/editing';
import { DocumentMap } from '../features/map/document-map';
import { LookingUp } from '../features/dictionary/looking-up';
import { LookupCard } from '../features/dictionary/lookup-card';
import { PageMenu } from './page-menu/page-menu';
import { PageMenuCard } from './page-menu/page-menu-card';
import { LinkCard } from '../features/links/link-card';
import { LinkCardState } from '../features/links/link-card-state';
import { LinkMaking } from '../features/links/link-making';
import { FindBar } from '../features/find/find-bar';
import { Finding } from '../features/find/finding';
import { Gaps } from '../features/gap/gaps';
import { Guides } from '../features/guides/guides';
import { FingerDrawing } from '../platform/input/finger-drawing';
import { HandsCard } from '../features/hands/hands-card';
import { HandsCardState } from '../features/hands/hands-card-state';
import { PenPresence } from '../platform/input/pen-presence';
import { RestingArea } from '../features/hands/resting-area';
import { TouchTaps } from '../features/hands/touch-taps';
import { IndexPanel } from './index/index-panel';
import { LandmarkActions } from '../platform/landmarks/landmark-actions';
import { LandmarksFrom } from '../features/landmarks/landmarks-from';
import { OutlineProposal } from '../features/landmarks/outline-proposal';
import { kitFeature } from '../platform/kit/kit.reducer';
import { Rail } from './kit/rail';
import { AnnotationSelection } from '../platform/selection/annotation-selection';
import { Clipboard } from '../platform/selection/clipboard';
import { SelectionActions } from '../platform/selection/selection-actions';
import { PageActions } from '../features/board/page-actions';
import { PageBoard } from '../features/board/page-board';
import { AnnotationPainting } from '../platform/paper/annotation-painting';
import { PaneFrame } from '../../panes/pane-frame';
import { ScrollTogether } from '../../panes/scroll-together';
import { OpenDocuments } from '../platform/document/open-documents';
import { LiveViews } from '../platform/paper/live-views';
import { PageGestures } from './pages/page-gestures';
import { PageSource } from '../platform/paper/page-source';
import { Cropping } from '../features/crop/cropping';
import { Incoming } from '../platform/selection/incoming';
import { PictureBitmaps } from '../platform/pictures/picture-bitmaps';
import { PictureOrigin } from '../features/pictures/picture-origin';
import { BesideHost } from '../features/companion/beside-host';
import { Companion } from '../features/companion/companion';
import { CompanionWindow } from '../features/companion/companion-window';
import { PageSupplies } from '../features/board/page-supplies';
import { Presenting } from '../features/presenting/presenting';
import { PresentingBar } from '../features/presenting/presenting-bar';
import { Trail } from '../features/presenting/trail';
import { PuttingIn } from '../platform/pictures/putting-in';
import { PagesOnScreen } from '../platform/view/pages-on-screen';
import { PageStrip } from './pages/page-strip';
import { Places } from '../platform/view/places';
import { ReadAloud } from '../features/read-aloud/read-aloud';
import { ReadAloudBar } from '../features/read-aloud/read-aloud-bar';
import { ReadingLine } from '../features/reading-line/reading-line';
import { ReadingLog } from '../platform/view/reading-log';
import { ViewState } from '../platform/view/view-state';
import { Marking } from '../platform/selection/marking';
import { TextSelection } from '../platform/selection/text-selection';
import { Meanings } from '../features/shorthand/meanings';
import { ShorthandNotice } from '../features/shorthand/shorthand-notice';
import { PageDrawing } from '../features/snip/page-drawing';
import { Snipping } from '../features/snip/snipping';
import { ShorthandOffer } from '../features/shorthand/shorthand-offer';
import { Shortcuts } from './keys/shortcuts';
import { StatusBar } from './bars/status-bar';
import { syncFeature } from '../platform/sync/sync.reducer';
import { TopBar } from './bars/top-bar';

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
    const { AddressDialog } = await import('./pages/address-dialog');
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
