import { setTimeout as wait } from 'node:timers/promises';
import type { FastifyInstance } from 'fastify';

declare module 'fastify' {
  interface FastifyContextConfig {
    /** Nobody waits to see what this answers. */
    readonly isUnwatched?: boolean;
  }
}

/** People are there for so long after the last request, in ms. */
const STAYS = 2000;
/** How often it is looked whether they have gone, in ms. */
const LOOKS = 50;
/** How many times as long as some work has taken whoever does it then rests while they are there. */
const RESTS = 3;

/** Whether people look at something just now: what is in no hurry gives way to them. */
export class Viewers {
  private last = -Infinity;

  /** Notes the requests that an application gets from now on. */
  watch(app: FastifyInstance): void {
    app.addHook('onRequest', (request, _reply, done) => {
      if (!request.routeOptions.config.isUnwatched) this.last = performance.now();
      done();
    });
  }

  areThere(): boolean {
    return performance.now() - this.last < STAYS;
  }

  /** Rests after work that has taken so many ms, unless they have gone, or `isOver`. */
  async rest(took: number, isOver: () => boolean): Promise<void> {
    const end = performance.now() + RESTS * took;
    while (this.areThere() && performance.now() < end && !isOver()) await wait(LOOKS);
  }
}
