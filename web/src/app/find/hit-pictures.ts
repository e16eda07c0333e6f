import { Injectable, inject, type OnDestroy } from '@angular/core';
import type { FoundPage } from '@stylet/core/api';
import { Api } from '../api/api';
import { PdfWorkers } from '../../workers/pdf-workers';
import type { PdfRequests, Region } from '../../workers/protocol';
import { NotLoaded, WorkerClient } from '../../workers/worker-client';

/** Draws small parts of pages of any documents, in a worker of its own. */
@Injectable()
export class HitPictures implements OnDestroy {
  private readonly api = inject(Api);
  private readonly workers = inject(PdfWorkers);
  private client = this.connect();

  /** Part of a page as it is shown; `scale` in pixels a point. */
  async draw(
    { source, sourceIndex, rotation }: FoundPage,
    scale: number,
    region: Region,
    urgency: () => number,
    signal: AbortSignal,
  ): Promise<ImageBitmap> {
    const url = this.api.sourceUrl(source);
    const params = { url, page: sourceIndex, rotation, scale, region, marks: undefined };
    const { client } = this;
    try {
      return await client.ask('render', params, urgency, signal);
    } catch (error) {
      if (!(error instanceof NotLoaded)) throw error;
      // All that waited comes here; the first one to do so starts another worker, once.
      if (this.client === client) this.client = this.connect();
      return this.client.ask('render', params, urgency, signal);
    }
  }

  ngOnDestroy(): void {
    this.client.close();
  }

  private connect(): WorkerClient<PdfRequests> {
    return new WorkerClient<PdfRequests>(this.workers.take(), (message) => console.error(message));
  }
}
