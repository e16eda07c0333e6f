import { Injectable, inject, type OnDestroy } from '@angular/core';
import type { FoundPage } from '@stylet/core/api';
import { Api } from '../api/api';
import { PdfWorkers } from '../../workers/pdf-workers';
import type { PdfRequests, Region } from '../../workers/protocol';
import { WorkerClient } from '../../workers/worker-client';

/** Draws small parts of pages of any documents, in a worker of its own. */
@Injectable()
export class HitPictures implements OnDestroy {
  private readonly api = inject(Api);
  private readonly client = new WorkerClient<PdfRequests>(inject(PdfWorkers).take(), (message) =>
    console.error(message),
  );

  /** Part of a page as it is shown; `scale` in pixels a point. */
  draw(
    { source, sourceIndex, rotation }: FoundPage,
    scale: number,
    region: Region,
    urgency: () => number,
    signal: AbortSignal,
  ): Promise<ImageBitmap> {
    const url = this.api.sourceUrl(source);
    const params = { url, page: sourceIndex, rotation, scale, region, marks: undefined };
    return this.client.ask('render', params, urgency, signal);
  }

  ngOnDestroy(): void {
    this.client.close();
  }
}
