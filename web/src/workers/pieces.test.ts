/** @jest-environment node */
import { createServer, type IncomingMessage, type Server, type ServerResponse } from 'node:http';
import type { AddressInfo } from 'node:net';
import { fetchPiece } from './pieces';

const FILE = Uint8Array.from({ length: 1000 }, (_, i) => i % 251);

let answer: (request: IncomingMessage, reply: ServerResponse) => void;
let server: Server;
let url: string;
beforeAll(async () => {
  server = createServer((request, reply) => answer(request, reply));
  await new Promise<void>((listening) => server.listen(0, '127.0.0.1', listening));
  url = `http://127.0.0.1:${(server.address() as AddressInfo).port}/file`;
});
afterAll(() => server.close());

const { signal } = new AbortController();

/** Answers with a part of the file that says it is from `begin` on. */
const part =
  (begin: number, bytes: Uint8Array, size = FILE.length) =>
  (_: IncomingMessage, reply: ServerResponse): void => {
    const range = `bytes ${begin}-${begin + bytes.length - 1}/${size}`;
    reply.writeHead(206, { 'content-range': range, etag: '"a"' }).end(bytes);
  };

// RFC 9110, 14.1.2: “bytes=0-499” are the first 500 bytes, “bytes=-500” the final 500.
test('the first and the last bytes are asked for as RFC 9110 has it', async () => {
  const asked: unknown[] = [];
  const answering =
    (begin: number) =>
    (request: IncomingMessage, reply: ServerResponse): void => {
      asked.push(request.headers.range);
      part(begin, FILE.subarray(begin, begin + 500))(request, reply);
    };
  answer = answering(0);
  const head = await fetchPiece(url, { begin: 0, end: 500 }, signal);
  answer = answering(500);
  const tail = await fetchPiece(url, { last: 500 }, signal);
  expect(asked).toEqual(['bytes=0-499', 'bytes=-500']);
  expect([head.begin, head.size, head.tag]).toEqual([0, 1000, '"a"']);
  expect([tail.begin, tail.size]).toEqual([500, 1000]);
  expect(Buffer.concat([head.bytes, tail.bytes])).toEqual(Buffer.from(FILE));
});

// RFC 9110, 14.2: a server may ignore the field, and 14.1.2: of a shorter file the last bytes are all of it.
test('a server that sends all of a file has sent its first and its last bytes', async () => {
  answer = (_, reply) => reply.writeHead(200).end(FILE);
  const whole = await fetchPiece(url, { last: 10 }, signal);
  expect([whole.begin, whole.size, whole.bytes.length]).toEqual([0, 1000, 1000]);
  answer = part(0, FILE);
  expect(await fetchPiece(url, { last: 5000 }, signal)).toMatchObject({ begin: 0, size: 1000 });
});

test.each([
  [
    'fewer bytes than it says',
    (_: IncomingMessage, reply: ServerResponse): void =>
      void reply.writeHead(206, { 'content-range': 'bytes 0-499/1000' }).end(FILE.subarray(0, 400)),
  ],
  ['bytes past the end', part(900, FILE.subarray(0, 200))],
  [
    'no range',
    (_: IncomingMessage, reply: ServerResponse): void => void reply.writeHead(206).end(FILE),
  ],
  [
    'a range of unknown length',
    (_: IncomingMessage, reply: ServerResponse): void =>
      void reply.writeHead(206, { 'content-range': 'bytes 0-999/*' }).end(FILE),
  ],
])('an answer with %s is no part of the file', async (_, answering) => {
  answer = answering;
  await expect(fetchPiece(url, { begin: 0, end: 500 }, signal)).rejects.toThrow('another part');
});

test('what the server refuses says with which status', async () => {
  answer = (_, reply) => reply.writeHead(404).end();
  await expect(fetchPiece(url, { last: 10 }, signal)).rejects.toThrow('404');
});
