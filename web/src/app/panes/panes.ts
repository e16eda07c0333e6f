import {
  ChangeDetectionStrategy,
  Component,
  DestroyRef,
  ElementRef,
  computed,
  inject,
  signal,
} from '@angular/core';
import { DomSanitizer, type SafeResourceUrl } from '@angular/platform-browser';
import { MatSnackBar } from '@angular/material/snack-bar';
import { Router } from '@angular/router';
import { addressOfPane } from '../storage/own-storage';
import { MOST_PANES, PaneLayout } from './pane-layout';
import { paneMessageSchema, type PaneMessage } from './pane-messages';

/** A step of an edge by keys, as a share of all. */
const STEP = 0.02;

/** A window that is divided: each pane is a desk of its own, in a frame. */
@Component({
  selector: 'stylet-panes',
  templateUrl: './panes.html',
  styleUrl: './panes.scss',
  changeDetection: ChangeDetectionStrategy.OnPush,
  host: {
    '[class]': 'layout().flow',
    '[style.grid-template-columns]': "layout().flow === 'beside' ? tracks() : null",
    '[style.grid-template-rows]': "layout().flow === 'above' ? tracks() : null",
  },
})
export class Panes {
  private readonly kept = inject(PaneLayout);
  private readonly router = inject(Router);
  private readonly snackBar = inject(MatSnackBar);
  private readonly sanitizer = inject(DomSanitizer);
  private readonly host = inject<ElementRef<HTMLElement>>(ElementRef).nativeElement;
  protected readonly layout = this.kept.layout;
  protected readonly active = signal<string | undefined>(undefined);
  protected readonly isDragging = signal(false);
  /** Between panes there are edges, 6 pixels wide. */
  protected readonly tracks = computed(() =>
    this.layout()
      .shares.map((share) => `minmax(0, ${share}fr)`)
      .join(' 6px '),
  );
  /** Where frames begin; they go on by themselves. */
  private readonly addresses = new Map<string, SafeResourceUrl>();

  constructor() {
    const heard = (event: MessageEvent<unknown>): void => this.heard(event);
    addEventListener('message', heard);
    inject(DestroyRef).onDestroy(() => removeEventListener('message', heard));
    if (this.layout().panes.length < 2) this.leave();
  }

  protected readonly percent = (share: number): number => Math.round(100 * share);

  protected addressOf({ id, documentId }: { id: string; documentId: string }): SafeResourceUrl {
    let address = this.addresses.get(id);
    if (!address) {
      // Of this origin, from an id that was checked.
      address = this.sanitizer.bypassSecurityTrustResourceUrl(addressOfPane(id, documentId));
      this.addresses.set(id, address);
    }
    return address;
  }

  protected press(event: PointerEvent): void {
    (event.target as Element).setPointerCapture(event.pointerId);
    this.isDragging.set(true);
  }

  protected drag(event: PointerEvent, index: number): void {
    if (!this.isDragging()) return;
    const { width, height } = this.host.getBoundingClientRect();
    const by = this.layout().flow === 'beside' ? event.movementX / width : event.movementY / height;
    this.kept.moveEdge(index, by);
  }

  protected key(event: KeyboardEvent, index: number): void {
    const by = { ArrowLeft: -STEP, ArrowUp: -STEP, ArrowRight: STEP, ArrowDown: STEP }[event.key];
    if (by === undefined) return;
    event.preventDefault();
    this.kept.moveEdge(index, by);
  }

  private heard({ origin, source, data }: MessageEvent<unknown>): void {
    const parsed = paneMessageSchema.safeParse(data);
    if (origin !== location.origin || !parsed.success) return;
    const pane = this.layout().panes.find(({ id }) => this.frameOf(id)?.contentWindow === source);
    if (pane) this.act(pane.id, parsed.data);
  }

  private act(id: string, message: PaneMessage): void {
    switch (message.stylet) {
      case 'focused':
        this.active.set(id);
        return;
      case 'shows':
        this.kept.shows(id, message.id);
        return;
      case 'flow':
        this.kept.lie(message.flow);
        return;
      case 'beside':
        if (!this.kept.add(message.id, id, message.flow))
          this.snackBar.open(`There are ${MOST_PANES} panes already. Close one first.`, 'Close', {
            duration: 6000,
          });
        return;
      case 'goTo':
        // Only companions lead back to the desk they lie on.
        return;
      case 'closed':
        if (this.kept.close(id).length < 2) this.leave();
    }
  }

  /** What is left has the window to itself. */
  private leave(): void {
    const [last] = this.layout().panes;
    void this.router.navigate(last ? ['/documents', last.documentId] : ['/'], {
      replaceUrl: true,
    });
  }

  private frameOf(id: string): HTMLIFrameElement | null {
    return this.host.querySelector(`iframe[data-pane="${id}"]`);
  }
}
