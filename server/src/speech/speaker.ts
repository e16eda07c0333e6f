import type { SpeechWanted, Voice } from '@stylet/core/api';
import { Piscina } from 'piscina';
import type { Spoken } from './speak';

/** Speaks off the thread that answers requests. */
export class Speaker {
  private readonly threads: Piscina;

  /** `filename` is the built `speak` module. */
  constructor(filename: string) {
    // None before it is needed: a voice takes memory that most never use.
    this.threads = new Piscina({ filename, minThreads: 0, maxThreads: 1, idleTimeout: 60_000 });
  }

  voices(): Promise<Voice[]> {
    return this.threads.run(undefined, { name: 'voices' }) as Promise<Voice[]>;
  }

  speak(wanted: SpeechWanted): Promise<Spoken | undefined> {
    return this.threads.run(wanted, { name: 'speak' }) as Promise<Spoken | undefined>;
  }

  close(): Promise<void> {
    return this.threads.destroy();
  }
}
