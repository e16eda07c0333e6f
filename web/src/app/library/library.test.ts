import { TestBed } from '@angular/core/testing';
import type { DocumentSummary } from '@stylet/core/api';
import { newId, type Operation } from '@stylet/core/document';
import { provideEffects } from '@ngrx/effects';
import { provideStore, Store } from '@ngrx/store';
import { NEVER, firstValueFrom, of, skipWhile } from 'rxjs';
import { Api } from '../api/api';
import { Outbox } from '../desk/platform/sync/outbox';
import { LibraryEffects } from './library.effects';
import { libraryActions, libraryFeature } from './library.reducer';

const documentId = newId();
const rename = (title: string): Operation => ({
  id: newId(),
  documentId,
  author: 'A',
  at: '2026-09-01T08:00:00.000Z',
  baseRevision: 0,
  effect: { type: 'document.rename', title },
});
const listed = { id: documentId, title: 'Groyne survey' } as DocumentSummary;

async function titles(): Promise<string[]> {
  const store = TestBed.inject(Store);
  store.dispatch(libraryActions.opened());
  const { documents } = await firstValueFrom(
    store.select(libraryFeature.selectLibraryState).pipe(skipWhile(({ loading }) => loading)),
  );
  return documents.map(({ title }) => title);
}

function provide(outbox?: Partial<Outbox>): void {
  const api = {
    documents: () => of({ documents: [listed], next: null }),
    folders: () => of({ folders: [], outside: 1 }),
  };
  TestBed.configureTestingModule({
    providers: [
      { provide: Api, useValue: api },
      ...(outbox ? [{ provide: Outbox, useValue: outbox }] : []),
      provideStore({ library: libraryFeature.reducer }),
      provideEffects(LibraryEffects),
    ],
  });
}

test('what the server has not been told yet shows in what it tells', async () => {
  provide();
  await TestBed.inject(Outbox).add([rename('Groynes'), rename('Groynes, north')]);
  expect(await titles()).toEqual(['Groynes, north']);
});

test('a browser that keeps nothing still shows what the server has', async () => {
  const told = jest.spyOn(console, 'error').mockImplementation(() => undefined);
  provide({ all: () => Promise.reject(new Error('no room')) });
  expect(await titles()).toEqual(['Groyne survey']);
  expect(told).toHaveBeenCalledTimes(1);
});

test('of another folder nothing shows until its documents have come; the list goes on where it stopped', async () => {
  const asked: object[] = [];
  const one = (n: number) => ({ id: newId(), title: `Week ${n}`, folderId: null });
  const api = {
    documents: (query: { after?: string; folder?: string }) => {
      asked.push(query);
      if (query.folder === 'shore') return NEVER;
      return of({ documents: [one(query.after ? 2 : 1)], next: query.after ? null : 'there' });
    },
    folders: () => of({ folders: [], outside: 2 }),
  };
  TestBed.configureTestingModule({
    providers: [
      { provide: Api, useValue: api },
      { provide: Outbox, useValue: { all: () => Promise.resolve([]) } },
      provideStore({ library: libraryFeature.reducer }),
      provideEffects(LibraryEffects),
    ],
  });
  const store = TestBed.inject(Store);
  const state = store.selectSignal(libraryFeature.selectLibraryState);
  const settled = () => new Promise((resolve) => setTimeout(resolve, 20));
  expect(await titles()).toEqual(['Week 1']);
  store.dispatch(libraryActions.moreWanted());
  await settled();
  expect(state().documents.map(({ title }) => title)).toEqual(['Week 1', 'Week 2']);
  // There are no more to ask for.
  store.dispatch(libraryActions.moreWanted());
  await settled();
  expect(asked).toEqual([
    { folder: 'none', sort: 'changed', limit: 100 },
    { folder: 'none', sort: 'changed', limit: 100, after: 'there' },
  ]);
  const wanted = { folder: 'shore', words: '', sort: 'changed' } as const;
  store.dispatch(libraryActions.wanted({ wanted }));
  expect(state()).toMatchObject({ documents: [], next: null, loading: true });
});

test('what has just come shows where it lies, and is counted there', () => {
  provide();
  const store = TestBed.inject(Store);
  const state = store.selectSignal(libraryFeature.selectLibraryState);
  const come = (folderId: string | null) =>
    store.dispatch(
      libraryActions.uploadDone({
        id: newId(),
        document: { ...listed, id: newId(), folderId, otherTitle: null },
      }),
    );
  come(null);
  come('shore');
  expect(state().documents).toHaveLength(1);
  expect(state().folderList.outside).toBe(1);
});
