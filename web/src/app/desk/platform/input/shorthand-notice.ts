import { Injectable, inject } from '@angular/core';
import { MatSnackBar } from '@angular/material/snack-bar';
import type { Effect } from '@stylet/core/document';
import { Editing } from '../document/editing';
import { AnnotationSelection } from '../selection/annotation-selection';

/** How long one can say that a stroke was meant as ink, in ms. */
const SHOWN = 6000;

/** What was done in shorthand, which can be refused: then the stroke is ink after all. */
export interface Refusable {
  /** Tells what was done; `back` is what refusing does besides, to take it back. */
  tell(message: string, back?: readonly Effect[]): void;
}

/** Says what shorthand has done, and gives the stroke back as ink to whoever did not mean it. */
@Injectable()
export class ShorthandNotice {
  private readonly snackBar = inject(MatSnackBar);
  private readonly editing = inject(Editing);
  private readonly selection = inject(AnnotationSelection);

  for(ink: () => Effect[]): Refusable {
    return {
      tell: (message, back = []) =>
        void this.snackBar
          .open(message, 'Keep as ink', { duration: SHOWN })
          .onAction()
          .subscribe(() => {
            this.selection.clear();
            this.editing.change([...back, ...ink()]);
          }),
    };
  }
}
