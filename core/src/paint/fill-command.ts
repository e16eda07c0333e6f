import type { Blend } from '../document/index';
import type { Piece } from '../ink/index';

/** Paint pieces, opaque and one over the other, and lay the whole of it on the page. */
export interface FillCommand {
  readonly pieces: readonly Piece[];
  readonly color: string;
  readonly opacity: number;
  /** `multiply`: it lies under the words (ISO 32000-1, 11.3.5). */
  readonly blend: Blend;
}
