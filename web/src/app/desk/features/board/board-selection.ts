import { computed, signal } from '@angular/core';

/** Which pages of the board are chosen, and which one keys go on from; by their ids. */
export class BoardSelection {
  private readonly chosen = signal<ReadonlySet<string>>(new Set());
  /** Where a range begins. */
  private anchor: string | undefined;
  readonly focus = signal<string | undefined>(undefined);

  /** `listed` are the pages on the board, in order. What is not listed any more is not chosen. */
  constructor(private readonly listed: () => readonly { readonly id: string }[]) {}

  readonly ids = computed<ReadonlySet<string>>(() => {
    const chosen = this.chosen();
    const there = this.listed().filter(({ id }) => chosen.has(id));
    return there.length === chosen.size ? chosen : new Set(there.map(({ id }) => id));
  });

  /** A tap or click: just this one; with Ctrl it as well or not any more; with Shift all up to it. */
  tap(id: string, { adds, ranges }: { adds: boolean; ranges: boolean }): void {
    if (ranges) this.range(id, adds);
    else if (adds) this.toggle(id);
    else this.take([id]);
    this.focus.set(id);
  }

  toggle(id: string): void {
    const next = new Set(this.ids());
    if (!next.delete(id)) next.add(id);
    this.chosen.set(next);
    this.anchor = id;
  }

  take(ids: Iterable<string>): void {
    const list = [...ids];
    this.chosen.set(new Set(list));
    this.anchor = list[0];
    if (list[0] !== undefined) this.focus.set(list[0]);
  }

  takeAll(): void {
    this.take(this.listed().map(({ id }) => id));
  }

  clear(): void {
    this.chosen.set(new Set());
    this.anchor = undefined;
  }

  /** Moves the focus by so many tiles; with Shift the range goes along. */
  step(by: number, ranges: boolean): void {
    const list = this.listed();
    const at = list.findIndex(({ id }) => id === this.focus());
    const to = list[Math.min(list.length - 1, Math.max(0, at < 0 ? 0 : at + by))];
    if (!to) return;
    this.anchor ??= this.focus() ?? to.id;
    if (ranges) this.range(to.id, false);
    this.focus.set(to.id);
  }

  private range(id: string, adds: boolean): void {
    const list = this.listed();
    const to = list.findIndex((page) => page.id === id);
    const from = list.findIndex((page) => page.id === this.anchor);
    if (from < 0) {
      this.take([id]);
      return;
    }
    const between = list.slice(Math.min(from, to), Math.max(from, to) + 1).map((page) => page.id);
    this.chosen.set(new Set([...(adds ? this.ids() : []), ...between]));
  }
}
