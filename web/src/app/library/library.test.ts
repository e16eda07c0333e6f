import { TestBed } from '@angular/core/testing';
import type { DocumentSummary } from '@stylet/core/api';
import { newId, type Operation } from '@stylet/core/document';
import { provideEffects } from '@ngrx/effects';
import { provideStore, Store } from '@ngrx/store';
import { firstValueFrom, of, skipWhile } from 'rxjs';
import { Api } from '../api/api';
import { Outbox } from '../desk/sync/outbox';
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
