import { Injectable, inject } from '@angular/core';
import { MatDialog } from '@angular/material/dialog';
import { coverageOf } from '@stylet/core/document';
import { Store } from '@ngrx/store';
import { firstValueFrom } from 'rxjs';
import { Api } from '../../../api/api';
import { UnreadPages } from '../../platform/document/unread-pages';
import { documentFeature } from '../../platform/document/document.reducer';
import { LandmarkActions } from '../../platform/landmarks/landmark-actions';
import { ReadingLog } from '../../platform/view/reading-log';
import { ViewState } from '../../platform/view/view-state';

/** Opens the chart of what has been read, annotated and bookmarked, chapter by chapter. */
@Injectable()
export class CoverageChart {
  private readonly api = inject(Api);
  private readonly actions = inject(LandmarkActions);
  private readonly dialog = inject(MatDialog);
  private readonly log = inject(ReadingLog);
  private readonly unread = inject(UnreadPages);
  private readonly view = inject(ViewState);
  private readonly store = inject(Store);
  private readonly documentId = this.store.selectSignal(documentFeature.selectId);
  private readonly landmarks = this.store.selectSignal(documentFeature.selectLandmarks);
  private readonly annotations = this.store.selectSignal(documentFeature.selectAnnotations);

  async open(): Promise<void> {
    const { CoverageDialog } = await import('./coverage-dialog');
    const coverage = this.read();
    const page = await firstValueFrom(
      this.dialog
        .open<unknown, unknown, number>(CoverageDialog, {
          data: { coverage, current: this.view.currentPage() },
          width: '860px',
          maxWidth: '96vw',
        })
        .afterClosed(),
    );
    if (page !== undefined) this.view.jump({ pageIndex: page });
  }

  private async read(): Promise<ReturnType<typeof coverageOf>> {
    await this.log.tell();
    await this.unread.need(this.view.pages().map(({ id }) => id));
    const { seen } = await firstValueFrom(this.api.reading(this.documentId()!));
    return coverageOf(
      this.view.pages(),
      this.actions.tree(),
      this.landmarks(),
      this.annotations(),
      new Map(seen.map(({ pageId, last }) => [pageId, last])),
    );
  }
}
