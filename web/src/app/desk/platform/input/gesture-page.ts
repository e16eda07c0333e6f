import type { Page } from '@stylet/core/api';
import type { PageAnnotations } from '@stylet/core/document';
import type { Box, Point } from '@stylet/core/geometry';
import type { Line } from '@stylet/core/text';
import type { Remains } from '../paper/remains';
import type { LiveCanvas } from '../paper/live-canvas';

/** What a gesture shows of itself: a way or an area in page space, or heights of the page as it is shown. */
export type Sketch =
  | { readonly kind: 'way'; readonly way: readonly Point[] }
  | { readonly kind: 'gap'; readonly from: number; readonly to: number }
  | { readonly kind: 'area'; readonly area: Box; readonly words: string };

/** A page as gestures need it. */
export interface GesturePage {
  readonly page: Page;
  readonly index: number;
  readonly annotations: PageAnnotations;
  readonly live: LiveCanvas;
  /** Points of the page to a CSS pixel, as it is shown now. */
  readonly pointsPerPixel: number;
  /** The page's text; undefined while it is still being read. */
  lines(): readonly Line[] | undefined;
  /** The page's text when it has been read; undefined when that takes too long. */
  linesRead(): Promise<readonly Line[] | undefined>;
  /** Shows something instead of some annotations. */
  show(remains: Remains): void;
  /** Shows what is being drawn, or nothing of it any more. */
  sketch(sketch: Sketch | undefined): void;
  /** Opens the page's menu at a point (page space). */
  openMenu(at: Point): void;
}
