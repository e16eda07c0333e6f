import { Injectable, inject } from '@angular/core';
import { MatDialog } from '@angular/material/dialog';
import { Router } from '@angular/router';
import type { PageLink } from '../../../../workers/protocol';
import { ViewState } from './view-state';

/** Goes where links lead. */
@Injectable()
export class Following {
  private readonly view = inject(ViewState);
  private readonly router = inject(Router);
  private readonly dialog = inject(MatDialog);

  async follow({ target }: PageLink): Promise<void> {
    if (target.kind === 'page') {
      const { page, x, y } = target;
      this.view.jump({
        pageIndex: page,
        ...(x === undefined ? {} : { x }),
        ...(y === undefined ? {} : { y }),
      });
      return;
    }
    if (target.kind === 'document') {
      await this.router.navigate(['/documents', target.id], { queryParams: { at: target.page } });
      return;
    }
    const { AddressDialog } = await import('./address-dialog');
    this.dialog.open(AddressDialog, { data: target.url });
  }
}
