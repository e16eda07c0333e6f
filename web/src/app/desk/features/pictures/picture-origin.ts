import { Injectable, inject } from '@angular/core';
import { MatDialog } from '@angular/material/dialog';
import { Router } from '@angular/router';
import type { PictureSource } from '@stylet/core/document';
import { Store } from '@ngrx/store';
import { documentFeature } from '../../platform/document/document.reducer';
import { ViewState } from '../../platform/view/view-state';

/** Leads back to where pictures were taken from. */
@Injectable()
export class PictureOrigin {
  private readonly view = inject(ViewState);
  private readonly router = inject(Router);
  private readonly dialog = inject(MatDialog);
  private readonly documentId = inject(Store).selectSignal(documentFeature.selectId);

  nameOf(source: PictureSource): string {
    return 'address' in source ? new URL(source.address).host : source.title;
  }

  async show(source: PictureSource): Promise<void> {
    if ('address' in source) {
      const { AddressDialog } = await import('../../platform/view/address-dialog');
      this.dialog.open(AddressDialog, { data: source.address });
      return;
    }
    const { documentId, pageId, box } = source;
    if (documentId === this.documentId()) {
      this.view.jumpToPage(pageId, { x: box.x0, y: box.y0 });
      return;
    }
    const queryParams = { page: pageId, x: Math.round(box.x0), y: Math.round(box.y0) };
    await this.router.navigate(['/documents', documentId], { queryParams });
  }
}
