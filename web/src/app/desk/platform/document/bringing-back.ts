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

  private offered: ReadonlySet<string> = new Set();

  /** Whether it is said of a page just now. */
  isOffered = (pageId: string): boolean => this.offered.has(pageId);

  offer(words: string, documentId: string, pages: readonly DocumentPage[]): void {
    const offered = new Set(pages.map(({ id }) => id));
    this.offered = offered;
    const said = this.snackBar.open(words, 'Bring back', { duration: OFFERED });
    said.onAction().subscribe(() => {
      if (this.openId() !== documentId) return;
      this.editing.change(pages.map((page) => ({ type: 'page.add', page })));
    });
    said.afterDismissed().subscribe(() => {
      if (this.offered === offered) this.offered = new Set();
    });
  }
}
