/** How often it is looked whether another server has left something, in ms. */
const LOOKS = 15_000;

/** Does some work whenever there may be some, one thing after the other. */
export class Background {
  private running: Promise<void> | undefined;
  private again = false;
  private stopped = true;
  private timer: ReturnType<typeof setInterval> | undefined;

  /** `work` does all there is, or less when it has been stopped; `name` is for the log. */
  constructor(
    private readonly name: string,
    private readonly work: () => Promise<void>,
    private readonly log: (message: string) => void,
  ) {}

  /** Does what waits, and from now on whatever comes. */
  start(): void {
    this.stopped = false;
    clearInterval(this.timer);
    this.timer = setInterval(() => this.wake(), LOOKS);
    this.timer.unref();
    this.wake();
  }

  /** There may be something to do. */
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

  get isStopped(): boolean {
    return this.stopped;
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
}
