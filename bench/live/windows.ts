import { spawn } from 'node:child_process';
import { once } from 'node:events';
import { readFileSync } from 'node:fs';
import { join } from 'node:path';
import { setTimeout as wait } from 'node:timers/promises';
import { newId, type Operation } from '@stylet/core/document';
import type { WebSocket } from 'ws';
import { Instance, root } from '../../e2e/support/instance';
import { share, type Benchmark } from '../benchmark';
import { served } from '../prepared';
import { connected, opened, sheet, stroke } from './sheet';

const WINDOWS = 50;
/** Operations of each window a second, and for how many seconds. */
const RATE = 20;
const SECONDS = Number(process.env['STYLET_SECONDS'] ?? 30);

/** How long it took until a window had what another had sent, in ms. */
interface Delays {
  readonly p50: number;
  readonly p99: number;
  readonly count: number;
}

/** Has all windows write for some time. `idsIn` gives the operations that a message brings. */
async function written(
  sockets: readonly WebSocket[],
  messageOf: (operation: Operation) => string,
  idsIn: (text: string) => readonly string[],
  make: () => Operation,
): Promise<Delays> {
  const sent = new Map<string, number>();
  const delays: number[] = [];
  for (const socket of sockets)
    socket.on('message', (data: Buffer) => {
      const now = performance.now();
      for (const id of idsIn(data.toString())) delays.push(now - (sent.get(id) ?? now));
    });
  const end = performance.now() + SECONDS * 1000;
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
  for (const socket of sockets) socket.terminate();
  return { p50: share(delays, 0.5), p99: share(delays, 0.99), count: sent.size };
}

interface Heard {
  readonly kind: string;
  readonly operations?: readonly { readonly operation?: { readonly id: string } }[];
}

const memoryOf = (pid: number): number =>
  Number(/VmRSS:\s+(\d+)/.exec(readFileSync(`/proc/${pid}/status`, 'utf8'))![1]) / 1024;

/** Through two servers. The note of memory is of both, as it was in the middle and at the end. */
async function throughServers(first: Instance): Promise<Delays & { readonly note: string }> {
  const second = await first.beside();
  return served(second, async () => {
    const { id, pageId } = await sheet(first);
    const sockets: WebSocket[] = [];
    for (let i = 0; i < WINDOWS; i++) {
      const socket = await opened(i % 2 === 0 ? first : second);
      socket.send(JSON.stringify({ kind: 'open', documentId: id, since: 0 }));
      sockets.push(socket);
    }
    const memory = (): number => Math.round(memoryOf(first.pid) + memoryOf(second.pid));
    const middle = wait(SECONDS * 500).then(memory);
    let request = 0;
    const delays = await written(
      sockets,
      (operation) =>
        JSON.stringify({
          kind: 'perform',
          request: ++request,
          documentId: id,
          operations: [operation],
        }),
      (text) => {
        const { kind, operations = [] } = JSON.parse(text) as Heard;
        return kind === 'operations' ? operations.map((one) => one.operation!.id) : [];
      },
      () => stroke(id, pageId),
    );
    return { ...delays, note: `memory ${await middle} then ${memory()} MB` };
  });
}

async function throughEcho(): Promise<Delays> {
  const server = spawn(process.execPath, [join(root, 'bench/live/echo.mjs')], {
    stdio: ['ignore', 'pipe', 'inherit'],
  });
  try {
    const [port] = (await once(server.stdout, 'data')) as [Buffer];
    const sockets: WebSocket[] = [];
    for (let i = 0; i < WINDOWS; i++)
      sockets.push(await connected(`ws://127.0.0.1:${String(port).trim()}`));
    const ids = [newId(), newId()];
    return await written(
      sockets,
      (operation) => JSON.stringify({ operation }),
      (text) => [(JSON.parse(text) as { operation: Operation }).operation.id],
      () => stroke(ids[0], ids[1]),
    );
  } finally {
    server.kill();
  }
}

export const live50: Benchmark = {
  name: 'live-50',
  about: `${WINDOWS} windows write ${RATE} strokes a second each through two servers: p99 until all have them, against a bare echo`,
  async run() {
    const bare = await throughEcho();
    const ours = await served(await Instance.create('bench'), throughServers);
    const words = ({ p50, p99, count }: Delays): string =>
      `${count} strokes, p50 ${p50.toFixed(1)}, p99 ${p99.toFixed(1)} ms`;
    return {
      kind: 'ratio',
      value: ours.p99 / bare.p99,
      baseline: 'a bare echo over the same library',
      goal: 3,
      note: `ours ${words(ours)}; echo ${words(bare)}; ${ours.note}`,
    };
  },
};
