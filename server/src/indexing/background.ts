import { isAway } from '../db/away';
import { workingFor } from '../work/log';
import type { Job } from './store';

/** How often it is looked whether another server has left something, in ms. */
const LOOKS = 15_000;

/**
 * Works on files in the background, one after the other, whenever some wait. What is done is known by the page, so
 * that after a crash this server or another one goes on from there.
 */
export abstract class Background {
  private running: Promise<void> | undefined;
  private again = false;
  private stopped = true;
  private timer: ReturnType<typeof setInterval> | undefined;

  /** `name` of what is done, and where it is said when that goes wrong. */
  protected constructor(
    private readonly name: string,
    protected readonly log: (message: string) => void,
  ) {}

  /** What is done once before files are taken. */
  protected prepare(): Promise<void> {
    return Promise.resolve();
  }

  /** Takes the next file; none when all are done or taken. */
  protected abstract claim(): Promise<Job | undefined>;
  /** Works on a file to its end, or until this has been stopped, and gives it back. */
  protected abstract carryOut(job: Job): Promise<void>;
  /** The file cannot be worked on: it is left alone. */
  protected abstract giveUp(job: Job, why: string): Promise<void>;

  /** Does what waits, and from now on whatever comes. */
  start(): void {
    this.stopped = false;
    clearInterval(this.timer);
    this.timer = setInterval(() => this.wake(), LOOKS);
    this.timer.unref();
    this.wake();
  }

  /** Something may wait. */
  wake(): void {
    if (this.stopped) return;
    if (this.running) {
      this.again = true;
      return;
    }
    this.running = this.work()
      .catch((error: unknown) => this.log(`${this.name} stopped: ${String(error)}`))
      .finally(() => {
        this.running = undefined;
        if (this.again) {
          this.again = false;
          this.wake();
        }
      });
  }

  /** Settles when all that waits is done. */
  async finished(): Promise<void> {
    while (this.running) await this.running;
  }

  async stop(): Promise<void> {
    this.stopped = true;
    clearInterval(this.timer);
    await this.running;
  }

  protected get isStopped(): boolean {
    return this.stopped;
  }

  private async work(): Promise<void> {
    await this.prepare();
    while (!this.stopped) {
      const job = await this.claim();
      if (!job) return;
      try {
        const what = `${this.name} of ${job.source.slice(0, 12)}`;
        await workingFor({ job: what }, () => this.carryOut(job));
      } catch (error) {
        // The file is not at fault: it is taken up again once the claim on it has run out.
        if (isAway(error)) throw error;
        this.log(`${this.name} of ${job.source} was given up: ${String(error)}`);
        await this.giveUp(job, error instanceof Error ? error.message : String(error));
      }
    }
  }
}
