import { Injectable, inject } from '@angular/core';
import { createEffect } from '@ngrx/effects';
import { Store } from '@ngrx/store';
import { Observable, combineLatest, distinctUntilChanged, map, switchMap } from 'rxjs';
import { documentActions, documentFeature } from '../document/document.reducer';
import { Live } from './live';

/** What is done to the open document, wherever, is heard here while it is done. */
@Injectable()
export class LiveDocument {
  private readonly store = inject(Store);
  private readonly live = inject(Live);
  private readonly open = this.store.selectSignal(documentFeature.selectDocumentState);

  readonly hear = createEffect(() =>
    combineLatest([
      this.store.select(documentFeature.selectId),
      this.store.select(documentFeature.selectStatus),
    ]).pipe(
      map(([id, status]) => (status === 'ready' ? id : undefined)),
      distinctUntilChanged(),
      switchMap((id) => (id === undefined ? [] : this.newsOf(id))),
    ),
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
