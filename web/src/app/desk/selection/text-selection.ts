import { Injectable, computed, inject, signal } from '@angular/core';
import { MatSnackBar } from '@angular/material/snack-bar';
import type { Page } from '@stylet/core/api';
import {
  isMarkup,
  newId,
  noAnnotations,
  highestOrder,
  orderAbove,
  paintingOrder,
  type Effect,
  type Markup,
} from '@stylet/core/document';
import type { Point } from '@stylet/core/geometry';
import { between, joinMarks, splitMark, type PageText, type TextRange } from '@stylet/core/text';
import { Store } from '@ngrx/store';
import { Author } from '../../settings/author';
import { documentFeature } from '../document/document.reducer';
import { Editing } from '../document/editing';

/** Words of a page that are selected, from `anchor` to `focus`. */
export interface SelectedText {
  readonly page: Page;
  readonly text: PageText;
  readonly anchor: number;
  readonly focus: number;
  /** The mark whose words these are, when it is the mark that was taken hold of. */
  readonly mark?: Markup | undefined;
}

/** Text selected for reading: to be copied and marked; or a mark, to be changed. */
@Injectable()
export class TextSelection {
  private readonly store = inject(Store);
  private readonly editing = inject(Editing);
  private readonly author = inject(Author);
  private readonly snackBar = inject(MatSnackBar);
  private readonly annotations = this.store.selectSignal(documentFeature.selectAnnotations);

  readonly selected = signal<SelectedText | undefined>(undefined);
  readonly range = computed<TextRange | undefined>(() => {
    const selected = this.selected();
    return selected && selected.text.rangeOf(between(selected.anchor, selected.focus));
  });
  /** Marks that cover some of the selected words. */
  readonly covering = computed<readonly Markup[]>(() => {
    const selected = this.selected();
    if (!selected) return [];
    const words = new Set(between(selected.anchor, selected.focus));
    const covers = ({ quads }: Markup): boolean =>
      selected.text.covered(quads).some((word) => words.has(word));
    return this.marksOn(selected.page).filter(covers);
  });

  begin(page: Page, text: PageText, word: number): void {
    this.selected.set({ page, text, anchor: word, focus: word });
  }

  /** Moves the loose end of the selection to the word nearest to a point. */
  extend(to: Point): void {
    this.selected.update((selected) => {
      const focus = selected?.text.nearestWord(to);
      return selected && focus !== undefined ? { ...selected, focus } : selected;
    });
  }

  /** Takes in the line, or the paragraph, of the word it began at. */
  grow(to: 'line' | 'paragraph'): void {
    this.selected.update((selected) => {
      if (!selected) return selected;
      const [anchor, focus] = selected.text.around(selected.anchor, to);
      return { ...selected, anchor, focus };
    });
  }

  /** Moves the loose end by so many words, as far as there are any. */
  step(words: number): void {
    this.selected.update((selected) => {
      if (!selected) return selected;
      const focus = Math.min(selected.text.length - 1, Math.max(0, selected.focus + words));
      return { ...selected, focus };
    });
  }

  /** Makes one end the loose one. */
  loosen(end: 'first' | 'last'): void {
    this.selected.update((selected) => {
      if (!selected) return selected;
      const first = Math.min(selected.anchor, selected.focus);
      const last = Math.max(selected.anchor, selected.focus);
      return end === 'first'
        ? { ...selected, anchor: last, focus: first }
        : { ...selected, anchor: first, focus: last };
    });
  }

  /** Takes hold of the mark at a point, or of nothing. */
  take(page: Page, text: PageText, at: Point): void {
    const word = text.wordAt(at);
    const mark =
      word === undefined
        ? undefined
        : this.marksOn(page).findLast(({ quads }) => text.covered(quads).includes(word));
    const words = mark ? text.covered(mark.quads) : [];
    this.selected.set(
      words.length > 0
        ? { page, text, anchor: words[0], focus: words[words.length - 1], mark }
        : undefined,
    );
  }

