import type { FindRequest, FindResult } from '@stylet/core/api';
import type { Identity } from '../access/identity';
import { Threads } from '../work/threads';

/** A search takes a few hundredths of a second; some are made to take long. */
const PATIENCE = { light: 3000, heavy: 10_000 };
const MOST_MEMORY = 1024;
/** Threads keep the texts they have read for so long, in ms. */
const KEPT = 600_000;

/** What threads that find are started with. */
export interface FinderData {
  readonly databaseUrl: string;
}

/** Finds off the thread that answers requests. */
export class Finder {
  private readonly threads: Threads;

  /** `filename` is the built `find-task` module. */
  constructor(filename: string, workerData: FinderData) {
    this.threads = new Threads({
      filename,
      workerData,
      atOnce: 2,
      patience: PATIENCE,
      mostMemory: MOST_MEMORY,
      idleTimeout: KEPT,
    });
  }

  /** See `findInLibrary`; throws what that throws, and Problem `work-too-long`. */
  find(request: FindRequest, identity: Identity, awaited?: AbortSignal): Promise<FindResult> {
    return this.threads.run('find', { request, identity }, awaited);
  }

  /** Has a thread at hand for searches that will come. */
  async prepare(): Promise<void> {
    await this.threads.run('prepare', undefined);
  }

  close(): Promise<void> {
    return this.threads.close();
  }
}
