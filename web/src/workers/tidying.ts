/** What keeps things of the pages it has drawn. pdf.js must not let go of them while it is at work. */
export interface Tidied {
  cleanup(): Promise<unknown>;
}

/** Pages drawn between two times that a document is tidied. */
const DRAWN_BEFORE = 24;

/** Has a document let go, now and then, of what it keeps of its pages; work waits for that. */
export class Tidying {
  private atWork = 0;
  private drawn = 0;
  private tidying: Promise<void> | undefined;
  private rests: (() => void) | undefined;

  constructor(private readonly document: () => Promise<Tidied>) {}

  /** Does some work on the document, not while it is being tidied. */
  async during<T>(work: () => Promise<T>): Promise<T> {
    while (this.tidying) await this.tidying;
    this.atWork++;
    try {
      return await work();
    } finally {
      this.atWork--;
      if (this.atWork === 0) this.rests?.();
    }
  }

  /** Counts a page that was drawn. */
  drew(): void {
    if (++this.drawn < DRAWN_BEFORE || this.tidying) return;
    this.drawn = 0;
    this.tidying = this.tidy().finally(() => (this.tidying = undefined));
  }

  private async tidy(): Promise<void> {
    await new Promise<void>((rest) => (this.rests = rest));
    this.rests = undefined;
    try {
      await (await this.document()).cleanup();
    } catch (error) {
      // A page whose drawing was taken back may still be read for a moment: the next page drawn tries again.
      if (!(error instanceof Error && error.message.includes('currently rendering'))) throw error;
      this.drawn = DRAWN_BEFORE;
    }
  }
}
