import { Problem } from '@stylet/core/problems';
import { Piscina } from 'piscina';
import { Lanes, type Patience } from './lanes';
import { workFor } from './log';
import { resultOf, type Given, type Outcome } from './task';

/** How a set of threads is kept. */
export interface ThreadSettings {
  /** The built module whose functions, made by `task`, they run. */
  readonly filename: string;
  readonly workerData?: unknown;
  /** How many do light work at once. */
  readonly atOnce: number;
  readonly patience: Patience;
  /** MiB of objects that one of them may have. */
  readonly mostMemory: number;
  /** How long one is kept that has nothing to do, in ms. */
  readonly idleTimeout?: number;
}

/**
 * Functions of a module, run off the thread that answers requests. Each has a bound in time and memory, after which
 * its thread is ended and replaced; see `Lanes`.
 */
export class Threads {
  private readonly lanes: Lanes;
  private readonly pools: Record<'light' | 'heavy', Piscina>;

  constructor({
    filename,
    workerData,
    atOnce,
    patience,
    mostMemory,
    idleTimeout = 60_000,
  }: ThreadSettings) {
    this.lanes = new Lanes(atOnce, patience);
    const pool = (maxThreads: number): Piscina =>
      new Piscina({
        filename,
        // None before it is needed: Node 20 aborts when a thread is ended while it still loads its module.
        minThreads: 0,
        maxThreads,
        idleTimeout,
        workerData,
        resourceLimits: { maxOldGenerationSizeMb: mostMemory },
      });
    this.pools = { light: pool(atOnce), heavy: pool(1) };
  }

  /**
   * Runs a function of the module, for as long as somebody waits. Throws Problem `work-too-long`, `work-too-large`,
   * `nobody-waits`, and whatever the function does.
   */
  run<T>(name: string, argument: unknown, awaited?: AbortSignal): Promise<T> {
    const given: Given<unknown> = { argument, for: { ...workFor(), task: name } };
    return this.lanes.run(async (signal, lane) => {
      try {
        const soon = notTooSoon(signal);
        const outcome: unknown = await this.pools[lane].run(given, { name, signal: soon });
        return resultOf(outcome as Outcome<T>);
      } catch (error) {
        throw isOutOfMemory(error)
          ? new Problem('work-too-large', 'It took more memory than there is for it.')
          : error;
      }
    }, awaited);
  }

  async close(): Promise<void> {
    await Promise.all([this.pools.light.destroy(), this.pools.heavy.destroy()]);
  }
}

/** A thread takes so long to load its module, in ms, and is not ended before that: see above. */
const LOADS = 2000;

function notTooSoon(signal: AbortSignal): AbortSignal {
  const begun = performance.now();
  const later = new AbortController();
  signal.addEventListener(
    'abort',
    () => setTimeout(() => later.abort(), LOADS - (performance.now() - begun)).unref(),
    { once: true },
  );
  return later.signal;
}

const isOutOfMemory = (error: unknown): boolean =>
  error instanceof Error && (error as NodeJS.ErrnoException).code === 'ERR_WORKER_OUT_OF_MEMORY';
