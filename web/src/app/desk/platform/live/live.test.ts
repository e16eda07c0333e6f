import { HttpErrorResponse } from '@angular/common/http';
import { TestBed } from '@angular/core/testing';
import { LIVE_BEAT, LIVE_PROTOCOL, type FromServer, type FromWindow } from '@stylet/core/api';
import { newId, type Operation } from '@stylet/core/document';
import { Live } from './live';

/** A server at the other end, which opens, hears, says and breaks off when it is told to. */
class FakeSocket {
  static readonly OPEN = 1;
  static all: FakeSocket[] = [];
  static get last(): FakeSocket {
    return FakeSocket.all.at(-1)!;
  }

  readyState = 0;
  readonly said: FromWindow[] = [];
  onopen: (() => void) | null = null;
  onmessage: ((event: { data: string }) => void) | null = null;
  onclose: ((event: { code: number }) => void) | null = null;

  constructor(
    readonly url: URL,
    readonly protocol: string,
  ) {
    FakeSocket.all.push(this);
  }

  send(text: string): void {
    this.said.push(JSON.parse(text) as FromWindow);
  }

  close(): void {
    this.readyState = 3;
  }

  opens(): void {
    this.readyState = FakeSocket.OPEN;
    this.onopen?.();
  }

  says(message: FromServer): void {
    this.onmessage?.({ data: JSON.stringify(message) });
  }

  breaks(code = 1006): void {
    this.readyState = 3;
    this.onclose?.({ code });
  }
}

const documentId = newId();
const rename: Operation = {
  id: newId(),
  documentId,
  author: 'A',
  at: '2026-09-01T08:00:00.000Z',
  baseRevision: 0,
  effect: { type: 'document.rename', title: 'Tides' },
};
const problem = {
  type: 'urn:stylet:problem:operation-invalid',
  title: 'No',
  status: 400,
  detail: '',
  code: 'operation-invalid' as const,
  advice: 'Reload.',
};

let live: Live;
let since = 3;
let heard: number[];
beforeEach(() => {
  jest.useFakeTimers();
  jest.spyOn(Math, 'random').mockReturnValue(0.5);
  FakeSocket.all = [];
  (globalThis as { WebSocket: unknown }).WebSocket = FakeSocket;
  live = TestBed.inject(Live);
  since = 3;
  heard = [];
});
afterEach(() => jest.useRealTimers());

const open = () =>
  live.open(documentId, {
    since: () => since,
    heard: ({ operations, revision }) =>
      heard.push(...operations.map((one) => one.revision), revision),
    closed: () => undefined,
  });

test('a document is heard of from what is known, and again from there after a break', () => {
  open();
  const [first] = FakeSocket.all;
  expect([first.url.href, first.protocol]).toEqual(['ws://localhost/api/live', LIVE_PROTOCOL]);
  first.opens();
  expect(live.isConnected()).toBe(true);
  expect(first.said).toEqual([{ kind: 'open', documentId, since: 3 }]);
  first.says({
    kind: 'operations',
    documentId,
    revision: 4,
    operations: [{ operation: rename, revision: 4 }],
  });
  expect(heard).toEqual([4, 4]);
  since = 4;
  first.breaks();
  expect(live.isConnected()).toBe(false);
  jest.advanceTimersByTime(400);
  FakeSocket.last.opens();
  expect(FakeSocket.last.said).toEqual([{ kind: 'open', documentId, since: 4 }]);
});

test('pauses grow while nobody answers, and end when the network is back', () => {
  open();
  const tries = () => FakeSocket.all.length;
  for (let i = 0; i < 6; i++) {
    FakeSocket.last.breaks();
    jest.advanceTimersByTime(20_000);
  }
  expect(tries()).toBe(7);
  FakeSocket.last.breaks();
  jest.advanceTimersByTime(5000);
  expect(tries()).toBe(7);
  window.dispatchEvent(new Event('online'));
  expect(tries()).toBe(8);
});

test('a connection that is half open is given up, though it never closes', () => {
  open();
  const [first] = FakeSocket.all;
  first.opens();
  for (let i = 0; i < 5; i++) {
    jest.advanceTimersByTime(LIVE_BEAT);
    first.says({ kind: 'beat' });
  }
  expect(live.isConnected()).toBe(true);
  jest.advanceTimersByTime(2.5 * LIVE_BEAT);
  expect(live.isConnected()).toBe(false);
  expect(first.readyState).toBe(3);
});

test('operations are answered, refused as over HTTP, and given back when the socket breaks', async () => {
  expect(live.perform(documentId, [rename])).toBeUndefined();
  open();
  FakeSocket.last.opens();
  const asked = () => live.perform(documentId, [rename])!;
  const [done, refused, lost] = [asked(), asked(), asked()];
  const requests = FakeSocket.last.said.flatMap((one) =>
    one.kind === 'perform' ? one.request : [],
  );
  const result = { revision: 5, operations: [{ id: rename.id, revision: 5 }], removedPages: [] };
  FakeSocket.last.says({ kind: 'refused', request: requests[1], problem });
  FakeSocket.last.says({ kind: 'performed', request: requests[0], ...result });
  FakeSocket.last.breaks();
  await expect(done).resolves.toMatchObject(result);
  await expect(refused).rejects.toMatchObject({ status: 400, error: problem });
  await expect(lost).rejects.toBeInstanceOf(HttpErrorResponse);
  await expect(lost).rejects.toMatchObject({ status: 0 });
});

test('a document that is left is not heard of any more, nor asked for again', () => {
  const leave = open();
  FakeSocket.last.opens();
  leave();
  expect(FakeSocket.last.said.at(-1)).toEqual({ kind: 'close', documentId });
  FakeSocket.last.says({ kind: 'operations', documentId, revision: 9, operations: [] });
  expect(heard).toEqual([]);
  FakeSocket.last.breaks();
  jest.advanceTimersByTime(400);
  FakeSocket.last.opens();
  expect(FakeSocket.last.said).toEqual([]);
});

// RFC 6455, 7.4.2: codes from 4000 on are the application's own.
test('a server of another version is not asked again and again', () => {
  open();
  FakeSocket.last.opens();
  FakeSocket.last.breaks(4001);
  expect(live.isOutdated()).toBe(true);
  jest.advanceTimersByTime(60_000);
  expect(FakeSocket.all).toHaveLength(1);
});

test('what is not understood changes nothing', () => {
  jest.spyOn(console, 'warn').mockImplementation();
  open();
  FakeSocket.last.opens();
  FakeSocket.last.onmessage?.({ data: '{"kind":"later"}' });
  expect([heard, live.isConnected()]).toEqual([[], true]);
});
