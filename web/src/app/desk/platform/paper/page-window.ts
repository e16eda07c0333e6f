import type { Region } from '../../../../workers/protocol';

/** The part of a page that is drawn sharp, in device pixels of the page at `scale`. */
export interface PageWindow extends Region {
  /** Device pixels a point. */
  readonly scale: number;
  /** The whole page in the same pixels. */
  readonly pageWidth: number;
  readonly pageHeight: number;
}
