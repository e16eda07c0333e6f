import type { Operation } from '@stylet/core/document';
import { isPassing, troubleOf, type Trouble } from '../../../api/problem';

/** Operations sent together, at the most, and about so many characters of them. */
const BATCH = 200;
const LONGEST_BATCH = 4_000_000;
const SHORTEST_WAIT = 500;
const LONGEST_WAIT = 8000;

/** What a line needs to do its work. */
export interface LineTools {
  /** Settles when it is a good moment to send. */
  readonly moment: () => Promise<void>;
  /** The first of what waits for the document, oldest first. */
  readonly waiting: (most: number) => Promise<readonly Operation[]>;
  /** Sends operations and, acknowledged, takes them out of what waits. Throws what the server says. */
  readonly send: (batch: readonly Operation[]) => Promise<void>;
  /** Puts one aside that the server will not take. */
  readonly putAside: (operation: Operation, trouble: Trouble) => Promise<void>;
  /** The server does not answer. */
  readonly away: () => void;
}

/**
 * Sends what waits for one document, in order. What the server refuses is put aside, and the rest goes on; while it
 * does not answer, it is asked again after pauses that grow.
 */
export class Line {
  private running: Promise<void> | undefined;
  private again = false;
  private wait = SHORTEST_WAIT;
  private timer: ReturnType<typeof setTimeout> | undefined;

  constructor(private readonly tools: LineTools) {}

  /** Sends what waits, now. */
  wake(): void {
    clearTimeout(this.timer);
    if (this.running) {
      this.again = true;
      return;
    }
    this.running = this.drain()
      .catch((error: unknown) => {
        // The browser's store cannot be read just now.
        console.error('What waits to be sent cannot be read.', error);
        this.pause();
      })
      .finally(() => {
        this.running = undefined;
        if (this.again) {
          this.again = false;
          this.wake();
        }
      });
  }

  private async drain(): Promise<void> {
    for (;;) {
      await this.tools.moment();
      const batch = firstBatch(await this.tools.waiting(BATCH));
      if (batch.length === 0 || !(await this.send(batch))) return;
    }
  }

  /** Whether to go on with the next batch. */
  private async send(batch: readonly Operation[]): Promise<boolean> {
    try {
      await this.tools.send(batch);
      this.wait = SHORTEST_WAIT;
      return true;
    } catch (error) {
      if (isPassing(error)) {
        this.tools.away();
        this.pause();
        return false;
      }
      return this.sendApart(batch, troubleOf(error));
    }
  }

  /** Finds among operations that were refused together the one that is: by halves. */
  private async sendApart(batch: readonly Operation[], trouble: Trouble): Promise<boolean> {
    if (batch.length === 1) {
      await this.tools.putAside(batch[0], trouble);
      return true;
    }
    const middle = Math.ceil(batch.length / 2);
    return (await this.send(batch.slice(0, middle))) && (await this.send(batch.slice(middle)));
  }

  private pause(): void {
    // Windows that lost the server together do not come back together.
    this.timer = setTimeout(() => this.wake(), this.wait * (0.75 + Math.random() / 2));
    this.wait = Math.min(LONGEST_WAIT, this.wait * 2);
  }
}

function firstBatch(waiting: readonly Operation[]): readonly Operation[] {
  let length = 0;
  let count = 0;
  for (const operation of waiting) {
    length += JSON.stringify(operation).length;
    if (count > 0 && length > LONGEST_BATCH) break;
    count++;
  }
  return waiting.slice(0, count);
}
