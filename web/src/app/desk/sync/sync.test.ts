import { HttpErrorResponse } from '@angular/common/http';
import { TestBed } from '@angular/core/testing';
import { newId, type Operation } from '@stylet/core/document';
import { provideStore, Store } from '@ngrx/store';
import { of, throwError, type Observable } from 'rxjs';
import { Api } from '../../api/api';
import { Outbox } from './outbox';
import { Sender } from './sender';
import { describe as words, syncFeature } from './sync.reducer';

const documentId = newId();
const rename = (title: string): Operation => ({
  id: newId(),
  documentId,
  author: 'A',
  at: '2026-09-01T08:00:00.000Z',
  baseRevision: 0,
  effect: { type: 'document.rename', title },
});
const away = (): Observable<never> => throwError(() => new HttpErrorResponse({ status: 0 }));
const refused = (): Observable<never> =>
  throwError(
    () =>
      new HttpErrorResponse({
        status: 400,
        error: {
          type: '',
          title: 'No',
          status: 400,
          detail: '',
          code: 'operation-invalid',
          advice: 'Reload.',
        },
      }),
  );

/** A server that does what it is told, call by call, and then takes everything. */
class FakeApi {
  readonly calls: string[][] = [];
  answers: ((operations: readonly Operation[]) => Observable<unknown> | undefined)[] = [];

  perform(_: string, operations: readonly Operation[]): Observable<unknown> {
    this.calls.push(operations.map(({ effect }) => (effect as { title: string }).title));
    const answer = this.answers.shift()?.(operations);
    return answer ?? of({ revision: this.calls.length, operations: [] });
  }
}

let api: FakeApi;
let sender: Sender;
let outbox: Outbox;
let store: Store;

beforeEach(async () => {
  api = new FakeApi();
  TestBed.configureTestingModule({
    providers: [{ provide: Api, useValue: api }, provideStore({ sync: syncFeature.reducer })],
  });
  sender = TestBed.inject(Sender);
  outbox = TestBed.inject(Outbox);
  store = TestBed.inject(Store);
  await outbox.remove((await outbox.all()).map(({ id }) => id));
});

const keep = async (...operations: Operation[]): Promise<void> => {
  sender.announce(operations);
  await sender.keep(operations);
};
const until = async (done: () => boolean | Promise<boolean>): Promise<void> => {
  for (let i = 0; i < 300; i++) {
    if (await done()) return;
    await new Promise((resolve) => setTimeout(resolve, 20));
  }
  throw new Error('it never came to that');
};
const state = () => store.selectSignal(syncFeature.selectSyncState)();

test('what is acknowledged leaves the outbox', async () => {
  await keep(rename('one'), rename('two'));
  await until(async () => (await outbox.all()).length === 0);
  expect(api.calls).toEqual([['one', 'two']]);
});

test('with the server away changes stay, in order, and are sent again until taken', async () => {
  api.answers = [away, away];
  await keep(rename('one'));
  await until(() => !state().reachable);
  await keep(rename('two'));
  expect((await outbox.all()).map(({ effect }) => (effect as { title: string }).title)).toEqual([
    'one',
    'two',
  ]);
  await until(async () => (await outbox.all()).length === 0);
  expect(api.calls.at(-1)).toEqual(['one', 'two']);
  expect(state()).toMatchObject({ waiting: 0, reachable: true });
});

test('one refused operation does not hold up the others, is told, and is not thrown away', async () => {
  const bad = (operations: readonly Operation[]) =>
    operations.some(({ effect }) => (effect as { title: string }).title === 'bad')
      ? refused()
      : undefined;
  api.answers = [bad, bad, bad, bad];
  await keep(rename('good'), rename('bad'), rename('better'));
  await until(async () => (await outbox.all()).length === 1);
  expect(api.calls).toEqual([['good', 'bad', 'better'], ['good'], ['bad'], ['better']]);
  expect(state().trouble).toMatchObject({ code: 'operation-invalid', advice: 'Reload.' });
});

test('what an earlier visit left is sent at the start', async () => {
  await outbox.add([rename('left over')]);
  sender.wake();
  await until(async () => (await outbox.all()).length === 0);
  expect(api.calls).toEqual([['left over']]);
});

test('the state of saving in words', () => {
  expect(words(0, true)).toBe('Saved');
  expect(words(2, true)).toBe('Saving');
  expect(words(1, false)).toBe('Offline · 1 change kept here');
  expect(words(3, false)).toBe('Offline · 3 changes kept here');
});
