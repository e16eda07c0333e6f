import { Injectable, inject } from '@angular/core';
import { toObservable } from '@angular/core/rxjs-interop';
import { createEffect } from '@ngrx/effects';
import { Store } from '@ngrx/store';
import { Observable, combineLatest, distinctUntilChanged, filter, map, switchMap, tap } from 'rxjs';
import { BegunDocuments } from '../../../begun/begun-documents';
import { NewVersion } from '../../../kept/new-version';
import { documentActions, documentFeature } from '../document/document.reducer';
import { Live } from './live';

/** What is done to the open document, wherever, is heard here while it is done. */
@Injectable()
export class LiveDocument {
  private readonly store = inject(Store);
  private readonly live = inject(Live);
  private readonly begun = inject(BegunDocuments);
  private readonly newVersion = inject(NewVersion);
  private readonly open = this.store.selectSignal(documentFeature.selectDocumentState);

  readonly hear = createEffect(() =>
    combineLatest([
      this.store.select(documentFeature.selectId),
      this.store.select(documentFeature.selectStatus),
      toObservable(this.begun.list),
    ]).pipe(
      map(([id, status]) => (status === 'ready' && !this.begun.has(id!) ? id : undefined)),
      distinctUntilChanged(),
      switchMap((id) => (id === undefined ? [] : this.newsOf(id))),
    ),
  );

  /** What is done here goes over HTTP as long as that is understood; nothing is taken from anybody's hands. */
  readonly tellOutdated = createEffect(
    () =>
      toObservable(this.live.isOutdated).pipe(
        filter((isOutdated) => isOutdated),
        tap(() =>
          this.newVersion.offer('The server has another version of Stylet. What you do is kept.'),
        ),
      ),
    { dispatch: false },
  );

  private newsOf(documentId: string): Observable<ReturnType<typeof documentActions.heard>> {
    return new Observable((news) =>
      this.live.open(documentId, {
        since: () => this.open().revision,
        heard: ({ operations }) => {
          const confirmed = { kind: 'confirmed', operations } as const;
          news.next(documentActions.heard({ documentId, news: confirmed, isFromHere: false }));
        },
        // Whatever is asked of it next says so where it matters.
        closed: ({ title, detail }) => console.warn(title, detail),
      }),
    );
  }
}
