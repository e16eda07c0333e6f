import { readFileSync } from 'node:fs';
import { connect } from 'node:net';
import { LIVE_PROTOCOL, fromServerSchema, fromWindowSchema } from '@stylet/core/api';
import type { Operation } from '@stylet/core/document';
import Ajv2020 from 'ajv/dist/2020';
import Ajv from 'ajv';
import addFormats from 'ajv-formats';
import { sql } from 'drizzle-orm';
import type WebSocket from 'ws';
import { TEST_ACCOUNT, TestServer, operation, realPdf, stroke } from '../testing/server';
import { LiveWindow } from '../testing/live-window';
import type { describedLive } from './asyncapi';
import { MOST_OF_ONE } from './routes';

let [first, second]: TestServer[] = [];
let [url, otherUrl]: string[] = [];
let documentId: string;
let pageIds: string[];
const windows: LiveWindow[] = [];

beforeAll(async () => {
  first = await TestServer.start();
  second = await first.beside();
  [url, otherUrl] = [await first.listen(), await second.listen()];
}, 120_000);
afterAll(async () => {
  await second.stop();
  await first.stop();
});
beforeEach(async () => {
  documentId = (await first.bringIn(readFileSync(realPdf('debian-refcard/refcard-en-a4.pdf')))).id;
  pageIds = (await first.document(documentId)).pages.map(({ id }) => id);
});
afterEach(() => windows.splice(0).forEach((window) => window.breakOff()));

/** A window that hears of the document. */
async function opened(at = url): Promise<LiveWindow> {
  const window = new LiveWindow(documentId);
  windows.push(window);
  await window.load(url);
  await window.connect(at);
  window.open();
  await window.first('operations');
  return window;
}

const written = (y: number): Operation =>
  operation(documentId, {
    type: 'annotation.add',
    annotation: stroke(pageIds[0], [
      [20, y],
      [80, y],
    ]),
  });

const closing = (socket: WebSocket): Promise<number> =>
  new Promise((resolve) => socket.once('close', resolve));

test('what is done in one window is heard in all others, through whichever server', async () => {
  const [here, beside, there] = [await opened(), await opened(), await opened(otherUrl)];
  for (let y = 10; y < 60; y += 10) here.make(written(y));
  there.make(written(70));
  await Promise.all([here, beside, there].map((window) => window.until(6)));
  const stored = await first.annotations(documentId);
  for (const { replica } of [here, beside, there]) {
    expect(Object.values(replica.shown.annotations[pageIds[0]])).toHaveLength(6);
    expect(Object.values(replica.shown.annotations[pageIds[0]])).toEqual(
      expect.arrayContaining(stored),
    );
  }
  // In order and without gaps, whoever did it.
  const revisions = beside.heard.flatMap((message) =>
    message.kind === 'operations' ? message.operations.map((one) => one.revision) : [],
  );
  expect(revisions).toEqual([1, 2, 3, 4, 5, 6]);
});

test('what comes over HTTP is heard as well', async () => {
  const window = await opened(otherUrl);
  await first.send(documentId, [written(30), written(40)]);
  await window.until(2);
});

test('a window that was away hears what was done since, and what it did itself is done once', async () => {
  const [away, there] = [await opened(), await opened(otherUrl)];
  away.make(written(10));
  await away.until(1);
  away.breakOff();
  away.make(written(20), written(30));
  there.make(written(40));
  await there.until(2);
  await away.connect(otherUrl);
  away.open();
  await away.until(4);
  await there.until(4);
  // What it sends again, not knowing that it came, changes nothing.
  const heard = (): number =>
    there.heard.flatMap((one) => (one.kind === 'operations' ? one.operations : [])).length;
  const again = heard();
  await first.send(documentId, [...there.replica.pending, written(50)]);
  await there.until(5);
  expect(heard()).toBe(again + 1);
  expect(away.replica.shown.annotations).toEqual(there.replica.shown.annotations);
});

test('a server that PostgreSQL tells nothing for a while misses nothing', async () => {
  const window = await opened();
  const listening = sql`select pg_terminate_backend(pid) from pg_stat_activity
    where datname = current_database() and query ilike 'listen%' or query = 'select 1'`;
  await second.services.database.execute(listening);
  await second.send(documentId, [written(10), written(20)]);
  await window.until(2);
});

test('what cannot be carried out is refused, and the socket stays', async () => {
  const window = await opened();
  const elsewhere = operation(documentId, {
    type: 'annotation.add',
    annotation: stroke('019a0000-0000-7000-8000-000000000000', [[1, 1]]),
  });
  window.make(elsewhere);
  expect((await window.first('refused')).problem).toMatchObject({
    code: 'operation-invalid',
    status: 400,
  });
  const unreadable = { ...written(10), at: 'yesterday' };
  window.say({ kind: 'perform', request: 99, documentId, operations: [unreadable] });
  expect((await window.first('refused', ({ request }) => request === 99)).problem.code).toBe(
    'request-invalid',
  );
});

test('a document of somebody else is not there: neither to hear of nor to write in', async () => {
  await first.services.database.execute(
    sql`insert into accounts (id) values ('stranger') on conflict do nothing`,
  );
  const stranger = new LiveWindow(documentId, { [TEST_ACCOUNT]: 'stranger' });
  windows.push(stranger);
  await stranger.connect(url);
  stranger.open();
  expect((await stranger.first('closed')).problem.code).toBe('document-not-found');
  stranger.make(written(10));
  expect((await stranger.first('refused')).problem.code).toBe('document-not-found');
  const { revision } = await first.document(documentId);
  expect(revision).toBe(0);
});

