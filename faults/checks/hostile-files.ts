import { execFileSync } from 'node:child_process';
import { hostilePdf } from '../../core/src/pdf/testing/hostile';
import { insist, type Check } from '../check';
import { childrenOf, healthDuring } from '../under-fault';

/** Files tried at one go. */
const FILES = 300;
const AT_ONCE = 3;
/** The longest answer to one of them, in ms: a read in each lane, and a mending. */
const LONGEST = 100_000;
/** What takes longer, in ms, is told. */
const SLOW = 10_000;
/** As the server's own limits have it, with what a loaded machine adds. */
const LONGEST_HEALTH = 2000;
const MOST_MEMORY = 6000;

/** Hostile files come in, are looked at and exported, or are refused; the server answers all the while. */
export const hostileFiles: Check = {
  name: `${FILES} hostile files are taken or refused, and nothing stops for them`,
  async run(server, seed, tally) {
    let next = seed * FILES;
    const last = next + FILES;
    const pid = server.pid;
    const one = async (own: number): Promise<void> => {
      const begun = Date.now();
      const reply = await server.upload(hostilePdf(own), LONGEST);
      const body = (await reply.json()) as { id?: string; code?: string; detail?: string };
      insist(reply.status < 500, `seed ${own}: ${reply.status} ${body.code} ${body.detail}`);
      tally.files++;
      if (reply.status !== 201) tally.refused++;
      else await look(own, body.id!);
      const took = Date.now() - begun;
      if (took > SLOW)
        console.log(`  seed ${own} took ${took} ms (${reply.status} ${body.code ?? ''})`);
      tally.longestAnswer = Math.max(tally.longestAnswer, took);
      tally.peakOfPrograms = Math.max(tally.peakOfPrograms, memoryOf(childrenOf(pid)));
    };
    const look = async (own: number, id: string): Promise<void> => {
      const mode = ['editable', 'flattened', 'none'][own % 3];
      for (const path of [
        `export?annotations=${mode}&confirmed=true`,
        'cover',
        'annotations',
        'files',
        '',
      ]) {
        const reply = await server.get(`/api/documents/${id}/${path}`.replace(/\/$/, ''), LONGEST);
        await reply.arrayBuffer();
        insist(reply.status < 500, `seed ${own}: ${path} answers ${reply.status}`);
      }
    };
    const worker = async (): Promise<void> => {
      while (next < last) await one(next++);
    };
    const health = await healthDuring(server, () =>
      Promise.all(Array.from({ length: AT_ONCE }, worker)),
    );
    insist(server.pid === pid, 'the server died');
    insist(health < LONGEST_HEALTH * tally.leniency, `health took ${health} ms`);
    tally.peakMemory = Math.max(tally.peakMemory, server.peakMemory);
    insist(server.peakMemory < MOST_MEMORY, `the server took ${server.peakMemory} MB`);
  },
};

/** MB that processes take together. */
function memoryOf(pids: readonly number[]): number {
  if (pids.length === 0) return 0;
  try {
    const sizes = execFileSync('ps', ['-o', 'rss=', '-p', pids.join()], { encoding: 'utf8' });
    return Math.round(
      sizes
        .trim()
        .split(/\s+/)
        .reduce((sum, kib) => sum + Number(kib), 0) / 1024,
    );
  } catch {
    return 0; // All have ended meanwhile.
  }
}
