import { InjectionToken, type Signal, type Type } from '@angular/core';
import type { Page } from '@stylet/core/api';
import type { PageAnnotations } from '@stylet/core/document';
import type { Point } from '@stylet/core/geometry';

/** A page on the screen, as what lies on it needs it. */
export interface PageFace {
  readonly page: Signal<Page>;
  /** Its place in the document, from 0. */
  readonly index: Signal<number>;
  readonly annotations: Signal<PageAnnotations>;
  /** CSS pixels to a point. */
  readonly scale: Signal<number>;
  /** From the window to page space. */
  toPage(x: number, y: number): Point;
}

/** The page that a page layer lies on. */
export const PAGE_FACE = new InjectionToken<PageFace>('the page beneath');

/** What shows a page that can be written on, for whoever shows one elsewhere than on the strip. */
export const PAGE_VIEW = new InjectionToken<Type<unknown>>('what shows a page');
