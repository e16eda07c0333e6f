import { DestroyRef, Injectable, computed, effect, inject, signal, untracked } from '@angular/core';
import { HUES, type Presence as Told } from '@stylet/core/api';
import { Store } from '@ngrx/store';
import { Author } from '../../../settings/author';
import { accountStorage } from '../../../storage/account';
import { documentFeature } from '../../platform/document/document.reducer';
import { Pointing } from '../../platform/input/pointing';
import { Live } from '../../platform/live/live';
import { PagesOnScreen } from '../../platform/view/pages-on-screen';
import { ViewState } from '../../platform/view/view-state';
import { heardOf, later, type Other, type Others } from './others';
import { OwnPen } from './own-pen';

const KEY = 'stylet.unseen';
/** How often the pen is told of while it moves, and where one is while one scrolls, in ms. */
const PEN_EVERY = 60;
const PLACE_EVERY = 120;
/** That one is still here is said so often, and first when the document is sure to be open, in ms. */
const STILL_HERE = 10_000;
const FIRST = 400;

/** Which other windows have the document open, where they are, and what their pens do; and what they see of this one. */
@Injectable()
export class Presence {
  private readonly live = inject(Live);
  private readonly view = inject(ViewState);
  private readonly author = inject(Author);
  private readonly pointing = inject(Pointing);
  private readonly documentId = inject(Store).selectSignal(documentFeature.selectId);
  private readonly known = signal<Others>(new Map());
  readonly others = computed<readonly Other[]>(() => [...this.known().values()]);
  private readonly hidden = signal(accountStorage.getItem(KEY) === 'true');
  /** Whether others do not see this window. */
  readonly isHidden = this.hidden.asReadonly();
  private readonly followedWindow = signal<string | undefined>(undefined);
  /** The window that is followed. */
  readonly followed = computed(() => this.known().get(this.followedWindow() ?? ''));
  private readonly pen = new OwnPen(inject(PagesOnScreen));
  private hue: number | undefined;
  private penTimer: ReturnType<typeof setTimeout> | undefined;

  constructor() {
    const heard = this.live.there.subscribe(({ documentId, window, presence }) => {
      if (documentId !== this.documentId()) return;
      this.known.update((others) => heardOf(others, window, presence, performance.now()));
      if (presence && window === this.followedWindow()) this.goAfter(presence);
    });
    const tidying = setInterval(
      () => this.known.update((others) => later(others, performance.now())),
      300,
    );
    const types = ['pointerdown', 'pointermove', 'pointerup', 'pointercancel'] as const;
    const see = (event: PointerEvent): void => this.see(event);
    for (const type of types) addEventListener(type, see, { capture: true, passive: true });
    inject(DestroyRef).onDestroy(() => {
      heard.unsubscribe();
      clearInterval(tidying);
      clearTimeout(this.penTimer);
      for (const type of types) removeEventListener(type, see, { capture: true });
    });
    // A new socket is told anew who is here.
    effect((onCleanup) => {
      if (!this.live.isConnected() || this.documentId() === undefined) {
        untracked(() => this.known.set(new Map()));
        return;
      }
      const first = setTimeout(() => this.tell(), FIRST);
      const still = setInterval(() => this.tell(), STILL_HERE);
      onCleanup(() => {
        clearTimeout(first);
        clearInterval(still);
      });
    });
    effect((onCleanup) => {
      this.view.top();
      this.view.left();
      this.view.zoom();
      this.view.alone();
      if (!this.view.isPlaced()) return;
      const timer = setTimeout(() => this.tell(), PLACE_EVERY);
      onCleanup(() => clearTimeout(timer));
    });
  }

  /** Goes where a window goes, until one goes anywhere oneself. */
  follow(window: string): void {
    this.followedWindow.set(window);
    const other = this.known().get(window);
    if (other) this.goAfter(other);
  }

  stopFollowing(): void {
    this.followedWindow.set(undefined);
  }

  /** Goes to where another window is. */
  goTo({ place }: Other): void {
    const pageIndex = this.view.pages().findIndex(({ id }) => id === place?.pageId);
    if (!place || pageIndex < 0) return;
    this.view.remember();
    this.view.goTo({ pageIndex, share: place.share });
  }

  hide(isHidden: boolean): void {
    accountStorage.setItem(KEY, String(isHidden));
    this.hidden.set(isHidden);
    const id = this.documentId();
    if (isHidden && id !== undefined) this.live.here(id, null);
    else this.tell();
  }

  private goAfter({ place }: Pick<Told, 'place'>): void {
    const pageIndex = this.view.pages().findIndex(({ id }) => id === place?.pageId);
    if (!place || pageIndex < 0) return;
    if (this.view.alone() !== undefined) {
      this.view.alone.set(pageIndex);
      this.view.goTo({ pageIndex, share: 0 });
    } else this.view.goTo({ pageIndex, share: place.share });
  }

  private see(event: PointerEvent): void {
    if (this.known().size === 0 || this.hidden()) return;
    this.pen.saw(event);
    this.penTimer ??= setTimeout(() => {
      this.penTimer = undefined;
      const pen = this.pen.next(this.pointing.isOn());
      if (pen) this.tell(pen);
      if (this.pen.wasLifted()) this.tell();
    }, PEN_EVERY);
  }

  private tell(pen: Told['pen'] = null): void {
    const id = this.documentId();
    if (id === undefined || this.hidden()) return;
    const { pageIndex, share } = this.view.place();
    const page = this.view.pages()[this.view.alone() ?? pageIndex];
    const place = page ? { pageId: page.id, share: Math.min(2, Math.max(-1, share)) } : null;
    this.hue ??= this.freeHue();
    this.live.here(id, { name: this.author.given(), hue: this.hue, place, pen });
  }

  /** A colour that no other window here has, if there is one. */
  private freeHue(): number {
    const taken = new Set(this.others().map(({ hue }) => hue));
    const free = Array.from({ length: HUES }, (_, hue) => hue).filter((hue) => !taken.has(hue));
    const choice = free.length > 0 ? free : [...taken];
    return choice[Math.floor(Math.random() * choice.length)];
  }
}
