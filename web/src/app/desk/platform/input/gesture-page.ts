import type { Page } from '@stylet/core/api';
import type { PageAnnotations } from '@stylet/core/document';
import type { Box, Point } from '@stylet/core/geometry';
import type { Line } from '@stylet/core/text';
import type { Remains } from '../../features/eraser/erase-gesture';
import type { LiveLayer } from '../paper/live-layer';

/** A page as gestures need it. */
export interface GesturePage {
  readonly page: Page;
  readonly index: number;
  readonly annotations: PageAnnotations;
  readonly live: LiveLayer;
  /** Points of the page to a CSS pixel, as it is shown now. */
  readonly pointsPerPixel: number;
  /** The page's text; undefined while it is still being read. */
  lines(): readonly Line[] | undefined;
  /** The page's text when it has been read; undefined when that takes too long. */
  linesRead(): Promise<readonly Line[] | undefined>;
  /** Shows something instead of some annotations. */
  show(remains: Remains): void;
  /** Shows the way of a lasso (page space). */
  showLasso(way: readonly Point[]): void;
  /** Shows the line of a gap and where it is drawn (heights of the page as shown), or none. */
  showGap(line: { readonly from: number; readonly to: number } | undefined): void;
  /** Opens the page's menu at a point (page space). */
  openMenu(at: Point): void;
  /** Marks an area (page space), or none. */
  showArea(area: Box | undefined): void;
}
