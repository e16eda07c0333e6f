import { Piscina } from 'piscina';
import { isAway, type Database } from '../db/database';
import { fillEntries } from '../find/entries';
import type { Spool } from '../sources/spool';
import { Background } from './background';
import { claimReading, giveUp, release, storeTexts, type Job } from './store';
import type { ReadTexts, TextsTask } from './texts';
import type { Viewers } from './viewers';

/** Pages read and stored at a time: as much as is read again after a crash. */
const BATCH = 64;
/** As many while people are looking at something, and how many times as long as reading them takes it then rests. */
const [SMALL_BATCH, RESTS] = [16, 3];

interface Batch extends TextsTask {
  readonly begun: number;
  readonly reading: Promise<ReadTexts>;
}

/**
 * Reads the text of files in the background, in worker threads, one file after the other. What is done is known by
 * the page, so that after a crash this server or another one goes on from there.
 */
export class Indexer {
  private readonly threads: Piscina;
  private readonly background: Background;

  /** `filename` is the built `texts` module. */
  constructor(
    filename: string,
    private readonly database: Database,
    private readonly spool: Spool,
    private readonly viewers: Viewers,
    private readonly log: (message: string) => void,
  ) {
    this.threads = new Piscina({ filename, minThreads: 0, maxThreads: 2, idleTimeout: 20_000 });
    this.background = new Background('reading for finding', () => this.readAll(), log);
  }

  /** Reads what waits, and from now on whatever comes. */
  start(): void {
    this.background.start();
  }

  /** Something waits to be read. */
  wake(): void {
    this.background.wake();
  }

  /** Settles when all that waits has been read. */
  finished(): Promise<void> {
    return this.background.finished();
  }

  async stop(): Promise<void> {
    await this.background.stop();
    await this.threads.destroy();
  }

  private async readAll(): Promise<void> {
    await fillEntries(this.database);
    while (!this.background.isStopped) {
      const job = await claimReading(this.database);
      if (!job) return;
      try {
        await this.readOne(job);
      } catch (error) {
        // The file is not at fault: it is taken up again once the claim on it has run out.
        if (isAway(error)) throw error;
        this.log(`the text of ${job.source} cannot be read: ${String(error)}`);
        await giveUp(
          this.database,
          job.source,
          error instanceof Error ? error.message : String(error),
        );
      }
    }
  }

  /** Two batches are read at a time, one while people are looking; they are stored in order. */
  private async readOne({ source, size, pages, done }: Job): Promise<void> {
    const path = await this.spool.fetch(this.database, source, size);
    const under: Batch[] = [];
    for (let next = done; ;) {
      const [together, length] = this.viewers.areThere() ? [1, SMALL_BATCH] : [2, BATCH];
      while (under.length < together && next < pages && !this.background.isStopped) {
        under.push(this.begin({ path, from: next, to: Math.min(pages, next + length) }));
        next = under.at(-1)!.to;
      }
      const batch = under.shift();
      if (!batch) break;
      const found = await batch.reading;
      for (const trouble of found.troubles) this.log(`${source}, ${trouble}`);
      await storeTexts(this.database, source, batch.from, batch.to, found);
      const took = performance.now() - batch.begun;
      if (under.length === 0 && next < pages)
        await this.viewers.gone(RESTS * took, () => this.background.isStopped);
    }
    await release(this.database, source);
  }

  private begin(task: TextsTask): Batch {
    const reading = this.threads.run(task, { name: 'texts' }) as Promise<ReadTexts>;
    // It is waited for in its turn; until then nobody looks after it.
    reading.catch(() => undefined);
    return { ...task, begun: performance.now(), reading };
  }
}
