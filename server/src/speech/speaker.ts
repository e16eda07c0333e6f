import type { SpeechWanted, Voice } from '@stylet/core/api';
import { Threads } from '../work/threads';
import type { Spoken } from './speak';

/** A sentence takes a part of the time it is spoken in. */
const PATIENCE = { light: 15_000, heavy: 60_000 };
const MOST_MEMORY = 512;

/** Speaks off the thread that answers requests. */
export class Speaker {
  private readonly threads: Threads;

  /** `filename` is the built `speak` module. */
  constructor(filename: string) {
    this.threads = new Threads({
      filename,
      atOnce: 1,
      patience: PATIENCE,
      mostMemory: MOST_MEMORY,
    });
  }

  voices(): Promise<Voice[]> {
    return this.threads.run('voices', undefined);
  }

  speak(wanted: SpeechWanted, awaited?: AbortSignal): Promise<Spoken | undefined> {
    return this.threads.run('speak', wanted, awaited);
  }

  close(): Promise<void> {
    return this.threads.close();
  }
}
