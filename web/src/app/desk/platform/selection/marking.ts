import { Injectable, computed, inject } from '@angular/core';
import type { Page } from '@stylet/core/api';
import {
  highestOrder,
  isMarkup,
  newId,
  noAnnotations,
  orderAbove,
  paintingOrder,
  type Effect,
  type Markup,
} from '@stylet/core/document';
import type { Point } from '@stylet/core/geometry';
import { splitMark, type PageText, type TextRange } from '@stylet/core/text';
import { Store } from '@ngrx/store';
import { Author } from '../../../settings/author';
import { documentFeature } from '../document/document.reducer';
import { Editing } from '../document/editing';
import { addition, markEffects, removal } from './mark-effects';
import { TextSelection } from './text-selection';

/** Marks on the selected words: made, taken off, and changed. What is done over several pages is one step. */
@Injectable()
export class Marking {
  private readonly editing = inject(Editing);
  private readonly author = inject(Author);
  private readonly selection = inject(TextSelection);
  private readonly annotations = inject(Store).selectSignal(documentFeature.selectAnnotations);

  /** Marks that cover some of the selected words, with the words of each page. */
  private readonly covered = computed(() =>
    this.selection.parts().map(({ page, text, words }) => {
      const wanted = new Set(words);
      const covers = ({ quads }: Markup): boolean =>
        text.covered(quads).some((word) => wanted.has(word));
      return { text, words, marks: this.marksOn(page).filter(covers) };
    }),
  );
  readonly covering = computed<readonly Markup[]>(() =>
    this.covered().flatMap(({ marks }) => marks),
  );

  /** Takes hold of the mark at a point, or of nothing. */
  take(page: Page, text: PageText, at: Point): void {
    const word = text.wordAt(at);
    const mark =
      word === undefined
        ? undefined
        : this.marksOn(page).findLast(({ quads }) => text.covered(quads).includes(word));
    this.selection.hold(page, text, mark);
  }

  /** Marks the selected words, joined with marks of the same kind and colour they overlap. */
  mark(kind: Markup['kind'], color: string): void {
    this.change(
      this.selection.parts().flatMap((part) => {
        const { page, quads, contents } = part;
        const made = this.newMark(page, kind, color, { quads, contents });
        return markEffects(part, made, this.marksOn(page));
      }),
    );
    this.selection.clear();
  }

  /** Takes the marks off the selected words; what they cover besides stays marked. */
  unmark(): void {
    const held = this.selection.selected()?.mark;
    const effects = held
      ? [removal(held)]
      : this.covered().flatMap(({ text, words, marks }) =>
          marks.flatMap((mark): Effect[] => [
            removal(mark),
            ...splitMark(text, mark, words).map((range) =>
              addition({ ...withoutOrigin(mark), id: newId(), ...range, modified: now() }),
            ),
          ]),
        );
    this.change(effects);
    this.selection.clear();
  }

  /** A mark's end was dragged: it covers what is selected now. */
  settle(): void {
    const selected = this.selection.selected();
    const [part] = this.selection.parts();
    if (!selected?.mark || !part) return;
    const { mark } = selected;
    const { quads, contents } = part;
    if (contents === mark.contents && quads.length === mark.quads.length) return;
    const fields = { quads, contents, modified: now() };
    this.change([
      { type: 'annotation.change', pageId: mark.pageId, annotationId: mark.id, fields },
    ]);
    this.selection.selected.set({ ...selected, mark: { ...mark, ...fields } });
  }

  recolor(color: string): void {
    const mark = this.selection.selected()?.mark;
    if (!mark) return;
    const fields = { color, modified: now() };
    this.change([
      { type: 'annotation.change', pageId: mark.pageId, annotationId: mark.id, fields },
    ]);
    this.selection.clear();
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

const now = (): string => new Date().toISOString();

function withoutOrigin(mark: Markup): Markup {
  const { origin: _origin, ...rest } = mark;
  return rest;
}
