import { TestBed } from '@angular/core/testing';
import { newId, type Reversal } from '@stylet/core/document';
import { BrowserDb } from '../../../storage/browser-db';
import { WindowId } from '../../../storage/window-id';
import { HistoryStore } from './history-store';

let window = 'one';
let store: HistoryStore;
beforeEach(() => {
  TestBed.configureTestingModule({
    providers: [{ provide: WindowId, useValue: { get: () => Promise.resolve(window) } }],
  });
  store = TestBed.inject(HistoryStore);
});

const rename = (title: string): Reversal => ({
  effect: { type: 'document.rename', title },
  of: { type: 'document.rename', title: `not ${title}` },
});

test('a window finds its own steps of a document again, and no others', async () => {
  const [id, other] = [newId(), newId()];
  window = 'one';
  await store.add(id, 'changed', [rename('a')]);
  await store.add(id, 'changed', [rename('b')]);
  await store.add(id, 'undone', [rename('c')]);
  await store.add(other, 'changed', [rename('d')]);
  window = 'two';
  await store.add(id, 'changed', [rename('e')]);
  expect(await store.read(id)).toEqual({ undo: [[rename('e')]], redo: [] });
  window = 'one';
  expect(await store.read(id)).toEqual({ undo: [[rename('a')]], redo: [[rename('c')]] });
});

test('only what is days old is forgotten', async () => {
  const id = newId();
  window = 'three';
  await store.add(id, 'changed', [rename('new')]);
  const database = await TestBed.inject(BrowserDb).open();
  const at = Date.now() - 4 * 24 * 3600 * 1000;
  await database.add('steps', {
    window,
    documentId: id,
    kind: 'changed',
    reversals: [rename('old')],
    at,
  });
  await store.tidy();
  expect(await store.read(id)).toEqual({ undo: [[rename('new')]], redo: [] });
});
