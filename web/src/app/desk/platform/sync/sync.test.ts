import { HttpErrorResponse } from '@angular/common/http';
import { TestBed } from '@angular/core/testing';
import { newId, type Operation } from '@stylet/core/document';
import { provideStore, Store } from '@ngrx/store';
import { of, throwError, type Observable } from 'rxjs';
import { Api } from '../../../api/api';
import { BegunDocuments } from '../../../begun/begun-documents';
import type { BegunDocument } from '../../../../kept/begun';
import { BrowserDb } from '../../../storage/browser-db';
import { Outbox } from './outbox';
import { Sender } from './sender';
import { describe as words, syncFeature } from './sync.reducer';

const documentId = newId();
const rename = (title: string, of = documentId): Operation => ({
  id: newId(),
  documentId: of,
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
    return answer ?? of({ revision: this.calls.length, operations: [], removedPages: [] });
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
  await outbox.acknowledge(await outbox.all());
  await outbox.forget((await outbox.aside()).map(({ operation }) => operation.id));
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

test('changes are sent as they were made, also when the clock was set back by an hour meanwhile', async () => {
  // RFC 9562, 6.2: ids of version 7 begin with the time; after a reload nothing of what was before is known.
  const at = Date.now();
  const idAt = (ms: number): string => {
    const hex = ms.toString(16).padStart(12, '0');
    return `${hex.slice(0, 8)}-${hex.slice(8)}-7000-8000-${'0'.repeat(12)}`;
  };
  const [before, after] = [
    { ...rename('before'), id: idAt(at) },
    { ...rename('after'), id: idAt(at - 3_600_000) },
  ];
  api.answers = [away, away];
  await keep(before);
  await keep(after);
  expect(await outbox.first(documentId, 1)).toEqual([before]);
  await until(async () => (await outbox.all()).length === 0);
  expect(api.calls.flat().slice(-2)).toEqual(['before', 'after']);
});

const titleOf = ({ effect }: Operation): string => (effect as { title: string }).title;
const refusing =
  (...titles: string[]) =>
  (operations: readonly Operation[]) =>
    operations.some((operation) => titles.includes(titleOf(operation))) ? refused() : undefined;

test('refused operations are put aside with what the server said, and all others are saved', async () => {
  const titles = Array.from({ length: 40 }, (_, i) => `t${i}`);
  api.answers = Array.from({ length: 60 }, () => refusing('t7', 't31'));
  await keep(...titles.map((title) => rename(title)));
  await until(async () => (await outbox.all()).length === 0);
  const saved = api.calls.filter((call) => !call.includes('t7') && !call.includes('t31')).flat();
  expect(saved).toEqual(titles.filter((title) => title !== 't7' && title !== 't31'));
  // By halves: far fewer questions than there are operations.
  expect(api.calls.length).toBeLessThan(25);
  const aside = await outbox.aside();
  expect(aside.map(({ operation }) => titleOf(operation))).toEqual(['t7', 't31']);
  expect(aside[0].trouble).toMatchObject({ code: 'operation-invalid', advice: 'Reload.' });
  expect(state()).toMatchObject({ waiting: 0, aside: [{}, {}] });
});

test('what was put aside is there after a reload, is sent again when that is wanted, or let go', async () => {
  api.answers = [refusing('bad'), refusing('bad')];
  await keep(rename('bad'));
  await until(async () => (await outbox.aside()).length === 1);
  await sender.wake();
  expect(state().aside).toHaveLength(1);
  // By itself it is not sent again.
  expect(api.calls).toHaveLength(1);
  const [{ operation }] = await outbox.aside();
  await sender.sendAgain([operation.id]);
  await until(() => api.calls.length === 2 && state().aside.length === 1);
  await sender.sendAgain([operation.id]);
  await until(async () => (await outbox.all()).length === 0 && state().aside.length === 0);
  expect(api.calls).toEqual([['bad'], ['bad'], ['bad']]);
});

test.each([400, 404, 409, 413, 500, 501])(
  'an answer of %i does not pass by itself',
  async (status) => {
    api.answers = [() => throwError(() => new HttpErrorResponse({ status }))];
    await keep(rename('one'));
    await until(async () => (await outbox.aside()).length === 1);
    await keep(rename('two'));
    await until(async () => (await outbox.all()).length === 0);
    expect(api.calls).toEqual([['one'], ['two']]);
  },
);

test.each([0, 429, 502, 503, 504])('after an answer of %i it is sent again', async (status) => {
  api.answers = [() => throwError(() => new HttpErrorResponse({ status }))];
  await keep(rename('one'));
  await until(async () => (await outbox.all()).length === 0);
  expect(api.calls).toEqual([['one'], ['one']]);
  expect(await outbox.aside()).toEqual([]);
});

test('a document whose changes wait does not hold up another one', async () => {
  const other = newId();
  api.answers = Array.from(
    { length: 6 },
    () => (operations: readonly Operation[]) =>
      operations[0].documentId === documentId ? away() : undefined,
  );
  await keep(rename('here'));
  await keep(rename('there', other));
  await until(() => api.calls.some((call) => call[0] === 'there'));
  expect((await outbox.all()).map(titleOf)).toEqual(['here']);
});

test('what an earlier visit left is sent at the start', async () => {
  await outbox.add([rename('left over')]);
  await sender.wake();
  await until(async () => (await outbox.all()).length === 0);
  expect(api.calls).toEqual([['left over']]);
});

test('what waits and cannot be read is put aside, not thrown away', async () => {
  await outbox.add([{ ...rename('odd'), baseRevision: -1 }]);
  await sender.wake();
  expect((await outbox.aside()).map(({ trouble }) => trouble.code)).toEqual([
    'operation-unreadable',
  ]);
  expect(api.calls).toEqual([]);
});

test('a change that is not as it should be is put aside as it is made, and that is said', async () => {
  await keep({ ...rename('odd'), baseRevision: -1 }, rename('right'));
  await until(async () => (await outbox.all()).length === 0);
  expect(api.calls).toEqual([['right']]);
  await until(() => state().waiting === 0);
  const { aside, trouble } = state();
  expect(aside.map(({ operation }) => titleOf(operation))).toEqual(['odd']);
  expect(aside[0].trouble.detail).toContain('baseRevision');
  expect(words(0, true, aside)).toBe('All else saved');
  expect(trouble?.code).toBe('operation-unreadable');
});

test('what was written on a document that the server does not have waits for that; of one it refuses, for nothing', async () => {
  const begun = TestBed.inject(BegunDocuments);
  const id = newId();
  const wanted = { title: 'Notes', paper: { ruling: 'lined', width: 400, height: 300 }, sheets: 1 };
  const row = { id, origin: { kind: 'notebook', wanted }, title: 'Notes', at: 1, isOpenable: true };
  await (await TestBed.inject(BrowserDb).open()).put('begun', row as BegunDocument);
  await keep(rename('on it', id), rename('elsewhere'));
  await until(() => api.calls.length > 0);
  await until(() => state().waiting === 1);
  expect(api.calls).toEqual([['elsewhere']]);
  await begun.refuse(id, { code: 'internal', title: 'No', detail: '', advice: '' });
  await sender.wake();
  expect(state().waiting).toBe(0);
  await begun.remove(id);
  await sender.wake();
  await until(() => api.calls.length === 2);
  expect(api.calls[1]).toEqual(['on it']);
});

test('the state of saving in words', () => {
  expect(words(0, true)).toBe('Saved');
  expect(words(2, true)).toBe('Saving');
  expect(words(1, false)).toBe('Offline · 1 change kept here');
  expect(words(3, false)).toBe('Offline · 3 changes kept here');
  expect(words(0, true, [{}])).toBe('All else saved');
});

test('of what waits only the next is read, each document’s in its order; how much waits is counted', async () => {
  const other = newId();
  const all = Array.from({ length: 30 }, (_, i) =>
    rename(`t${i}`, i % 3 === 0 ? other : documentId),
  );
  await outbox.add(all);
  const first = await outbox.first(documentId, 5);
  expect(first.map(titleOf)).toEqual(['t1', 't2', 't4', 't5', 't7']);
  expect(await outbox.inventory()).toEqual(
    new Map([
      [documentId, 20],
      [other, 10],
    ]),
  );
});

test('what another version has left unreadable is put aside, and all else is sent', async () => {
  const broken = { ...rename('broken'), effect: { type: 'tide.turn' } } as unknown as Operation;
  await outbox.add([broken, ...Array.from({ length: 250 }, (_, i) => rename(`t${i}`))]);
  await keep(rename('last'));
  await until(async () => (await outbox.inventory()).size === 0);
  expect(api.calls.flat()).toEqual([...Array.from({ length: 250 }, (_, i) => `t${i}`), 'last']);
  expect((await outbox.aside()).map(({ operation }) => operation.id)).toEqual([broken.id]);
});
