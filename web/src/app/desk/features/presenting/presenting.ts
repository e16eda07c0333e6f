import { DestroyRef, Injectable, computed, effect, inject, signal } from '@angular/core';
import { PIXELS_PER_POINT } from '../../platform/paper/layout';
import { shownSize } from '../../platform/paper/page-geometry';
import { ViewState } from '../../platform/view/view-state';
import type { Viewpoint } from '../../platform/view/viewpoint';
import { Pointing } from '../../platform/input/pointing';
import { isTyping } from '../../platform/input/typing';

/** Keys that go on and back by a page: also those of what people hold in their hand to do that. */
const STEPS: Partial<Record<string, number>> = {
  ArrowRight: 1,
  ArrowDown: 1,
  PageDown: 1,
  ' ': 1,
  ArrowLeft: -1,
  ArrowUp: -1,
  PageUp: -1,
  Home: -Infinity,
  End: Infinity,
};

/** Showing a document to others: one page at a time and nothing else but the pen and the trail. */
@Injectable()
export class Presenting {
  private readonly view = inject(ViewState);
  private readonly page = this.view.alone;
  readonly isOn = computed(() => this.page() !== undefined);
  /** The page that is shown, counted from 0. */
  readonly index = computed(() => this.page() ?? 0);
  /** Whether what moves over the page leaves a trail instead of ink. */
  readonly hasTrail = signal(false);
  private readonly pointing = inject(Pointing);
  private before: { readonly zoom: number; readonly place: Viewpoint } | undefined;

  constructor() {
    effect(() => this.pointing.isOn.set(this.isOn() && this.hasTrail()));
    // Before anything else on the desk: here these keys go from page to page.
    const down = (event: KeyboardEvent): void => this.keyDown(event);
    const changed = (): void => {
      if (!document.fullscreenElement) this.end();
    };
    addEventListener('keydown', down, { capture: true });
    document.addEventListener('fullscreenchange', changed);
    inject(DestroyRef).onDestroy(() => {
      removeEventListener('keydown', down, { capture: true });
      document.removeEventListener('fullscreenchange', changed);
      this.end();
      this.pointing.isOn.set(false);
    });
  }

  /** Begins at the page in view. */
  start(): void {
    if (this.isOn() || this.view.pages().length === 0) return;
    this.before = { zoom: this.view.zoom(), place: this.view.place() };
    this.page.set(this.view.currentPage());
    // A browser may refuse: then the window is all there is.
    void document.documentElement.requestFullscreen().catch(() => undefined);
  }

  end(): void {
    const { before } = this;
    if (!this.isOn() || !before) return;
    const pageIndex = this.index();
    this.page.set(undefined);
    this.hasTrail.set(false);
    if (document.fullscreenElement) void document.exitFullscreen();
    this.view.zoomJust(before.zoom);
    this.view.goTo(pageIndex === before.place.pageIndex ? before.place : { pageIndex, share: 0 });
  }

  step(by: number): void {
    const last = this.view.pages().length - 1;
    this.page.set(Math.min(last, Math.max(0, this.index() + by)));
    this.fit();
  }

  /** Has the page fill the view as it is now. */
  fit(): void {
    const page = this.page();
    const shown = page === undefined ? undefined : this.view.pages()[page];
    if (page === undefined || !shown) return;
    const { width, height } = this.view.size();
    const size = shownSize(shown);
    const scale = Math.min(width / size.width, height / size.height);
    this.view.zoomJust(scale / PIXELS_PER_POINT);
    this.view.goTo({ pageIndex: page, share: 0 });
  }

  private keyDown(event: KeyboardEvent): void {
    if (!this.isOn() || isTyping(event.target) || event.ctrlKey || event.metaKey || event.altKey)
      return;
    const step = STEPS[event.key];
    if (step !== undefined) this.step(step);
    else if (event.key === 'Escape') this.end();
    else if (event.key.toLowerCase() === 'q') this.hasTrail.update((has) => !has);
    else return;
    event.preventDefault();
    event.stopImmediatePropagation();
  }
}
