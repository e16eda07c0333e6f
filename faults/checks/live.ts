import { isDeepStrictEqual } from 'node:util';
import { setTimeout as wait } from 'node:timers/promises';
import { annotationListSchema, documentSchema } from '@stylet/core/api';
import { newId, operationSchema, type Operation } from '@stylet/core/document';
import { seeded } from '@stylet/core/random';
import { LiveWindow } from '../../server/src/testing/live-window';
import { addition, insist, type Check } from '../check';
import { killDatabase, startDatabase } from '../cluster';
import type { UnderFault } from '../under-fault';
import { smallBook } from './database';

const WRITERS = 5;
/** Strokes, of all writers together. */
const WRITES = 300;
const KILLS = 5;
/** What has not been answered for so long, in ms, is sent again. */
const PATIENCE = 1500;
/** How long it may take at the end until all have all, in ms. */
const LONGEST_END = 30_000;

const HOUR = 3_600_000;

/** An id as it is given by a clock, in ms since 1970 (RFC 9562, 5.7: its first 48 bits are that). */
const idAt = (time: number): string =>
  newId().replace(/^.{8}-.{4}/, time.toString(16).padStart(12, '0').replace(/^.{8}/, '$&-'));

/** A window that somebody writes in, which comes back whenever it loses its server. */
class Somebody {
  readonly window: LiveWindow;
  private readonly made: Operation[] = [];
  private isOver = false;
  private readonly standing: Promise<void>;

  constructor(
    documentId: string,
    private readonly servers: readonly UnderFault[],
    private readonly chance: () => number,
    /** By how much the clock is wrong, in ms. */
    private readonly skew: number,
  ) {
    this.window = new LiveWindow(documentId);
    this.standing = this.stand();
  }

  write(pageId: string): void {
    const { documentId } = this.window;
    const now = Date.now() + this.skew;
    const operation = operationSchema.parse(
      addition(documentId, pageId, idAt(now), idAt(now), now),
    );
    this.made.push(operation);
    this.window.make(operation);
  }

  /** Says once more what it has just said, or said long ago. */
  repeat(): void {
    const again = this.made[Math.floor(this.chance() * this.made.length)];
    if (again && this.window.isConnected)
      this.window.send([again, this.made[this.made.length - 1]]);
  }

  leave(): Promise<void> {
    this.isOver = true;
    this.window.breakOff();
    return this.standing;
  }

  private async stand(): Promise<void> {
    const { window, servers } = this;
    let asked = 0;
    while (!this.isOver) {
      const { replica, isConnected } = window;
      const isWaiting = replica.pending.length > 0 && Date.now() - asked > PATIENCE;
      if (!isConnected) {
        const { url } = servers[Math.floor(this.chance() * servers.length)];
        const isThere = await window.connect(url).then(
          () => true,
          () => false,
        );
        if (!isThere) await wait(100);
      }
      if (window.isConnected && (!isConnected || isWaiting)) {
        window.open();
        asked = Date.now();
      }
      await wait(20);
    }
  }
}

/** Servers and the database are killed, and sockets cut, while five write through two servers. */
export const live: Check = {
  name: 'five windows write live through two servers, their clocks hours apart; whatever is killed, cut, left half open or said twice, all end with the same, and nothing is lost',
  async run(first, seed, tally) {
    const chance = seeded(seed);
    const servers = [first, await first.beside()];
    const { id } = (await (await first.upload(smallBook())).json()) as { id: string };
    const read = async (path: string): Promise<unknown> =>
      (await servers[1].get(`/api/documents/${id}${path}`)).json();
    const pageId = documentSchema.parse(await read('')).pages[0].id;
    const all = Array.from({ length: WRITERS }, (_, i) => {
      // Clocks are an hour apart, and some are right.
      return new Somebody(id, servers, chance, ((i % 3) - 1) * HOUR);
    });
    try {
      const harms = new Set(
        Array.from({ length: KILLS }, () => Math.floor(chance() * WRITES)).concat(WRITES / 2),
      );
      for (let i = 0; i < WRITES; i++) {
        const somebody = all[Math.floor(chance() * WRITERS)];
        somebody.write(pageId);
        if (chance() < 0.05) somebody.window.breakOff();
        if (chance() < 0.05) somebody.window.fallSilent();
        if (chance() < 0.2) somebody.repeat();
        if (i === WRITES / 2) {
          killDatabase();
          tally.kills++;
          startDatabase();
        } else if (harms.has(i)) {
          const victim = servers[Math.floor(chance() * servers.length)];
          while (!victim.isRunning) await wait(50);
          victim.kill();
          tally.kills++;
        }
        await wait(chance() * 50);
      }
      for (const server of servers) await server.answers();
      const isDone = ({ window: { replica } }: Somebody): boolean =>
        replica.revision === WRITES && replica.pending.length === 0;
      for (let turn = 0; !all.every(isDone) && turn < LONGEST_END / 50; turn++) await wait(50);
      const { annotations } = annotationListSchema.parse(await read('/annotations'));
      tally.acknowledged += WRITES;
      tally.lost += WRITES - annotations.length;
      insist(annotations.length === WRITES, `${annotations.length} of ${WRITES} strokes are there`);
      const byId = Object.fromEntries(annotations.map((one) => [one.id, one]));
      for (const [i, { window }] of all.entries()) {
        const { revision, pending, shown } = window.replica;
        insist(
          revision === WRITES && pending.length === 0,
          `window ${i} has come to revision ${revision}, and ${pending.length} of its own wait`,
        );
        insist(
          isDeepStrictEqual({ ...shown.annotations[pageId] }, byId),
          `window ${i} shows something else than the server has`,
        );
      }
    } finally {
      await Promise.all(all.map((somebody) => somebody.leave()));
      await servers[1].remove();
    }
  },
};
