import { readFileSync } from 'node:fs';
import { join } from 'node:path';
import { setTimeout as wait } from 'node:timers/promises';
import { insist, type Check } from '../check';
import { killDatabase, startDatabase, stopDatabase } from '../cluster';
import { root } from '../under-fault';
import { Writer } from '../writing';

export const smallBook = (): Buffer =>
  readFileSync(join(root, '.data/documents/asymptote-doc/asyRefCard.pdf'));

/** The database goes away in every way, while somebody writes, and comes back. */
export const database: Check = {
  name: 'the database goes away and comes back; the server says so, goes on, and loses nothing',
  async run(server, seed, tally) {
    const writer = await Writer.on(server, smallBook());
    const pid = server.pid;
    const ways = [
      () => stopDatabase('fast'),
      () => stopDatabase('immediate'),
      () => killDatabase(),
    ];
    for (const away of [...ways.slice(seed % 3), ...ways.slice(0, seed % 3)]) {
      await writer.more(5);
      away();
      tally.kills++;
      try {
        const reply = await server.get('/api/documents', 20_000);
        const { code } = (await reply.json()) as { code: string };
        insist(reply.status === 503, `without a database it answers ${reply.status} ${code}`);
        insist(code === 'database-unavailable', `without a database it says ${code}`);
        await wait(500);
      } finally {
        startDatabase();
      }
      await server.answers();
      insist(server.pid === pid, `the server died: ${server.said.slice(-1000)}`);
    }
    await writer.more(5);
    await writer.finish(tally);
  },
};
