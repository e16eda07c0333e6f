import { Injectable, inject } from '@angular/core';
import { pagesInOrder, type DocumentPage } from '@stylet/core/document';
import { Actions, createEffect, ofType } from '@ngrx/effects';
import { Store } from '@ngrx/store';
import { tap } from 'rxjs';
import { BringingBack } from '../document/bringing-back';
import { documentActions, documentFeature } from '../document/document.reducer';

interface Removal {
  readonly page: DocumentPage;
  /** What the page was called: its label, or which it was. */
  readonly name: string;
  readonly by: string;
}

const nameOf = (page: DocumentPage, all: Readonly<Record<string, DocumentPage>>): string =>
  page.label || String(pagesInOrder(all).findIndex(({ id }) => id === page.id) + 1);

/** Pages that somebody else removes do not vanish without a word, and can be had back. */
@Injectable()
export class RemovedElsewhere {
  private readonly actions = inject(Actions);
  private readonly bringingBack = inject(BringingBack);
  private readonly open = inject(Store).selectSignal(documentFeature.selectDocumentState);
  /** As they were before what is heard next. */
  private before: Readonly<Record<string, DocumentPage>> = {};

  readonly tell = createEffect(
    () =>
      this.actions.pipe(
        ofType(documentActions.loaded, documentActions.stepMade, documentActions.heard),
        tap((action) => {
          const { before } = this;
          const { id, state } = this.open();
          this.before = state.pages;
          if (action.type !== documentActions.heard.type || action.documentId !== id) return;
          if (action.news.kind !== 'confirmed') return;
          // A text that is shorter now has fewer pages: nobody has removed them.
          const isTextSet = action.news.operations.some(
            ({ operation: { effect } }) =>
              effect.type === 'page.add' &&
              (before[effect.page.id]?.source ?? effect.page.source) !== effect.page.source,
          );
          if (isTextSet) return;
          const removals = action.news.operations.flatMap(({ operation: { author, effect } }) => {
            const page = effect.type === 'page.remove' ? before[effect.pageId] : undefined;
            // The answer to what was written on it may have said so already.
            return page && !state.pages[page.id] && !this.bringingBack.isOffered(page.id)
              ? [{ page, by: author, name: nameOf(page, before) }]
              : [];
          });
          if (removals.length > 0) this.offer(id, removals);
        }),
      ),
    { dispatch: false },
  );

  private offer(documentId: string, removals: readonly Removal[]): void {
    const [{ name, by }] = removals;
    const what = removals.length === 1 ? `Page ${name} was` : `${removals.length} pages were`;
    this.bringingBack.offer(
      `${what} removed by ${by || 'somebody'}.`,
      documentId,
      removals.map(({ page }) => page),
    );
  }
}
