import { newId, noHistory, type Effect, type Operation } from '@stylet/core/document';
import { TestBed } from '@angular/core/testing';
import { provideStore, Store } from '@ngrx/store';
import type { StyletDocument } from '@stylet/core/api';
import { documentActions, documentFeature } from './document.reducer';
import { Editing } from './editing';

const id = newId();
const document = {
  id,
  title: 'Waves',
  pages: [],
  landmarks: [],
  place: null,
  revision: 4,
} as unknown as StyletDocument;
const rename = (title: string): Effect => ({ type: 'document.rename', title });

let store: Store;
let editing: Editing;
beforeEach(() => {
  TestBed.configureTestingModule({
    providers: [provideStore({ document: documentFeature.reducer })],
  });
  store = TestBed.inject(Store);
  editing = TestBed.inject(Editing);
  store.dispatch(documentActions.opened({ id }));
  store.dispatch(
    documentActions.loaded({ document, annotations: [], waiting: [], history: noHistory }),
  );
});
const open = () => store.selectSignal(documentFeature.selectDocumentState)();

test('steps are undone and redone in order; a new step forgets what could be redone', () => {
  editing.change([rename('One')]);
  editing.change([rename('Two'), rename('Three')]);
  editing.undo();
  expect(open().state.title).toBe('One');
  editing.undo();
  expect(open().state.title).toBe('Waves');
  editing.redo();
  editing.redo();
  expect(open().state.title).toBe('Three');
  editing.undo();
  editing.change([rename('Four')]);
  expect(open().history.redo).toEqual([]);
});

test('what was changed elsewhere since is left alone, and undo goes on with the step before', () => {
  editing.change([rename('Mine')]);
  editing.change([rename('Mine again')]);
  const { history } = open();
  store.dispatch(documentActions.opened({ id }));
  const theirs = { ...document, title: 'Theirs' } as StyletDocument;
  store.dispatch(
    documentActions.loaded({ document: theirs, annotations: [], waiting: [], history }),
  );
  editing.undo();
  expect(open().state.title).toBe('Theirs');
  expect(open().history.undo).toHaveLength(1);
});

test('with nothing to undo nothing happens', () => {
  editing.undo();
  editing.redo();
  expect(open().state.title).toBe('Waves');
});

test('what still waits to be sent is shown on top of what the server has', () => {
  const waiting: Operation[] = [
    {
      id: newId(),
      documentId: id,
      author: 'A',
      at: '2026-09-01T08:00:00.000Z',
      baseRevision: 4,
      effect: rename('Kept here'),
    },
  ];
  store.dispatch(documentActions.opened({ id }));
  store.dispatch(
    documentActions.loaded({ document, annotations: [], waiting, history: noHistory }),
  );
  expect(open().state.title).toBe('Kept here');
});

test('an answer for a document that was left is not taken for this one', () => {
  store.dispatch(documentActions.opened({ id: newId() }));
  store.dispatch(
    documentActions.loaded({ document, annotations: [], waiting: [], history: noHistory }),
  );
  expect(open().status).toBe('loading');
});
