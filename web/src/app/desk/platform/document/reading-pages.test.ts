import { HttpErrorResponse } from '@angular/common/http';
import { signal } from '@angular/core';
import { TestBed } from '@angular/core/testing';
import type { StyletDocument } from '@stylet/core/api';
import { newId, noHistory, type Annotation } from '@stylet/core/document';
import { provideEffects } from '@ngrx/effects';
import { provideStore, Store } from '@ngrx/store';
import { of, throwError, type Observable } from 'rxjs';
import { Api } from '../../../api/api';
import { documentActions, documentFeature } from './document.reducer';
import { Editing } from './editing';
import { ReadingPages } from './reading-pages';
import { UnreadPages } from './unread-pages';

const id = newId();
const pages = Array.from({ length: 9 }, (_, i) => ({ id: newId(), order: `a${i}` }));
const NOW = '2026-09-01T08:00:00.000Z';
const inkOn = (pageId: string): Annotation =>
  ({ kind: 'ink', id: newId(), pageId, order: 'a0', modified: NOW }) as unknown as Annotation;
const inked = pages.map((page) => inkOn(page.id));

/** A server with at least one stroke on each page. */
class FakeApi {
  readonly asked: string[][] = [];
  counts: readonly number[] = [];
  fails: Observable<unknown> | undefined;

  annotationsOn(_: string, pageIds: string[]): Observable<unknown> {
    this.asked.push(pageIds);
    const annotations = pageIds.flatMap((pageId) => {
      const at = pages.findIndex((page) => page.id === pageId);
      const more = Array.from({ length: this.counts[at] - 1 }, () => inkOn(pageId));
      return [inked[at], ...more];
    });
    return this.fails ?? of({ revision: 4, annotations, unread: [] });
  }
}

let api: FakeApi;
let store: Store;
let unread: UnreadPages;
const places = (ids: readonly string[]) => ids.map((one) => pages.findIndex((p) => p.id === one));
const settled = async () => {
  for (let i = 0; i < 6; i++) {
    TestBed.tick();
    await new Promise((resolve) => setTimeout(resolve));
  }
};

function open(counts: readonly number[]): void {
  api.counts = counts;
  store.dispatch(documentActions.opened({ id }));
  store.dispatch(
    documentActions.loaded({
      document: {
        id,
        title: 'Waves',
        pages,
        landmarks: [],
        place: null,
        revision: 4,
      } as unknown as StyletDocument,
      annotations: [],
      unread: counts.map((count, i) => ({ pageId: pages[i].id, count })),
      waiting: [],
      history: noHistory,
    }),
  );
}

beforeEach(() => {
  api = new FakeApi();
  TestBed.configureTestingModule({
    providers: [
      { provide: Api, useValue: api },
      provideStore({ document: documentFeature.reducer }),
      provideEffects(ReadingPages),
    ],
  });
  store = TestBed.inject(Store);
  unread = TestBed.inject(UnreadPages);
});

test('nothing is read that nobody wants; what is in view comes first, all when all is wanted', async () => {
  open([1, 1, 1, 1, 1, 1, 1, 1, 1]);
  await settled();
  expect(api.asked).toEqual([]);
  const stop = unread.want(signal([pages[4].id, pages[5].id]));
  await settled();
  expect(api.asked.map(places)).toEqual([[4, 5]]);
  expect(store.selectSignal(documentFeature.selectAnnotations)()[pages[4].id][inked[4].id]).toBe(
    inked[4],
  );
  stop();
  unread.lookAt(signal(6), signal(false));
  unread.want(signal('all' as const));
  await settled();
  expect(api.asked.slice(1).map(places)).toEqual([[6, 7, 8, 3, 2, 1, 0]]);
  expect(unread.hasAny()).toBe(false);
});

test('once what is looked at is drawn, some come unasked, nearest first, and no more than a bound', async () => {
  open([1500, 1500, 1500, 900, 1500, 900, 1500, 1500, 1500]);
  unread.lookAt(signal(4), signal(true));
  await settled();
  expect(api.asked.map(places)).toEqual([[4], [3], [5]]);
});

test('undo of something on a page that is not here reads it first', async () => {
  open([1, 1, 1]);
  const [, , third] = inked;
  store.dispatch(
    documentActions.stepMade({
      documentId: id,
      kind: 'changed',
      step: {
        operations: [],
        reversals: [
          {
            effect: { type: 'annotation.remove', pageId: third.pageId, annotationId: third.id },
            of: { type: 'annotation.add', annotation: third },
          },
        ],
      },
    }),
  );
  TestBed.inject(Editing).undo();
  await settled();
  expect(api.asked.map(places)).toEqual([[2]]);
  expect(store.selectSignal(documentFeature.selectAnnotations)()[third.pageId]).toEqual({});
});

test('while the server is away it is asked again; what it refuses is told, and not asked for ever', async () => {
  jest.useFakeTimers();
  try {
    open([1]);
    api.fails = throwError(() => new HttpErrorResponse({ status: 503 }));
    unread.want(signal([pages[0].id]));
    for (let i = 0; i < 8; i++) {
      TestBed.tick();
      await jest.advanceTimersByTimeAsync(1000);
    }
    expect(api.asked.length).toBeGreaterThan(1);
    const told = jest.spyOn(console, 'error').mockImplementation(() => undefined);
    api.fails = throwError(() => new HttpErrorResponse({ status: 404 }));
    api.asked.length = 0;
    for (let i = 0; i < 20; i++) {
      TestBed.tick();
      await jest.advanceTimersByTimeAsync(1000);
    }
    expect([api.asked.length, told.mock.calls.length]).toEqual([1, 1]);
    told.mockRestore();
  } finally {
    jest.useRealTimers();
  }
});

test('who needs a page is told whether it came', async () => {
  jest.useFakeTimers();
  try {
    open([1]);
    expect(await unread.need([pages[1].id])).toBe(true);
    api.fails = throwError(() => new HttpErrorResponse({ status: 0 }));
    const needed = unread.need([pages[0].id]);
    await jest.advanceTimersByTimeAsync(9000);
    expect(await needed).toBe(false);
  } finally {
    jest.useRealTimers();
  }
});
