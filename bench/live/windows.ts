import { spawn } from 'node:child_process';
import { once } from 'node:events';
import { readFileSync } from 'node:fs';
import { join } from 'node:path';
import { setTimeout as wait } from 'node:timers/promises';
import { newId, type Operation } from '@stylet/core/document';
import type { WebSocket } from 'ws';
import { Instance, root } from '../../e2e/support/instance';
import { median, share, type Benchmark } from '../benchmark';
import { served } from '../prepared';
import { connected, opened, sheet, stroke } from './sheet';

const WINDOWS = 50;
/** Operations of each window a second, and for how many seconds. */
const RATE = 20;
const SECONDS = Number(process.env['STYLET_SECONDS'] ?? 30);
/** Both take turns, so that what else the machine does is the same for both. */
const TURNS = 3;

/** How long it took until a window had what another had sent, in ms. */
interface Delays {
  readonly p50: number;
  readonly p99: number;
  readonly count: number;
}

/** Windows that write and hear each other. */
interface Party {
  readonly sockets: readonly WebSocket[];
  make(): Operation;
  messageOf(operation: Operation): string;
  /** The operations that a message brings. */
  idsIn(text: string): readonly string[];
}

/** Has all windows write for some time. */
async function written(
  { sockets, make, messageOf, idsIn }: Party,
  seconds: number,
): Promise<Delays> {
  const sent = new Map<string, number>();
  const delays: number[] = [];
  const hear = (data: Buffer): void => {
    const now = performance.now();
    for (const id of idsIn(data.toString())) delays.push(now - sent.get(id)!);
  };
  for (const socket of sockets) socket.on('message', hear);
  const end = performance.now() + seconds * 1000;
  await Promise.all(
    sockets.map(async (socket, i) => {
      const begun = performance.now() + (i * 1000) / RATE / WINDOWS;
      for (let turn = 0; ; turn++) {
        const due = begun + (turn * 1000) / RATE;
        if (due > end) return;
        await wait(Math.max(0, due - performance.now()));
        const operation = make();
        sent.set(operation.id, performance.now());
        socket.send(messageOf(operation));
      }
    }),
  );
  const wanted = sent.size * (sockets.length - 1);
  for (let i = 0; delays.length < wanted && i < 600; i++) await wait(100);
  if (delays.length < wanted) throw new Error(`${delays.length} of ${wanted} came`);
  for (const socket of sockets) socket.off('message', hear);
  return { p50: share(delays, 0.5), p99: share(delays, 0.99), count: sent.size };
}

interface Heard {
  readonly kind: string;
  readonly operations?: readonly { readonly operation?: { readonly id: string } }[];
}

const memoryOf = (pid: number): number =>
  Number(/VmRSS:\s+(\d+)/.exec(readFileSync(`/proc/${pid}/status`, 'utf8'))![1]) / 1024;

/** Windows of one document, on two servers by turns. */
async function partyAt(servers: readonly Instance[]): Promise<Party> {
  const { id, pageId } = await sheet(servers[0]);
  // What is done once with a file that has come is not what is measured.
  await servers[0].drawn();
  const sockets: WebSocket[] = [];
  for (let i = 0; i < WINDOWS; i++) {
    const socket = await opened(servers[i % servers.length]);
    const first = once(socket, 'message');
    socket.send(JSON.stringify({ kind: 'open', documentId: id, since: 0 }));
    await first;
    sockets.push(socket);
  }
  let request = 0;
  return {
    sockets,
    make: () => stroke(id, pageId),
    messageOf: (operation) =>
      JSON.stringify({
        kind: 'perform',
        request: ++request,
        documentId: id,
        operations: [operation],
      }),
    idsIn: (text) => {
      const { kind, operations = [] } = JSON.parse(text) as Heard;
      return kind === 'operations' ? operations.map((one) => one.operation!.id) : [];
    },
  };
}

async function withEcho<T>(work: (party: Party) => Promise<T>): Promise<T> {
  const server = spawn(process.execPath, [join(root, 'bench/live/echo.mjs')], {
    stdio: ['ignore', 'pipe', 'inherit'],
  });
  try {
    const [port] = (await once(server.stdout, 'data')) as [Buffer];
    const sockets: WebSocket[] = [];
    for (let i = 0; i < WINDOWS; i++)
      sockets.push(await connected(`ws://127.0.0.1:${String(port).trim()}`));
    const ids = [newId(), newId()];
    return await work({
      sockets,
      make: () => stroke(ids[0], ids[1]),
      messageOf: (operation) => JSON.stringify({ operation }),
      idsIn: (text) => [(JSON.parse(text) as { operation: Operation }).operation.id],
    });
  } finally {
    server.kill();
  }
}

export const live50: Benchmark = {
  name: 'live-50',
  about: `${WINDOWS} windows write ${RATE} strokes a second each through two servers: p99 until all have them, against a bare echo`,
  run: () =>
    withEcho(async (echo) =>
      served(await Instance.create('bench'), async (first) =>
        served(await first.beside(), async (second) => {
          const ours = await partyAt([first, second]);
          const memory: number[] = [];
          const turns: { readonly bare: Delays; readonly own: Delays }[] = [];
          for (let turn = 0; turn < TURNS; turn++) {
            const bare = await written(echo, SECONDS / TURNS);
            const own = await written(ours, SECONDS / TURNS);
            turns.push({ bare, own });
            memory.push(Math.round(memoryOf(first.pid) + memoryOf(second.pid)));
          }
          const words = (all: readonly Delays[]): string =>
            all
              .map(({ p50, p99, count }) => `${count}: ${p50.toFixed(1)}, ${p99.toFixed(1)}`)
              .join('; ');
          return {
            kind: 'ratio',
            value: median(turns.map(({ bare, own }) => own.p99 / bare.p99)),
            baseline: 'a bare echo over the same library',
            goal: 3,
            note: [
              `strokes in each of ${TURNS} turns, p50 and p99 in ms: ours ${words(turns.map(({ own }) => own))}`,
              `echo ${words(turns.map(({ bare }) => bare))}`,
              `memory ${memory.join(', ')} MB`,
            ].join('; '),
          };
        }),
      ),
    ),
};
