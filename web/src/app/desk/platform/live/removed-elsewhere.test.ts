import { TestBed } from '@angular/core/testing';
import { MatSnackBar } from '@angular/material/snack-bar';
import type { StyletDocument } from '@stylet/core/api';
import { newId, noHistory, type Operation } from '@stylet/core/document';
import { provideEffects } from '@ngrx/effects';
import { provideStore, Store } from '@ngrx/store';
import { Subject } from 'rxjs';
import { BringingBack } from '../document/bringing-back';
import { documentActions, documentFeature } from '../document/document.reducer';
import { RemovedElsewhere } from './removed-elsewhere';

const id = newId();
const pages = ['a0', 'a1'].map((order) => ({ id: newId(), order, label: null }));
const said: string[] = [];
let dismissed: Subject<void>;
let store: Store;

beforeEach(() => {
  said.length = 0;
  const open = (words: string) => {
    said.push(words);
    dismissed = new Subject();
    return { onAction: () => new Subject(), afterDismissed: () => dismissed };
  };
  TestBed.configureTestingModule({
    providers: [
      { provide: MatSnackBar, useValue: { open } },
      provideStore({ document: documentFeature.reducer }),
      provideEffects(RemovedElsewhere),
    ],
  });
  store = TestBed.inject(Store);
  store.dispatch(documentActions.opened({ id }));
  const document = { id, title: 'Waves', pages, landmarks: [], revision: 0 };
  store.dispatch(
    documentActions.loaded({
      document: document as unknown as StyletDocument,
      annotations: [],
      waiting: [],
      history: noHistory,
    }),
  );
});

const removed = (pageId: string): void => {
  const operation: Operation = {
    id: newId(),
    documentId: id,
    author: 'Ada',
    at: '2026-09-01T08:00:00.000Z',
    baseRevision: 0,
    effect: { type: 'page.remove', pageId },
  };
  const news = { kind: 'confirmed', operations: [{ operation, revision: 1 }] } as const;
  store.dispatch(documentActions.heard({ documentId: id, news, isFromHere: false }));
};

test('a page that others remove is told of by what it was called', () => {
  removed(pages[1].id);
  expect(said).toEqual(['Page 2 was removed by Ada.']);
});

test('what has been said of a page that was written on is not said again in other words', () => {
  const offered = [pages[1]] as never;
  TestBed.inject(BringingBack).offer('The page you wrote on was removed by Ada.', id, offered);
  removed(pages[1].id);
  expect(said).toHaveLength(1);
});

test('once that is gone, a page can be told of again', () => {
  TestBed.inject(BringingBack).offer('Gone.', id, [pages[1]] as never);
  dismissed.next();
  removed(pages[1].id);
  expect(said).toHaveLength(2);
});
