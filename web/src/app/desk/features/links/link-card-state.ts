import { Injectable, effect, inject, signal, untracked } from '@angular/core';
import type { Page } from '@stylet/core/api';
import type { PageLink } from '../../../../workers/protocol';
import { ViewState } from '../../platform/view/view-state';

/** How long a pointer rests on a link before it shows where that leads, and may be off it, in ms. */
const RESTS = 350;
const MAY_LEAVE = 220;

/** A link whose card shows: its page, and where it is in the window. `isHeld`: it was asked for. */
export interface ShownLink {
  readonly link: PageLink;
  readonly page: Page;
  readonly box: DOMRect;
  readonly isHeld: boolean;
}

/** Which link shows where it leads: the one under a resting pointer, or one that was pressed long. */
@Injectable()
export class LinkCardState {
  private readonly view = inject(ViewState);
  readonly shown = signal<ShownLink | undefined>(undefined);
  private timer: ReturnType<typeof setTimeout> | undefined;

  constructor() {
    // It hangs on a place of the window, which the page leaves when it is scrolled.
    effect(() => {
      this.view.top();
      this.view.left();
      this.view.zoom();
      untracked(() => this.hide());
    });
  }

  /** A pointer came to a link, or the focus. */
  rest(link: PageLink, page: Page, element: Element): void {
    if (this.shown()?.isHeld) return;
    clearTimeout(this.timer);
    this.timer = setTimeout(() => this.set(link, page, element, false), RESTS);
  }

  /** The pointer left the link, or the card; it may be on its way to the other. */
  leave(): void {
    if (this.shown()?.isHeld) return;
    clearTimeout(this.timer);
    this.timer = setTimeout(() => this.shown.set(undefined), MAY_LEAVE);
  }

  /** The pointer came to the card. */
  stay(): void {
    clearTimeout(this.timer);
  }

  /** A link was pressed long, or its menu was asked for: the card stays until something else is done. */
  hold(link: PageLink, page: Page, element: Element): void {
    clearTimeout(this.timer);
    this.set(link, page, element, true);
  }

  hide(): void {
    clearTimeout(this.timer);
    this.shown.set(undefined);
  }

  private set(link: PageLink, page: Page, element: Element, isHeld: boolean): void {
    if (!element.isConnected) return;
    this.shown.set({ link, page, box: element.getBoundingClientRect(), isHeld });
  }
}
