import { Injectable, inject } from '@angular/core';
import { MatSnackBar } from '@angular/material/snack-bar';
import type { Page } from '@stylet/core/api';
import { isMovable, type Annotation, type PageAnnotations } from '@stylet/core/document';
import {
  compose,
  inverse,
  pageView,
  transformBox,
  type Box,
  type Matrix,
} from '@stylet/core/geometry';
import { Actions, ofType } from '@ngrx/effects';
import { filter, takeUntil } from 'rxjs';
import { documentActions } from '../../platform/document/document.reducer';
import type { GapTarget } from './gap-gesture';
import { AnnotationSelection } from '../../platform/selection/annotation-selection';
import { SelectionActions } from '../../platform/selection/selection-actions';
import { boundsOfAnnotation } from '../../platform/paper/drawing';
import { shownSize } from '../../platform/paper/page-geometry';
import { ViewState } from '../../platform/view/view-state';

/** Room above what comes onto the next page, in points. */
const TOP = 36;

/** Opens and closes room on pages, and takes what falls off to the page that follows, if wanted. */
@Injectable()
export class Gaps {
  private readonly selection = inject(AnnotationSelection);
  private readonly actions = inject(SelectionActions);
  private readonly view = inject(ViewState);
  private readonly snackBar = inject(MatSnackBar);
  private readonly actions$ = inject(Actions);

  /** What a gap on a page moves; `line` shows where it is drawn. */
  on(
    page: Page,
    annotations: PageAnnotations,
    line: (at: { from: number; to: number } | undefined) => void,
  ): GapTarget {
    const toShown = pageView(page.width, page.height, page.rotation, 1);
    const cancel = (): void => {
      line(undefined);
      this.selection.clear();
    };
    return {
      toShown,
      toPage: inverse(toShown),
      take: (y) => {
        const below = Object.values(annotations).filter((annotation) => {
          const box = shownBox(annotation, toShown);
          return isMovable(annotation) && box !== undefined && box.y0 >= y;
        });
        this.selection.take(
          page.id,
          below.map(({ id }) => id),
        );
      },
      show: (matrix, from, to) => {
        line({ from, to });
        if (this.selection.pageId()) this.selection.lifted.set(matrix);
      },
      drop: (matrix) => {
        line(undefined);
        const moved = this.selection.annotations();
        this.actions.transform(matrix);
        this.selection.clear();
        this.offer(page, moved, compose(matrix, toShown));
      },
      cancel,
    };
  }

  /** What has fallen off the page may go on the next one. */
  private offer(page: Page, moved: readonly Annotation[], toShown: Matrix): void {
    const { height } = shownSize(page);
    const fallen = moved.filter((a) => {
      const box = shownBox(a, toShown);
      return box !== undefined && box.y0 + box.y1 > 2 * height;
    });
    const pages = this.view.pages();
    const next = pages[pages.findIndex(({ id }) => id === page.id) + 1];
    if (fallen.length === 0) return;
    const words = fallen.length === 1 ? 'One thing has' : `${fallen.length} things have`;
    const bar = this.snackBar.open(
      `${words} fallen off the page.`,
      next ? 'Take to the next page' : 'Close',
      { duration: 9000 },
    );
    // Once the gap is undone there is nothing left to ask about.
    this.actions$
      .pipe(
        ofType(documentActions.stepMade),
        filter(({ kind }) => kind === 'undone'),
        takeUntil(bar.afterDismissed()),
      )
      .subscribe(() => bar.dismiss());
    if (next)
      bar.onAction().subscribe(() =>
        this.takeOver(
          page,
          next,
          fallen.map(({ id }) => id),
        ),
      );
  }

  /** From below a page to the top of another, one under the other as they were. */
  private takeOver(page: Page, next: Page, ids: readonly string[]): void {
    this.selection.take(page.id, ids);
    const toShown = pageView(page.width, page.height, page.rotation, 1);
    const boxes = this.selection.annotations().flatMap((a) => shownBox(a, toShown) ?? []);
    const top = Math.min(...boxes.map(({ y0 }) => y0));
    const fromShown = inverse(pageView(next.width, next.height, next.rotation, 1));
    const down: Matrix = [1, 0, 0, 1, 0, TOP - top];
    this.actions.moveToPage(next.id, compose(compose(toShown, down), fromShown));
  }
}

function shownBox(annotation: Annotation, toShown: Matrix): Box | undefined {
  const bounds = boundsOfAnnotation(annotation);
  return bounds && transformBox(toShown, bounds);
}
