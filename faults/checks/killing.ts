import { readdirSync } from 'node:fs';
import { join } from 'node:path';
import { setTimeout as wait } from 'node:timers/promises';
import { insist, type Check } from '../check';
import { childrenOf } from '../under-fault';
import { Writer } from '../writing';
import { smallBook } from './database';

const KILLS = 3;

/** The server is killed while somebody writes; whoever keeps it up starts it again. */
export const killing: Check = {
  name: 'a server that is killed is started again, which is said, and loses nothing',
  async run(server, seed, tally) {
    const writer = await Writer.on(server, smallBook());
    for (let i = 0; i < KILLS; i++) {
      await writer.more(3 + ((seed + i) % 7));
      server.said = '';
      server.kill();
      tally.kills++;
      await server.answers();
      insist(
        server.said.includes('It is started again'),
        'it is not said that it was started again',
      );
    }
    await writer.more(3);
    await writer.finish(tally);
  },
};

/** Ending in the middle of everything takes its time, but not more than ten seconds. */
export const ending: Check = {
  name: 'asked to end in the middle of everything it does so within 10 s, and leaves nothing behind',
  async run(server, seed, tally) {
    const book = smallBook();
    const made = (await (await server.upload(book)).json()) as { id: string };
    // Uploads that hang, exports and covers on their way.
    const hanging = new ReadableStream<Uint8Array>({
      async pull(controller) {
        await wait(50);
        controller.enqueue(new Uint8Array(1024));
      },
    });
    const asked = [
      fetch(`${server.url}/api/documents`, {
        method: 'POST',
        body: hanging,
        duplex: 'half',
        headers: { 'content-type': 'multipart/form-data; boundary=b' },
      } as RequestInit),
      ...Array.from({ length: 4 }, () => server.upload(book)),
      ...['export', 'cover'].map((what) => server.get(`/api/documents/${made.id}/${what}`)),
    ].map((request) => request.catch(() => undefined));
    await wait(200 + ((seed * 97) % 400));
    const programs = childrenOf(server.pid);
    const took = await server.stop();
    tally.longestAnswer = Math.max(tally.longestAnswer, took);
    await Promise.all(asked);
    insist(took < 10_000, `it took ${took} ms to end`);
    const left = programs.filter((pid) => isRunning(pid));
    insist(left.length === 0, `programs go on: ${left.join()}`);
    await server.up();
    // A killed one cannot clear up: the next one does.
    const uploading = server.upload(book).catch(() => undefined);
    await wait(30);
    server.kill();
    tally.kills++;
    await uploading;
    await server.answers();
    const work = readdirSync(join(server.cache, 'work'));
    insist(work.length === 1, `what others left is there: ${work.join()}`);
  },
};

function isRunning(pid: number): boolean {
  try {
    process.kill(pid, 0);
    return true;
  } catch {
    return false;
  }
}
