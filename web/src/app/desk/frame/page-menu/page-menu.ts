import { Injectable, signal } from '@angular/core';
import type { Page } from '@stylet/core/api';
import type { Point } from '@stylet/core/geometry';

/** A place where the menu of a page was asked for. */
export interface MenuPlace {
  readonly page: Page;
  /** In the window, CSS pixels. */
  readonly at: Point;
}

/** The menu of a page: asked for by holding a finger or the lasso still, or by the right button. */
@Injectable()
export class PageMenu {
  readonly place = signal<MenuPlace | undefined>(undefined);

  open(page: Page, at: Point): void {
    this.place.set({ page, at });
  }
}
