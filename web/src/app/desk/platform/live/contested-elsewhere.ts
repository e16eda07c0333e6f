import { Injectable, inject } from '@angular/core';
import { MatSnackBar } from '@angular/material/snack-bar';
import { contested, type Operation } from '@stylet/core/document';
import { Actions, createEffect, ofType } from '@ngrx/effects';
import { Store } from '@ngrx/store';
import { tap } from 'rxjs';
import { counted } from '../../../library/counted';
import { documentActions, documentFeature } from '../document/document.reducer';

/** Where two changed the same while they did not hear of each other, that is said: what comes last counts. */
@Injectable()
export class ContestedElsewhere {
  private readonly actions = inject(Actions);
  private readonly snackBar = inject(MatSnackBar);
  private readonly open = inject(Store).selectSignal(documentFeature.selectDocumentState);
  /** What waited for the server before what is heard next. */
  private pending: readonly Operation[] = [];

  readonly tell = createEffect(
    () =>
      this.actions.pipe(
        ofType(documentActions.loaded, documentActions.stepMade, documentActions.heard),
        tap((action) => {
          const mine = this.pending;
          const { id, replica } = this.open();
          this.pending = replica.pending;
          const isNews = action.type === documentActions.heard.type && action.documentId === id;
          if (!isNews || action.news.kind !== 'confirmed' || mine.length === 0) return;
          const own = new Set(mine.map((operation) => operation.id));
          const theirs = action.news.operations
            .map(({ operation }) => operation)
            .filter((operation) => !own.has(operation.id));
          const both = contested(mine, theirs).length;
          if (both > 0) this.say(theirs.at(-1)!.author, both);
        }),
      ),
    { dispatch: false },
  );

  private say(author: string, count: number): void {
    const things = count === 1 ? 'something' : counted(count, 'thing');
    this.snackBar.open(
      `${author || 'Somebody'} changed ${things} that you changed too. Yours shows; both are in the log.`,
      'Close',
      { duration: 8000 },
    );
  }
}
