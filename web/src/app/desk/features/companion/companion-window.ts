import {
  ChangeDetectionStrategy,
  Component,
  DestroyRef,
  ElementRef,
  computed,
  effect,
  inject,
  signal,
  viewChild,
} from '@angular/core';
import { MatButtonModule } from '@angular/material/button';
import { MatIconModule } from '@angular/material/icon';
import { MatTooltipModule } from '@angular/material/tooltip';
import { DomSanitizer } from '@angular/platform-browser';
import { newId } from '@stylet/core/document';
import { PaneFrame } from '../../../panes/pane-frame';
import { paneMessageSchema, type HostMessage } from '../../../panes/pane-messages';
import { addressOfPane } from '../../../storage/own-storage';
import { ViewState } from '../../platform/view/view-state';
import { Companion } from './companion';

/** A step by keys, in CSS pixels. */
const STEP = 20;

/** The notebook kept beside a document: a desk of its own, over the pages or docked beside them. */
@Component({
  selector: 'stylet-companion-window',
  imports: [MatButtonModule, MatIconModule, MatTooltipModule],
  templateUrl: './companion-window.html',
  styleUrl: './companion-window.scss',
  changeDetection: ChangeDetectionStrategy.OnPush,
  host: {
    role: 'region',
    'aria-label': 'Companion',
    '[class.docked]': 'place().isDocked',
    '[style.left.px]': 'place().isDocked ? null : place().x',
    '[style.top.px]': 'place().isDocked ? null : place().y',
    '[style.width.px]': 'place().width',
    '[style.height.px]': 'place().isDocked ? null : place().height',
  },
})
export class CompanionWindow {
  protected readonly companion = inject(Companion);
  /** It shows as long as there is one. */
  protected readonly document = computed(() => this.companion.shown()!);
  protected readonly place = this.companion.place;
  private readonly view = inject(ViewState);
  private readonly panes = inject(PaneFrame);
  private readonly sanitizer = inject(DomSanitizer);
  private readonly host = inject<ElementRef<HTMLElement>>(ElementRef).nativeElement;
  private readonly frame = viewChild.required<ElementRef<HTMLIFrameElement>>('frame');
  protected readonly isHeld = signal(false);
  private readonly id = newId();
  protected readonly address = computed(() =>
    // Of this origin, from an id that was checked.
    this.sanitizer.bypassSecurityTrustResourceUrl(addressOfPane(this.id, this.document().id)),
  );
  private readonly here = computed(() => this.view.pages()[this.view.currentPage()]?.id);

  constructor() {
    const heard = (event: MessageEvent<unknown>): void => this.heard(event);
    addEventListener('message', heard);
    inject(DestroyRef).onDestroy(() => removeEventListener('message', heard));
    effect(() => this.tell(this.here()));
  }

  protected press(event: PointerEvent): void {
    if (event.target instanceof Element && event.target.closest('button')) return;
    (event.currentTarget as Element).setPointerCapture(event.pointerId);
    this.isHeld.set(true);
  }

  protected drag({ movementX, movementY }: PointerEvent): void {
    if (this.isHeld() && !this.place().isDocked) this.moveBy(movementX, movementY);
  }

  protected stretch({ movementX, movementY }: PointerEvent): void {
    if (!this.isHeld()) return;
    // Docked, its left edge is what moves.
    if (this.place().isDocked) this.companion.resize(-movementX, 0);
    else this.companion.resize(movementX, movementY);
  }

  protected key(event: KeyboardEvent, resizes: boolean): void {
    const by = {
      ArrowLeft: [-STEP, 0],
      ArrowRight: [STEP, 0],
      ArrowUp: [0, -STEP],
      ArrowDown: [0, STEP],
    }[event.key];
    if (!by) return;
    event.preventDefault();
    event.stopPropagation();
    if (resizes) this.companion.resize(by[0], by[1]);
    else this.moveBy(by[0], by[1]);
  }

  private moveBy(dx: number, dy: number): void {
    const { clientWidth, clientHeight } = this.host.offsetParent!;
    this.companion.move(dx, dy, { width: clientWidth, height: clientHeight });
  }

  private heard({ origin, source, data }: MessageEvent<unknown>): void {
    const parsed = paneMessageSchema.safeParse(data);
    const frame = this.frame().nativeElement.contentWindow;
    if (origin !== location.origin || source !== frame || !parsed.success) return;
    const message = parsed.data;
    switch (message.stylet) {
      case 'shows':
        this.tell(this.here());
        return;
      case 'closed':
        this.companion.close();
        return;
      case 'goTo':
        this.view.jumpToPage(message.pageId, {});
        return;
      case 'beside':
        this.panes.openBeside(this.companion.documentId()!, message.id, message.flow);
        return;
      case 'focused':
      case 'flow':
        return;
    }
  }

  private tell(pageId: string | undefined): void {
    const documentId = this.companion.documentId();
    if (documentId === undefined || pageId === undefined) return;
    const message: HostMessage = { stylet: 'host', documentId, pageId };
    this.frame().nativeElement.contentWindow?.postMessage(message, location.origin);
  }
}
