import { newId, noHistory, type Effect, type News, type Operation } from '@stylet/core/document';
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

const operation = (effect: Effect): Operation => ({
  id: newId(),
  documentId: id,
  author: 'A',
  at: '2026-09-01T08:00:00.000Z',
  baseRevision: 4,
  effect,
});
const heard = (news: News) =>
  store.dispatch(documentActions.heard({ documentId: id, news, isFromHere: false }));

test('nothing that is heard while a document is loading is dropped', () => {
  const [waiting, made] = [operation(rename('Waits')), operation(rename('Made meanwhile'))];
  store.dispatch(documentActions.opened({ id }));
  heard({ kind: 'made', operations: [made] });
  heard({
    kind: 'acknowledged',
    revisions: [{ id: waiting.id, revision: 4 }],
    revision: 4,
  });
  store.dispatch(
    documentActions.loaded({ document, annotations: [], waiting: [waiting], history: noHistory }),
  );
  // What waited was carried out before the document was read; what was made since is on top of it.
  expect(open().replica.pending).toEqual([made]);
  expect(open().state.title).toBe('Made meanwhile');
});

test('what another device has done goes under what was made here, and undo leaves it alone', () => {
  editing.change([rename('Mine')]);
  const theirs = operation({
    type: 'landmark.add',
    landmark: {
      kind: 'bookmark',
      id: newId(),
      place: { pageId: newId() },
      title: 'Theirs',
      created: '2026-09-01T08:00:00.000Z',
    },
  });
  heard({ kind: 'confirmed', operations: [{ operation: theirs, revision: 5 }] });
  expect(open()).toMatchObject({ revision: 5, state: { title: 'Mine' } });
  editing.undo();
  expect(open().state.title).toBe('Waves');
  expect(Object.values(open().state.landmarks)).toHaveLength(1);
});

test('pages and annotations that were read apart come to one revision', () => {
  const since = [operation(rename('Between')), operation(rename('Then'))].map((one, i) => ({
    operation: one,
    revision: 5 + i,
  }));
  store.dispatch(documentActions.opened({ id }));
  store.dispatch(
    documentActions.loaded({ document, annotations: [], waiting: [], since, history: noHistory }),
  );
  expect(open()).toMatchObject({ revision: 6, state: { title: 'Then' } });
});

test('several may add to what is done, in the same step, and be let go again', () => {
  const also = (title: string) => editing.alongWith(([first]) => (first ? [rename(title)] : []));
  const [one, other] = [also('Along'), also('Along too')];
  editing.change([rename('One')]);
  expect(open().state.title).toBe('Along too');
  editing.undo();
  expect(open().state.title).toBe('Waves');
  other();
  editing.change([rename('Two')]);
  expect(open().state.title).toBe('Along');
  one();
  editing.change([rename('Three')]);
  expect(open().state.title).toBe('Three');
});

test('whoever has something to take back is asked before any step is, the first that has takes it', () => {
  editing.change([rename('One')]);
  const asked: string[] = [];
  const asks = (name: string, has: boolean) =>
    editing.undoesFirst(() => {
      asked.push(name);
      return has;
    });
  const releases = [asks('nothing', false), asks('something', true), asks('later', true)];
  editing.undo();
  expect(asked).toEqual(['nothing', 'something']);
  expect(open().state.title).toBe('One');
  releases.forEach((release) => release());
  editing.undo();
  expect(open().state.title).toBe('Waves');
  expect(asked).toHaveLength(2);
});
