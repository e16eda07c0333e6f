import type { ProblemBody } from '@stylet/core/api';
import { problemBodyOf } from '../problem-replies';
import type { LogPart } from './log-part';

/** Who could not be told is told again after so long, in ms. */
const AGAIN = 1000;

/** What was read of a log; `isFresh`: now, and not a while ago for somebody else. */
export interface ReadPart {
  readonly part: LogPart;
  readonly isFresh: boolean;
}

/** Who hears what is done to a document. */
export interface Hearer {
  /** Settles when more can be taken: who is slow keeps nobody waiting and nothing in memory. */
  ready(): Promise<void>;
  tell(part: LogPart): void;
  /** There is no such document, or no more. */
  closed(problem: ProblemBody): void;
}

/** One hearer of a document, and how far it has been told. */
export class Subscription {
  private heardOf: number;
  /** Whether there may be more than was heard of. */
  private isUnsure = true;
  /** Whether there has to be a word even if there is nothing to tell. */
  private isOwed = false;
  private isTelling = false;
  private isOver = false;
  private timer: ReturnType<typeof setTimeout> | undefined;

  /** `read` gives the first of what was done after a revision; `over` is called once, at the end. */
  constructor(
    private at: number,
    private readonly hearer: Hearer,
    private readonly read: (since: number) => Promise<ReadPart>,
    private readonly over: () => void,
  ) {
    this.heardOf = at;
  }

  /** The document has come to a revision. */
  came(revision: number): void {
    if (revision <= this.heardOf) return;
    this.heardOf = revision;
    this.wake();
  }

  /** Looks whether there is something to tell. */
  look(): void {
    this.isUnsure = true;
    this.wake();
  }

  end(): void {
    if (this.isOver) return;
    this.isOver = true;
    clearTimeout(this.timer);
    this.over();
  }

  private wake(): void {
    if (this.isTelling || this.isOver) return;
    clearTimeout(this.timer);
    this.isTelling = true;
    void this.tellAll()
      .catch((error: unknown) => this.failed(error))
      .finally(() => (this.isTelling = false));
  }

  private async tellAll(): Promise<void> {
    while (this.isUnsure || this.heardOf > this.at) {
      await this.hearer.ready();
      const heardBefore = this.heardOf;
      const wasUnsure = this.isUnsure;
      this.isOwed ||= wasUnsure;
      // Before it is read: who says while it is read that there may be more means more than that.
      this.isUnsure = false;
      const { part, isFresh } = await this.read(this.at);
      if (this.isOver) return;
      const { last } = part;
      // What others have had read may be older than what was heard, or than this subscription.
      if (!isFresh && (wasUnsure || last === undefined)) this.isUnsure = true;
      if (last === undefined && !isFresh) continue;
      if (this.isOwed || last !== undefined) this.hearer.tell(part);
      this.isOwed = false;
      this.at = last ?? this.at;
      if (last !== undefined) this.heardOf = Math.max(this.heardOf, part.revision);
      else if (this.heardOf === heardBefore) this.heardOf = this.at;
    }
  }

  private failed(error: unknown): void {
    if (this.isOver) return;
    const problem = problemBodyOf(error);
    if (problem.status < 500) {
      this.hearer.closed(problem);
      this.end();
    } else {
      this.timer = setTimeout(() => this.look(), AGAIN);
      this.timer.unref();
    }
  }
}
