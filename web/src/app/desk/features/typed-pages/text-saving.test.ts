import { HttpErrorResponse } from '@angular/common/http';
import { TestBed } from '@angular/core/testing';
import { of, throwError, type Observable } from 'rxjs';
import type { DocumentText, TextChange, TextChanged } from '@stylet/core/api';
import { newId } from '@stylet/core/document';
import { usualSetup, type TypedText } from '@stylet/core/typed-pages';
import { Api } from '../../../api/api';
import { BrowserDb } from '../../../storage/browser-db';
import { TextSaving } from './text-saving';

const text = (...words: string[]): TypedText => ({
  setup: usualSetup(),
  blocks: words.map((one, i) => ({ kind: 'paragraph', id: `p${i}`, runs: [{ text: one }] })),
});
const wordsOf = ({ blocks }: TypedText): string[] =>
  blocks.flatMap((block) => (block.kind === 'paragraph' ? block.runs.map((run) => run.text) : []));

/** A server with one text; `mode` is how it answers. */
class Server {
  now: DocumentText = { source: '0', text: text('one', 'two') };
  mode: 'answers' | 'away' | 'answerLost' = 'answers';
  /** How long it seems to take, in ms. */
  takes = 0;
  private count = 0;

  text(): Observable<DocumentText> {
    // What comes over the line is never the same object.
    return of(structuredClone(this.now));
  }

  setText(_id: string, { base, text: changed }: TextChange): Observable<TextChanged> {
    const late = Date.now() + this.takes;
    if (this.takes > 0) jest.spyOn(Date, 'now').mockReturnValue(late);
    const away = throwError(() => new HttpErrorResponse({ status: 0 }));
    if (this.mode === 'away') return away;
    if (base !== this.now.source) {
      const error = { code: 'text-changed', title: '', detail: '', advice: '', status: 409 };
      return throwError(
        () => new HttpErrorResponse({ status: 409, error: { type: 'about:blank', ...error } }),
      );
    }
    this.now = { source: String(++this.count), text: structuredClone(changed) };
    return this.mode === 'answerLost' ? away : of({ source: this.now.source, revision: 1 });
  }
}

let server: Server;
let saving: TextSaving;
let current: TypedText;
let id: string;
const taken: boolean[] = [];
const hooks = {
  text: () => current,
  take: (both: TypedText, isContested: boolean) => {
    current = both;
    taken.push(isContested);
  },
  source: () => undefined,
};

beforeEach(async () => {
  server = new Server();
  taken.length = 0;
  id = newId();
  TestBed.configureTestingModule({ providers: [{ provide: Api, useValue: server }] });
  saving = TestBed.inject(TextSaving);
  current = await saving.open(id, hooks);
});
afterEach(() => {
  saving.close();
  jest.restoreAllMocks();
});

const waiting = async () => (await TestBed.inject(BrowserDb).open()).get('texts', id);

test('what was typed is sent, and kept here no longer', async () => {
  current = text('one', 'two', 'three');
  saving.changed();
  await saving.flush();
  expect(wordsOf(server.now.text)).toEqual(['one', 'two', 'three']);
  expect([saving.state(), await waiting()]).toEqual(['saved', undefined]);
});

test('what was typed while the server was away is found again, and goes with what others have made of it', async () => {
  server.mode = 'away';
  current = text('one', 'two, here');
  saving.changed();
  await saving.flush();
  expect(saving.state()).toBe('away');
  saving.close();
  server.mode = 'answers';
  server.now = { source: 'x', text: text('one, there', 'two') };
  current = await saving.open(id, hooks);
  expect(wordsOf(current)).toEqual(['one, there', 'two, here']);
  await saving.flush();
  expect(wordsOf(server.now.text)).toEqual(['one, there', 'two, here']);
  expect(await waiting()).toBeUndefined();
});

test('an answer that was lost leaves nothing twice', async () => {
  server.mode = 'answerLost';
  current = text('one', 'two', 'three');
  saving.changed();
  await saving.flush();
  server.mode = 'answers';
  current = text('one', 'two', 'three, and more');
  saving.changed();
  await saving.flush();
  await saving.flush();
  expect(wordsOf(server.now.text)).toEqual(['one', 'two', 'three, and more']);
  expect(taken).toEqual([]);
});

test('what two have changed at the same time is both there, which is said', async () => {
  server.now = { source: 'y', text: text('one, there', 'two') };
  current = text('one, here', 'two');
  saving.changed();
  await saving.flush();
  await saving.flush();
  expect(taken).toEqual([true]);
  expect(wordsOf(server.now.text)).toEqual(['one, there', 'one, here', 'two']);
});

test('what others make is read, though what was sent from here was heard of just before', async () => {
  current = text('one', 'two', 'three');
  saving.changed();
  await saving.flush();
  // Pages tell of both within the time in which they are not looked into.
  saving.heard(server.now.source);
  server.now = { source: 'z', text: text('one, there', 'two', 'three') };
  saving.heard('z');
  await new Promise((resolve) => setTimeout(resolve, 1200));
  expect(wordsOf(current)).toEqual(['one, there', 'two', 'three']);
});

test('after an answer that took a minute the next change waits for seconds', async () => {
  server.takes = 60_000;
  current = text('one', 'two', 'three');
  saving.changed();
  await saving.flush();
  const timers = jest.spyOn(globalThis, 'setTimeout');
  saving.changed();
  expect(timers.mock.calls.map(([, wait]) => wait)).toEqual([8000]);
});
