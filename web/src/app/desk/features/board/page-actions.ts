import { Injectable, computed, inject } from '@angular/core';
import { MatSnackBar } from '@angular/material/snack-bar';
import {
  applyAll,
  copyPages,
  invert,
  movePages,
  pagesInOrder,
  removePages,
  rotatePages,
  takePages,
  type Effect,
  type PageSupply,
} from '@stylet/core/document';
import { Store } from '@ngrx/store';
import { troubleOf } from '../../../api/problem';
import { UnreadPages } from '../../platform/document/unread-pages';
import { documentFeature } from '../../platform/document/document.reducer';
import { Editing, type Elsewhere } from '../../platform/document/editing';
import { HeldPages, type Held } from './held-pages';
import { PageSupplies } from './page-supplies';

/** Pages of a supply that are to be put in. */
export interface PagesToPut {
  readonly supply: PageSupply;
  readonly ids: ReadonlySet<string>;
}

/** Takes pages out of another document; nothing where none would be left there. */
const removingFrom = ({ documentId, state }: PageSupply, ids: ReadonlySet<string>): Elsewhere[] =>
  removePages(pagesInOrder(state.pages), ids).flatMap((effect) => {
    const back = invert(state, effect);
    return back && documentId !== undefined ? [{ documentId, effect, of: back }] : [];
  });

/** What is done with whole pages; each is one step of undo. */
@Injectable()
export class PageActions {
  private readonly store = inject(Store);
  private readonly editing = inject(Editing);
  private readonly unread = inject(UnreadPages);
  private readonly held = inject(HeldPages);
  private readonly supplies = inject(PageSupplies);
  private readonly snackBar = inject(MatSnackBar);
  private readonly documentId = this.store.selectSignal(documentFeature.selectId);
  private readonly source = this.store.selectSignal(documentFeature.selectSource);
  private readonly state = this.store.selectSignal(documentFeature.selectState);
  private readonly pages = this.store.selectSignal(documentFeature.selectPages);
  /** Pages of this document that were cut or copied. */
  private readonly heldHere = computed(() => {
    const held = this.held.pages();
    return held?.documentId === this.documentId() ? held : undefined;
  });
  readonly canPaste = computed(() => this.held.pages() !== undefined);
  /** Pages that were cut, until they are pasted. */
  readonly cut = computed<ReadonlySet<string>>(() => {
    const held = this.heldHere();
    return new Set(held?.isCut ? held.ids : []);
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
  duplicate(ids: ReadonlySet<string>): Promise<readonly string[]> {
    return this.copyTo(ids, this.pages().findLastIndex(({ id }) => ids.has(id)) + 1);
  }

  async hold(ids: ReadonlySet<string>, isCut: boolean): Promise<void> {
    const documentId = this.documentId();
    if (ids.size === 0 || documentId === undefined || !(await this.isRead(ids))) return;
    const [state, source] = [this.state(), this.source()];
    this.held.hold(
      { documentId, title: state.title, ids: [...ids], isCut },
      { documentId, source: source ?? '', state },
    );
  }

  /** Puts what was cut or copied before the page at a place; the ids of what is there then. */
  async paste(index: number): Promise<readonly string[]> {
    const held = this.held.pages();
    if (!held) return [];
    const ids = new Set(held.ids);
    const isHere = this.heldHere() && this.pages().some(({ id }) => ids.has(id));
    if (!isHere) return this.pasteFromElsewhere(held, index);
    if (!held.isCut) return this.copyTo(ids, index);
    this.move(ids, index);
    this.held.pasted();
    return held.ids;
  }

  /** Puts pages before the one at a place, one supply after the other; the ids of what is there then. */
  put(wanted: readonly PagesToPut[], index: number): readonly string[] {
    const { effects, there } = this.putting(wanted, index);
    this.change(effects);
    return there;
  }

  private putting(
    wanted: readonly PagesToPut[],
    index: number,
  ): { readonly effects: readonly Effect[]; readonly there: readonly string[] } {
    const now = new Date().toISOString();
    let [state, at] = [this.state(), index];
    const effects: Effect[] = [];
    const there: string[] = [];
    for (const { supply, ids } of wanted) {
      const taken = takePages(supply, ids, state, at, now);
      effects.push(...taken.effects);
      there.push(...taken.copies);
      state = applyAll(state, taken.effects);
      at += taken.copies.length;
    }
    return { effects, there };
  }

  /** Of another document, or as they were when they have been removed since. What was cut there is taken out there. */
  private async pasteFromElsewhere(held: Held, index: number): Promise<readonly string[]> {
    const ids = new Set(held.ids);
    try {
      const now =
        held.documentId === this.documentId()
          ? undefined
          : await this.supplies.ofDocument(held.documentId);
      const isThere = now && held.ids.some((id) => now.state.pages[id]);
      const supply = isThere ? now : await this.held.asHeld();
      const { effects, there } = supply
        ? this.putting([{ supply, ids }], index)
        : { effects: [], there: [] };
      const going = held.isCut && isThere ? removingFrom(now!, ids) : [];
      if (there.length === 0) this.tell(`These pages are not in “${held.title}” any more.`);
      else if (held.isCut && isThere && going.length === 0)
        this.tell(`Copied: a document keeps its last page, so “${held.title}” has them as well.`);
      if (effects.length > 0) this.editing.change(effects, going);
      if (going.length > 0) {
        this.held.pasted();
        this.tell(`Moved here from “${held.title}”. Undo takes them back there.`);
      }
      return there;
    } catch (error) {
      const { title, advice } = troubleOf(error);
      this.tell(`Nothing was pasted. ${title}. ${advice}`);
      return [];
    }
  }

  private async copyTo(ids: ReadonlySet<string>, index: number): Promise<readonly string[]> {
    if (!(await this.isRead(ids))) return [];
    const { effects, copies } = copyPages(this.state(), ids, index, new Date().toISOString());
    this.change(effects);
    return copies;
  }

  /** Pages are copied with what is on them, which has to be here. */
  private async isRead(ids: ReadonlySet<string>): Promise<boolean> {
    const isRead = await this.unread.need(ids);
    if (!isRead) this.tell('Nothing was copied: what is on these pages has not come yet.');
    return isRead;
  }

  private change(effects: readonly Effect[]): void {
    if (effects.length > 0) this.editing.change(effects);
  }

  private tell(message: string): void {
    this.snackBar.open(message, 'Close', { duration: 8000 });
  }
}
