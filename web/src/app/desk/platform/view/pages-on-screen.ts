import { Injectable, inject } from '@angular/core';
import type { Page } from '@stylet/core/api';
import { paintingOrder, type Annotation } from '@stylet/core/document';
import type { Point } from '@stylet/core/geometry';
import { Store } from '@ngrx/store';
import { documentFeature } from '../document/document.reducer';
import { uppermostAt } from '../paper/page-index';
import { ViewState } from './view-state';

/** A page that shows, and where it lies in the window. */
export interface PageOnScreen {
  readonly page: Page;
  readonly rect: DOMRect;
}

/** Finds pages and what is on them by places in the window. */
@Injectable()
export class PagesOnScreen {
  private readonly view = inject(ViewState);
  private readonly all = inject(Store).selectSignal(documentFeature.selectAnnotations);
  /** Where the pointer was last, in the window. */
  pointer: Point | undefined;

  /** The page in the column of pages at a point of the window. */
  at(x: number, y: number): PageOnScreen | undefined {
    return this.showing().find(
      ({ rect }) => x >= rect.left && x <= rect.right && y >= rect.top && y <= rect.bottom,
    );
  }

  /** The page in the column of pages nearest to a point of the window. */
  nearest(x: number, y: number): PageOnScreen | undefined {
    const off = ({ rect }: PageOnScreen): number =>
      Math.hypot(
        Math.max(rect.left - x, 0, x - rect.right),
        Math.max(rect.top - y, 0, y - rect.bottom),
      );
    return this.showing().reduce<PageOnScreen | undefined>(
      (best, page) => (best && off(best) <= off(page) ? best : page),
      undefined,
    );
  }

  find(pageId: string): PageOnScreen | undefined {
    return this.showing().find(({ page }) => page.id === pageId);
  }

  /** The page most in view. */
  current(): Page | undefined {
    return this.view.pages()[this.view.currentPage()];
  }

  /** The uppermost annotation of a page within so many points of a point (page space). */
  hit(pageId: string, at: Point, radius: number): Annotation | undefined {
    return uppermostAt(paintingOrder(this.all()[pageId] ?? {}), at, radius);
  }

  private showing(): PageOnScreen[] {
    const views = document.querySelectorAll<HTMLElement>('stylet-page-strip stylet-page-view');
    return [...views].flatMap((view) => {
      const page = this.view.pages()[Number(view.dataset['page']) - 1];
      return page ? [{ page, rect: view.getBoundingClientRect() }] : [];
    });
  }
}
