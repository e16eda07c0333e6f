import type { Identity } from '../access/identity';
import { Threads } from '../work/threads';
import type { DictionaryFile } from './added';

/** A dictionary has a million words at the most. */
const PATIENCE = { light: 20_000, heavy: 120_000 };
const MOST_MEMORY = 2048;

/** What threads that add dictionaries are started with. */
export interface AdderData {
  readonly databaseUrl: string;
}

/** Reads and keeps dictionaries off the thread that answers requests. */
export class DictionaryAdder {
  private readonly threads: Threads;

  /** `filename` is the built `add-task` module. */
  constructor(filename: string, workerData: AdderData) {
    const settings = { filename, workerData, atOnce: 1, mostMemory: MOST_MEMORY };
    this.threads = new Threads({ ...settings, patience: PATIENCE });
  }

  /** Keeps a dictionary; its id. Throws Problem `dictionary-unreadable`, `dictionary-too-large`. */
  add(
    identity: Identity,
    files: readonly DictionaryFile[],
    awaited?: AbortSignal,
  ): Promise<string> {
    return this.threads.run('add', { identity, files }, awaited);
  }

  close(): Promise<void> {
    return this.threads.close();
  }
}
