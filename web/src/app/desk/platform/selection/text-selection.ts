import { Injectable, computed, inject, signal } from '@angular/core';
import { MatSnackBar } from '@angular/material/snack-bar';
import type { Page } from '@stylet/core/api';
import type { Markup } from '@stylet/core/document';
import type { Point } from '@stylet/core/geometry';
import { between, joinPages, pageText, type PageText, type TextRange } from '@stylet/core/text';
import { Cancelled } from '../../../../workers/worker-client';
import { PageSource } from '../paper/page-source';
import { placeAcross, placeIn, placeOn, type PointOnPage } from '../view/place-across';
import { ViewState } from '../view/view-state';

/** A word, by its number on its page. */
export interface WordPlace {
  readonly page: Page;
  readonly text: PageText;
  readonly word: number;
}

/** Words that are selected, from `anchor` to `focus`, on one page or over several. */
export interface SelectedText {
  readonly anchor: WordPlace;
  readonly focus: WordPlace;
  /** The mark whose words these are, when it is the mark that was taken hold of. */
  readonly mark?: Markup | undefined;
}

/** The selected words of one page. */
export interface SelectedPart extends TextRange {
  readonly page: Page;
  readonly text: PageText;
  readonly words: readonly number[];
}

/** Text selected for reading, in one or over several pages; or the words of a mark. */
@Injectable()
export class TextSelection {
  private readonly source = inject(PageSource);
  private readonly view = inject(ViewState);
  private readonly snackBar = inject(MatSnackBar);
  /** Texts of pages that the selection goes over. */
  private readonly texts = signal<ReadonlyMap<string, PageText>>(new Map());
  /** Where the loose end is to go when the text there has been read. */
  private wanted: PointOnPage | undefined;

  readonly selected = signal<SelectedText | undefined>(undefined);
  /** Whether an end is being dragged, so that the pages scroll along. */
  readonly isDragged = signal(false);
  /** What is selected, page by page. */
  readonly parts = computed<readonly SelectedPart[]>(() => {
    const ends = this.ends();
    if (!ends) return [];
    const [first, last] = ends;
    if (first.page.id === last.page.id) return [partOf(first, first.word, last.word)];
    const pages = this.view.pages();
    const [from, to] = [first, last].map((end) => pages.findIndex(({ id }) => id === end.page.id));
    const whole = pages.slice(from + 1, to).flatMap((page) => {
      const text = this.texts().get(page.id);
      return text && text.length > 0 ? partOf({ page, text }, 0, text.length - 1) : [];
    });
    return [partOf(first, first.word, first.text.length - 1), ...whole, partOf(last, 0, last.word)];
  });
  /** The selected words, lines and pages joined. */
  readonly contents = computed(() => joinPages(this.parts().map(({ contents }) => contents)));

  begin(page: Page, text: PageText, word: number): void {
    this.texts.set(new Map([[page.id, text]]));
    const place = { page, text, word };
    this.selected.set({ anchor: place, focus: place });
  }

  /** Moves the loose end to the word nearest to a point, given on any page: that may lie on another. */
  extend(page: Page, at: Point): void {
    // The words of a mark are all on its page.
    const there = this.selected()?.mark ? { page, at } : placeAcross(this.laidOut(), page, at);
    if (there) void this.extendTo(there);
  }

  /** Moves the loose end to the word nearest to a point among the pages as they are laid out, in CSS pixels. */
  extendAt(there: Point): void {
    const selected = this.selected();
    const to = selected?.mark
      ? placeOn(this.laidOut(), selected.focus.page, there)
      : placeIn(this.laidOut(), there);
    if (to) void this.extendTo(to);
  }

  private async extendTo(there: PointOnPage): Promise<void> {
    this.wanted = there;
    // Nothing is waited for where the text is at hand: the selection keeps up with the pointer.
    const text = this.texts().get(there.page.id) ?? (await this.read(there.page));
    if (!text || this.wanted !== there) return;
    const word = text.nearestWord(there.at);
    if (word !== undefined) this.moveFocus({ page: there.page, text, word });
  }

  /** Takes in the line, or the paragraph, of the word it began at. */
  grow(to: 'line' | 'paragraph'): void {
    this.selected.update((selected) => {
      if (!selected) return selected;
      const { anchor } = selected;
      const [first, last] = anchor.text.around(anchor.word, to);
      return { ...selected, anchor: { ...anchor, word: first }, focus: { ...anchor, word: last } };
    });
  }

