import { HttpErrorResponse } from '@angular/common/http';
import { TestBed } from '@angular/core/testing';
import type { StyletDocument } from '@stylet/core/api';
import { newId, noHistory, type Operation } from '@stylet/core/document';
import { provideEffects } from '@ngrx/effects';
import { provideStore, Store } from '@ngrx/store';
import { of, throwError, type Observable } from 'rxjs';
import { Api } from '../../../api/api';
import { CatchingUp } from './catching-up';
import { documentActions, documentFeature } from './document.reducer';

const id = newId();
const log = ['One', 'Two', 'Three', 'Four', 'Five'].map((title): Operation => ({
  id: newId(),
  documentId: id,
  author: 'A',
  at: '2026-09-01T08:00:00.000Z',
  baseRevision: 0,
  effect: { type: 'document.rename', title },
}));

/** A server that tells two operations at a time. */
class FakeApi {
  readonly asked: number[] = [];
  answers: (() => Observable<unknown>)[] = [];

  operationsSince(_: string, since: number): Observable<unknown> {
    this.asked.push(since);
    const answer = this.answers.shift();
    if (answer) return answer();
    const operations = log
      .map((operation, i) => ({ operation, revision: i + 1 }))
      .slice(since, since + 2);
    return of({ revision: log.length, operations });
  }
}

let api: FakeApi;
let store: Store;
const open = () => store.selectSignal(documentFeature.selectDocumentState)();
const settled = () => new Promise((resolve) => setTimeout(resolve, 20));
const behind = (revision: number) =>
  store.dispatch(
    documentActions.heard({
      documentId: id,
      news: { kind: 'acknowledged', revisions: [], revision },
      isFromHere: true,
    }),
  );

beforeEach(() => {
  api = new FakeApi();
  TestBed.configureTestingModule({
    providers: [
      { provide: Api, useValue: api },
      provideStore({ document: documentFeature.reducer }),
      provideEffects(CatchingUp),
    ],
  });
  store = TestBed.inject(Store);
  store.dispatch(documentActions.opened({ id }));
  const document = { id, title: 'Zero', pages: [], landmarks: [], revision: 0 };
  store.dispatch(
    documentActions.loaded({
      document: document as unknown as StyletDocument,
      annotations: [],
      waiting: [],
      history: noHistory,
    }),
  );
});

test('what is missing is asked for until nothing is', async () => {
  behind(5);
  await settled();
  expect(api.asked).toEqual([0, 2, 4]);
  expect(open()).toMatchObject({ revision: 5, state: { title: 'Five' } });
});

test('while the server is away it is asked again; what it cannot say is told, and does not go on for ever', async () => {
  jest.useFakeTimers();
  try {
    api.answers = [() => throwError(() => new HttpErrorResponse({ status: 0 }))];
    behind(2);
    await jest.advanceTimersByTimeAsync(5000);
    expect(open().revision).toBe(2);
    const told = jest.spyOn(console, 'error').mockImplementation(() => undefined);
    api.asked.length = 0;
    api.answers = [() => throwError(() => new Error('unreadable'))];
    behind(3);
    await jest.advanceTimersByTimeAsync(20_000);
    expect([api.asked, told.mock.calls.length]).toEqual([[2], 1]);
    told.mockRestore();
  } finally {
    jest.useRealTimers();
  }
});

test('a server that does not know what it has done has the document read anew', async () => {
  api.answers = [() => of({ revision: 9, operations: [] })];
  behind(9);
  await settled();
  expect(open().status).toBe('loading');
});

test('looked at again, a window asks what others have done meanwhile', async () => {
  document.dispatchEvent(new Event('visibilitychange'));
  await settled();
  expect(api.asked).toEqual([0]);
  expect(open().revision).toBe(2);
});

test('what was done from one revision to another comes whole', async () => {
  const all = await TestBed.inject(CatchingUp).between(id, 1, 5);
  expect(all.map(({ revision }) => revision)).toEqual([2, 3, 4, 5]);
});
