import { Injectable, computed, inject, signal } from '@angular/core';
import { copyPages, movePages, removePages, rotatePages, type Effect } from '@stylet/core/document';
import { Store } from '@ngrx/store';
import { documentFeature } from '../document/document.reducer';
import { Editing } from '../document/editing';

/** Pages that were cut or copied. */
interface Held {
  readonly ids: ReadonlySet<string>;
  readonly isCut: boolean;
}

/** What is done with whole pages; each is one step of undo. */
@Injectable()
export class PageActions {
  private readonly store = inject(Store);
  private readonly editing = inject(Editing);
  private readonly state = this.store.selectSignal(documentFeature.selectState);
  private readonly pages = this.store.selectSignal(documentFeature.selectPages);
  private readonly held = signal<Held | undefined>(undefined);
  readonly canPaste = computed(() => this.pages().some(({ id }) => this.held()?.ids.has(id)));
  /** Pages that were cut, until they are pasted. */
  readonly cut = computed<ReadonlySet<string>>(() => {
    const held = this.held();
    return held?.isCut ? held.ids : new Set();
  });

  turn(ids: ReadonlySet<string>, by: 90 | 270): void {
    this.change(rotatePages(this.pages(), ids, by));
  }

  /** Moves pages before the one at a place. */
  move(ids: ReadonlySet<string>, index: number): void {
    this.change(movePages(this.pages(), ids, index));
  }

  /** Moves pages past the next one before or after them. */
  shift(ids: ReadonlySet<string>, by: -1 | 1): void {
    const at = this.pages().flatMap(({ id }, i) => (ids.has(id) ? [i] : []));
    if (at.length === 0) return;
    const index = by < 0 ? at[0] - 1 : at[at.length - 1] + 2;
    if (index >= 0 && index <= this.pages().length) this.move(ids, index);
  }

  /** Whether something would be left without them. */
  canRemove(ids: ReadonlySet<string>): boolean {
    return ids.size > 0 && ids.size < this.pages().length;
  }

  remove(ids: ReadonlySet<string>): void {
    this.change(removePages(this.pages(), ids));
  }

  /** Copies pages to right after the last of them; their ids. */
  duplicate(ids: ReadonlySet<string>): readonly string[] {
    return this.copyTo(ids, this.pages().findLastIndex(({ id }) => ids.has(id)) + 1);
  }

  hold(ids: ReadonlySet<string>, isCut: boolean): void {
    if (ids.size > 0) this.held.set({ ids, isCut });
  }

  /** Puts what was cut or copied before the page at a place; the ids of what is there then. */
  paste(index: number): readonly string[] {
    const held = this.held();
    if (!held || !this.canPaste()) return [];
    if (!held.isCut) return this.copyTo(held.ids, index);
    this.move(held.ids, index);
    this.held.set({ ids: held.ids, isCut: false });
    return [...held.ids];
  }

  private copyTo(ids: ReadonlySet<string>, index: number): readonly string[] {
    const { effects, copies } = copyPages(this.state(), ids, index, new Date().toISOString());
    this.change(effects);
    return copies;
  }

  private change(effects: readonly Effect[]): void {
    if (effects.length > 0) this.editing.change(effects);
  }
}
