import { Problem } from '@stylet/core/problems';
import { Turns, checkAwaited } from './turns';

/** How long work may take, in ms: most of it, and what turns out to be heavy. */
export interface Patience {
  readonly light: number;
  readonly heavy: number;
}

/** Some work: it stops what it does when its signal is aborted. */
export type Work<T> = (signal: AbortSignal, lane: 'light' | 'heavy') => Promise<T>;

/**
 * Two lanes for work of which nobody knows how long it takes: a file may be made to take for ever. What is not done
 * soon is stopped and begun again in a lane of its own, where it holds up nothing but its like, and is ended there
 * when it takes too long.
 */
export class Lanes {
  private readonly light: Turns;
  private readonly heavy = new Turns(1);

  /** `atOnce` in the light lane. */
  constructor(
    atOnce: number,
    private readonly patience: Patience,
  ) {
    this.light = new Turns(atOnce);
  }

  /**
   * Does some work, for as long as somebody waits for it. Throws Problem `work-too-long`, or `nobody-waits` when
   * `awaited` is aborted.
   */
  async run<T>(work: Work<T>, awaited?: AbortSignal): Promise<T> {
    for (const lane of ['light', 'heavy'] as const) {
      const longest = this.patience[lane];
      const attempt = await this[lane].run(
        () => within(longest, (signal) => work(signal, lane), awaited),
        awaited,
      );
      if (attempt.isDone) return attempt.result;
    }
    throw new Problem('work-too-long', `It was ended after ${this.patience.heavy / 1000} s.`);
  }
}

type Attempt<T> = { readonly isDone: true; readonly result: T } | { readonly isDone: false };

async function within<T>(
  longest: number,
  work: (signal: AbortSignal) => Promise<T>,
  awaited: AbortSignal | undefined,
): Promise<Attempt<T>> {
  const late = AbortSignal.timeout(longest);
  const signal = awaited ? AbortSignal.any([late, awaited]) : late;
  try {
    return { isDone: true, result: await work(signal) };
  } catch (error) {
    checkAwaited(awaited);
    if (late.aborted) return { isDone: false };
    throw error;
  }
}