// RFC 6455, 7.4.1: 1003 is for data that cannot be taken, 1008 for what is against the rules, 1009 for what is too big;
// from 4000 on codes are the application's own.
test.each([
  ['bytes', 1003, (socket: WebSocket) => socket.send(Buffer.from([1, 2, 3]))],
  ['no JSON', 1008, (socket: WebSocket) => socket.send('{"kind":')],
  ['another kind', 1008, (socket: WebSocket) => socket.send('{"kind":"drop"}')],
  ['no revision', 1008, (socket: WebSocket) => socket.send(JSON.stringify({ kind: 'open' }))],
  ['too much', 1009, (socket: WebSocket) => socket.send('x'.repeat(17 * 1024 * 1024))],
])('%s closes the socket with %i, and nobody else’s', async (_, code, send) => {
  const [bad, good] = [await opened(), await opened()];
  const socket = await new LiveWindow(documentId).connect(url);
  bad.breakOff();
  send(socket);
  expect(await closing(socket)).toBe(code);
  good.make(written(10));
  await good.until(1);
});

test('what one account has open keeps nobody else from being heard', async () => {
  await first.services.database.execute(
    sql`insert into accounts (id) values ('many') on conflict do nothing`,
  );
  const many = new LiveWindow(documentId, { [TEST_ACCOUNT]: 'many' });
  const sockets = await Promise.all(Array.from({ length: MOST_OF_ONE }, () => many.connect(url)));
  // RFC 6455, 7.4.1 and IANA’s registry of close codes: 1013 is “try again later”.
  expect(await closing(await many.connect(url))).toBe(1013);
  const other = await opened();
  other.make(written(10));
  await other.until(1);
  // Once the server has noticed that one has gone there is room again.
  sockets[0].terminate();
  for (let answer: unknown = 1013; answer === 1013;) {
    const socket = await many.connect(url);
    many.open();
    answer = await Promise.race([closing(socket), many.first('closed')]);
  }
  for (const socket of sockets) socket.terminate();
});

test('a window of another version is told so', async () => {
  const socket = await new LiveWindow(documentId).connect(url, 'stylet.live.0');
  expect(await closing(socket)).toBe(4001);
});

// RFC 9110, 7.8: a server may ignore or refuse an upgrade, and answers then as without it.
test.each([
  ['a page of another site gets no socket', '/api/live', 'https://elsewhere.example', 403],
  ['what is no socket is answered all the same', '/api/health', undefined, 200],
  ['nor is there one where there is nothing', '/api/nothing', undefined, 404],
])('%s, and keeps no connection', async (_, path, origin, status) => {
  const port = Number(new URL(url).port);
  const socket = connect(port, '127.0.0.1');
  const from = origin === undefined ? '' : `Origin: ${origin}\r\n`;
  socket.write(
    `GET ${path} HTTP/1.1\r\nHost: 127.0.0.1:${port}\r\n${from}` +
      'Upgrade: websocket\r\nConnection: Upgrade\r\nSec-WebSocket-Version: 13\r\n' +
      `Sec-WebSocket-Key: dGhlIHNhbXBsZSBub25jZQ==\r\nSec-WebSocket-Protocol: ${LIVE_PROTOCOL}\r\n\r\n`,
  );
  let answer = '';
  for await (const part of socket) answer += String(part);
  expect(Number(/^HTTP\/1\.1 (\d+)/.exec(answer)?.[1])).toBe(status);
});

test('what is said is as it is described: AsyncAPI 3.0.0, by its own schema, and JSON Schema 2020-12', async () => {
  const described = (await first.app.inject('/api/asyncapi.json')).json<
    ReturnType<typeof describedLive>
  >();
  // The specification's schema, as its authors publish it for npm.
  const specification = JSON.parse(
    readFileSync(require.resolve('@asyncapi/specs/schemas/3.0.0-without-$id.json'), 'utf8'),
  ) as object;
  const ofSpecification = new Ajv({ strict: false, logger: false });
  addFormats(ofSpecification);
  const isDescription = ofSpecification.compile(specification);
  isDescription(described);
  expect(isDescription.errors).toBeNull();

  const { fromWindow, fromServer } = (
    described as { channels: { live: { messages: Record<string, { payload: object }> } } }
  ).channels.live.messages;
  const ofMessages = new Ajv2020({ strict: false, logger: false });
  addFormats(ofMessages);
  const [said, heard] = [fromWindow, fromServer].map(({ payload }) => ofMessages.compile(payload));
  const window = await opened();
  window.make(written(10));
  await window.until(1);
  await first.send(documentId, [written(20)]);
  await window.until(2);
  for (const message of window.heard) expect([heard(message), heard.errors]).toEqual([true, null]);
  const asked = { kind: 'perform', request: 1, documentId, operations: [written(1)] };
  expect([said(asked), said.errors]).toEqual([true, null]);
  // Both tell the same from what they are not.
  for (const wrong of [{ kind: 'open' }, { ...asked, operations: [] }, { ...asked, request: -1 }]) {
    expect(said(wrong)).toBe(false);
    expect(fromWindowSchema.safeParse(wrong).success).toBe(false);
  }
  expect(heard({ kind: 'beat' })).toBe(fromServerSchema.safeParse({ kind: 'beat' }).success);
});
