import { signal } from '@angular/core';

/** Steps further apart than this (ms) are not one movement: the pages have stood. */
const TOGETHER = 100;

/** What draws pages, and need not while they pass. */
interface Drawing {
  pause(): void;
  resume(): void;
}

/** Tells from the steps of scrolling whether pages pass too fast to be read; nothing is drawn meanwhile. */
export class Passing {
  private readonly on = signal(false);
  readonly isOn = this.on.asReadonly();
  private last: { readonly at: number; readonly time: number } | undefined;
  private wasFast = false;
  private standing: ReturnType<typeof setTimeout> | undefined;

  /** `fast`: lengths of the view a second from which pages pass, because they are gone before they are drawn. */
  constructor(
    private readonly drawing: Drawing,
    private readonly fast: number,
  ) {}

  /** The place scrolled to and the length of the view in pixels, the time in ms. */
  step(at: number, length: number, time: number): void {
    const { last, wasFast } = this;
    this.last = { at, time };
    const took = last ? time - last.time : Infinity;
    this.wasFast = took < TOGETHER && Math.abs(at - last!.at) > (this.fast * length * took) / 1000;
    // A single step is a jump, however far it goes.
    if (!wasFast || !this.wasFast) {
      this.stand();
      return;
    }
    clearTimeout(this.standing);
    this.standing = setTimeout(() => {
      this.last = undefined;
      this.wasFast = false;
      this.stand();
    }, TOGETHER);
    if (this.on()) return;
    this.on.set(true);
    this.drawing.pause();
  }

  /** The pages are no more: nothing waits for them to stand. */
  stand(): void {
    clearTimeout(this.standing);
    if (!this.on()) return;
    this.on.set(false);
    this.drawing.resume();
  }
}