  clear(): void {
    this.selected.set(undefined);
  }

  /** Marks the selected words, joined with marks of the same kind and colour they overlap. */
  mark(kind: Markup['kind'], color: string): void {
    const selected = this.selected();
    const range = this.range();
    if (!selected || !range) return;
    this.change(
      markEffects(
        selected,
        this.newMark(selected.page, kind, color, range),
        this.marksOn(selected.page),
      ),
    );
    this.clear();
  }

  /** Takes the marks off the selected words; what they cover besides stays marked. */
  unmark(): void {
    const selected = this.selected();
    if (!selected) return;
    const words = between(selected.anchor, selected.focus);
    const marks = selected.mark ? [selected.mark] : this.covering();
    this.change(
      marks.flatMap((mark): Effect[] => [
        removal(mark),
        ...(selected.mark ? [] : splitMark(selected.text, mark, words)).map((range) =>
          addition({ ...withoutOrigin(mark), id: newId(), ...range, modified: now() }),
        ),
      ]),
    );
    this.clear();
  }

  /** A mark's end was dragged: it covers what is selected now. */
  settle(): void {
    const selected = this.selected();
    const range = this.range();
    if (!selected?.mark || !range) return;
    const { mark } = selected;
    if (range.contents === mark.contents && range.quads.length === mark.quads.length) return;
    const fields = { ...range, modified: now() };
    this.change([
      { type: 'annotation.change', pageId: mark.pageId, annotationId: mark.id, fields },
    ]);
    this.selected.set({ ...selected, mark: { ...mark, ...fields } });
  }

  recolor(color: string): void {
    const mark = this.selected()?.mark;
    if (!mark) return;
    const fields = { color, modified: now() };
    this.change([
      { type: 'annotation.change', pageId: mark.pageId, annotationId: mark.id, fields },
    ]);
    this.clear();
  }

  /** Puts the selected words on the clipboard, and says so. */
  async copy(): Promise<void> {
    const selected = this.selected();
    if (!selected) return;
    const words = between(selected.anchor, selected.focus);
    try {
      await navigator.clipboard.writeText(selected.text.copied(words));
      this.snackBar.open('Copied.', undefined, { duration: 2000 });
    } catch (error) {
      console.warn(error);
      const message = 'This browser does not allow copying from here. Open Stylet over HTTPS.';
      this.snackBar.open(message, 'Close', { duration: 8000 });
    }
  }

  private change(effects: Effect[]): void {
    if (effects.length > 0) this.editing.change(effects);
  }

  private marksOn(page: Page): Markup[] {
    return paintingOrder(this.annotations()[page.id] ?? noAnnotations).filter(isMarkup);
  }

  private newMark(page: Page, kind: Markup['kind'], color: string, range: TextRange): Markup {
    const at = now();
    return {
      kind,
      id: newId(),
      pageId: page.id,
      order: orderAbove(highestOrder(this.annotations()[page.id] ?? noAnnotations)),
      color,
      opacity: 1,
      author: this.author.name(),
      created: at,
      modified: at,
      ...range,
    };
  }
}

/** A new mark in place of those of its kind and colour that it overlaps. */
export function markEffects(
  { text }: { readonly text: PageText },
  mark: Markup,
  others: readonly Markup[],
): Effect[] {
  const { range, replaces } = joinMarks(text, mark, others);
  return [...replaces.map(removal), addition({ ...mark, ...range })];
}

const now = (): string => new Date().toISOString();
const addition = (annotation: Markup): Effect => ({ type: 'annotation.add', annotation });
const removal = ({ pageId, id }: Markup): Effect => ({
  type: 'annotation.remove',
  pageId,
  annotationId: id,
});

function withoutOrigin(mark: Markup): Markup {
  const { origin: _origin, ...rest } = mark;
  return rest;
}
