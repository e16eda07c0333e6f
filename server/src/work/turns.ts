import { Problem } from '@stylet/core/problems';

/** So many at a time; whoever comes later waits for a turn. */
export class Turns {
  private free: number;
  private readonly waiting: (() => void)[] = [];

  constructor(atOnce: number) {
    this.free = atOnce;
  }

  /** Does some work in its turn. Throws Problem `nobody-waits` when `awaited` is aborted before that. */
  async run<T>(work: () => Promise<T>, awaited?: AbortSignal): Promise<T> {
    await this.take(awaited);
    try {
      return await work();
    } finally {
      // The turn goes straight to the next in line, so that nobody newer takes it.
      const next = this.waiting.shift();
      if (next) next();
      else this.free++;
    }
  }

  private async take(awaited: AbortSignal | undefined): Promise<void> {
    checkAwaited(awaited);
    if (this.free > 0) {
      this.free--;
      return;
    }
    await new Promise<void>((go, leave) => {
      const begin = (): void => {
        awaited?.removeEventListener('abort', give);
        go();
      };
      const give = (): void => {
        const place = this.waiting.indexOf(begin);
        if (place >= 0) this.waiting.splice(place, 1);
        leave(nobodyWaits());
      };
      awaited?.addEventListener('abort', give, { once: true });
      this.waiting.push(begin);
    });
  }
}

export const nobodyWaits = (): Problem =>
  new Problem('nobody-waits', 'Whoever asked has gone meanwhile.');

/** Throws Problem `nobody-waits` where that is so. */
export function checkAwaited(awaited: AbortSignal | undefined): void {
  if (awaited?.aborted) throw nobodyWaits();
}
