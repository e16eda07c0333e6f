import type { Box } from '../../geometry/index';
import type { PdfRef, PdfValue } from '../objects/index';

/** What an annotation refers to besides its page and its look. */
export interface Linked {
  readonly entries: Readonly<Record<string, PdfValue>>;
  /** What stands on the page beside it for that. */
  readonly beside: readonly PdfRef[];
  /** Where a reply lies: where that does which it answers (default user space). */
  readonly near?: Box | undefined;
}
