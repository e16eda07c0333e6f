import type { Effect } from '@stylet/core/document';
import type { Sample } from '@stylet/core/ink';

/** What a pointer does from press to lift on one page. */
export interface Gesture {
  /**
   * New samples, in page space, times in ms; and those that are thought to follow, which may be
   * shown until the next ones come and count for nothing else.
   */
  move(samples: readonly Sample[], ahead: readonly Sample[]): void;
  /** The pointer rests where it is for a while more. */
  rested?(): void;
  /** The pointer was lifted: what this changes in the document, as one step. */
  end(): Effect[];
  /** The gesture came to nothing; what it showed is taken back. */
  cancel(): void;
}
