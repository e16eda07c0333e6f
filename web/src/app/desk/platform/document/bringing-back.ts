import { Injectable, inject } from '@angular/core';
import { MatSnackBar } from '@angular/material/snack-bar';
import type { DocumentPage } from '@stylet/core/document';
import { Store } from '@ngrx/store';
import { documentFeature } from './document.reducer';
import { Editing } from './editing';

/** How long it is offered, in ms. */
const OFFERED = 30_000;

/** Says that pages have been removed, and offers to have them back. */
@Injectable({ providedIn: 'root' })
export class BringingBack {
  private readonly snackBar = inject(MatSnackBar);
  private readonly editing = inject(Editing);
  private readonly openId = inject(Store).selectSignal(documentFeature.selectId);

  offer(words: string, documentId: string, pages: readonly DocumentPage[]): void {
    this.snackBar
      .open(words, 'Bring back', { duration: OFFERED })
      .onAction()
      .subscribe(() => {
        if (this.openId() !== documentId) return;
        this.editing.change(pages.map((page) => ({ type: 'page.add', page })));
      });
  }
}
