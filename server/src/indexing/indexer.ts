import { Piscina } from 'piscina';
import type { Database } from '../db/database';
import { fillEntries } from '../find/entries';
import type { Spool } from '../sources/spool';
import { Background } from './background';
import { claimReading, giveUp, release, storeTexts, type Job } from './store';
import type { ReadText, ReadTexts, TextsTask } from './texts';
import type { Viewers } from './viewers';

/** Pages read and stored at a time: as much as is read again after a crash. */
const BATCH = 64;
/** As many while people are looking at something. */
const SMALL_BATCH = 16;

/** How long a batch, and a page by itself, may take to be read, in ms: some are made to take for ever. */
const LONGEST_BATCH = 120_000;
const LONGEST_PAGE = 20_000;
const MOST_MEMORY = 2048;

interface Batch extends TextsTask {
  readonly begun: number;
  readonly reading: Promise<ReadTexts>;
}

/** Reads the text of files, in worker threads. */
export class Indexer extends Background {
  private readonly threads: Piscina;

  /** `filename` is the built `texts` module. */
  constructor(
    filename: string,
    private readonly database: Database,
    private readonly spool: Spool,
    private readonly viewers: Viewers,
    log: (message: string) => void,
  ) {
    super('the reading for finding', log);
    this.threads = new Piscina({
      filename,
      minThreads: 0,
      maxThreads: 2,
      idleTimeout: 20_000,
      resourceLimits: { maxOldGenerationSizeMb: MOST_MEMORY },
    });
  }

  override async stop(): Promise<void> {
    await super.stop();
    await this.threads.destroy();
  }

  protected override prepare(): Promise<void> {
    return fillEntries(this.database);
  }

  protected override claim(): Promise<Job | undefined> {
    return claimReading(this.database);
  }

  protected override giveUp({ source }: Job, why: string): Promise<void> {
    return giveUp(this.database, source, why);
  }

  /** Two batches are read at a time, one while people are looking; they are stored in order. */
  protected override async carryOut({ source, size, pages, done }: Job): Promise<void> {
    const path = await this.spool.fetch(this.database, source, size);
    const under: Batch[] = [];
    for (let next = done; ;) {
      const [together, length] = this.viewers.areThere() ? [1, SMALL_BATCH] : [2, BATCH];
      while (under.length < together && next < pages && !this.isStopped) {
        under.push(this.begin({ path, from: next, to: Math.min(pages, next + length) }));
        next = under.at(-1)!.to;
      }
      const batch = under.shift();
      if (!batch) break;
      const found = await batch.reading;
      for (const trouble of found.troubles) this.log(`${source}, ${trouble}`);
      await storeTexts(this.database, source, batch.from, batch.to, found);
      const took = performance.now() - batch.begun;
      if (under.length === 0 && next < pages) await this.viewers.rest(took, () => this.isStopped);
    }
    await release(this.database, source);
  }

  private begin(task: TextsTask): Batch {
    const reading = this.read(task);
    // It is awaited later, in its turn; failing before that must not end the process.
    reading.catch(() => undefined);
    return { ...task, begun: performance.now(), reading };
  }

  /** What some pages say. Where that takes too much, each is read by itself: one page never costs the others. */
  private async read(task: TextsTask): Promise<ReadTexts> {
    try {
      return await this.run(task, LONGEST_BATCH);
    } catch (error) {
      if (this.isStopped || !isTooMuch(error)) throw error;
      this.log(`${task.path}, pages ${task.from + 1} to ${task.to}: ${String(error)}`);
    }
    const texts: ReadText[] = [];
    const terms = new Map<string, number>();
    const troubles: string[] = [];
    for (let from = task.from; from < task.to && !this.isStopped; from++)
      try {
        const page = await this.run({ ...task, from, to: from + 1 }, LONGEST_PAGE);
        texts.push(...page.texts);
        troubles.push(...page.troubles);
        for (const [term, count] of page.terms) terms.set(term, (terms.get(term) ?? 0) + count);
      } catch (error) {
        troubles.push(`page ${from + 1}: ${String(error)}`);
      }
    return { texts, terms, troubles };
  }

  private run(task: TextsTask, longest: number): Promise<ReadTexts> {
    const signal = AbortSignal.timeout(longest);
    return this.threads.run(task, { name: 'texts', signal }) as Promise<ReadTexts>;
  }
}

/** Whether reading was ended because it took too long, or too much memory. */
const isTooMuch = (error: unknown): boolean =>
  error instanceof Error &&
  (error.name === 'AbortError' ||
    (error as NodeJS.ErrnoException).code === 'ERR_WORKER_OUT_OF_MEMORY');