  /** Moves the loose end by a word, over to another page where there are no more. */
  async step(by: 1 | -1): Promise<void> {
    const selected = this.selected();
    if (!selected) return;
    const { focus } = selected;
    const word = focus.word + by;
    if (word >= 0 && word < focus.text.length) {
      this.moveFocus({ ...focus, word });
      return;
    }
    // The words of a mark are all on its page.
    if (selected.mark) return;
    const pages = this.view.pages();
    for (let index = this.indexOf(focus.page) + by; pages[index]; index += by) {
      const text = await this.read(pages[index]);
      if (this.selected() !== selected || !text) return;
      if (text.length === 0) continue;
      this.moveFocus({ page: pages[index], text, word: by > 0 ? 0 : text.length - 1 });
      return;
    }
  }

  /** Makes one end the loose one. */
  loosen(end: 'first' | 'last'): void {
    const ends = this.ends();
    if (!ends) return;
    const [first, last] = ends;
    const [anchor, focus] = end === 'first' ? [last, first] : [first, last];
    this.selected.update((selected) => selected && { ...selected, anchor, focus });
  }

  /** Takes hold of a mark by its words, or of nothing. */
  hold(page: Page, text: PageText, mark: Markup | undefined): void {
    const words = mark ? text.covered(mark.quads) : [];
    const [first, last] = [words[0], words.at(-1)];
    this.texts.set(new Map([[page.id, text]]));
    this.selected.set(
      first === undefined || last === undefined
        ? undefined
        : { anchor: { page, text, word: first }, focus: { page, text, word: last }, mark },
    );
  }

  clear(): void {
    this.wanted = undefined;
    this.isDragged.set(false);
    this.selected.set(undefined);
  }

  /** Puts the selected words on the clipboard, and says so. */
  async copy(): Promise<void> {
    const parts = this.parts();
    if (parts.length === 0) return;
    try {
      await navigator.clipboard.writeText(
        joinPages(parts.map(({ text, words }) => text.copied(words))),
      );
      this.snackBar.open('Copied.', undefined, { duration: 2000 });
    } catch (error) {
      console.warn(error);
      const message = 'This browser does not allow copying from here. Open Stylet over HTTPS.';
      this.snackBar.open(message, 'Close', { duration: 8000 });
    }
  }

  /** The ends in the order of the pages and the words; none when their pages are not there any more. */
  private ends(): readonly [WordPlace, WordPlace] | undefined {
    const selected = this.selected();
    if (!selected) return undefined;
    const { anchor, focus } = selected;
    const pages = this.indexOf(focus.page) - this.indexOf(anchor.page);
    if (this.indexOf(focus.page) < 0 || this.indexOf(anchor.page) < 0) return undefined;
    return (pages || focus.word - anchor.word) < 0 ? [focus, anchor] : [anchor, focus];
  }

  private laidOut() {
    return { pages: this.view.pages(), layout: this.view.layout() };
  }

  private indexOf({ id }: Page): number {
    return this.view.pages().findIndex((page) => page.id === id);
  }

  private moveFocus(focus: WordPlace): void {
    this.selected.update((selected) => selected && { ...selected, focus });
    const anchor = this.selected()?.anchor;
    if (!anchor || anchor.page.id === focus.page.id) return;
    const [a, b] = [this.indexOf(anchor.page), this.indexOf(focus.page)];
    for (const page of this.view.pages().slice(Math.min(a, b) + 1, Math.max(a, b)))
      if (!this.texts().has(page.id)) void this.read(page);
  }

  /** The text of a page; undefined when it cannot be read. */
  private async read(page: Page): Promise<PageText | undefined> {
    const known = this.texts().get(page.id);
    if (known) return known;
    try {
      const text = pageText(await this.source.linesOf(page));
      this.texts.update((texts) => new Map([...texts, [page.id, text]]));
      return text;
    } catch (error) {
      if (!(error instanceof Cancelled)) this.source.trouble.set(String(error));
      return undefined;
    }
  }
}

function partOf(
  { page, text }: Pick<WordPlace, 'page' | 'text'>,
  first: number,
  last: number,
): SelectedPart {
  const words = between(first, last);
  return { page, text, words, ...text.rangeOf(words) };
}
