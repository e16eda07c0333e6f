import type { Effect } from '@stylet/core/document';
import type { Sample } from '@stylet/core/ink';

/** What a stroke becomes when the pen is lifted now; shown before it is done. */
export interface Meaning {
  /** Shows what it will do. */
  show(): void;
  /** The pen goes on. False: this is not meant after all, and the stroke is ink. */
  move(samples: readonly Sample[]): boolean;
  end(): Effect[];
  /** Takes back what it showed. */
  hide(): void;
}
