import { Injectable } from '@angular/core';
import { KEPT_DB } from '../app/storage/account';

/** Starts PDF workers, one ahead: by the time a cover is clicked the next one is running. */
@Injectable({ providedIn: 'root' })
export class PdfWorkers {
  private ready: Worker | undefined;

  /** Has a worker running for the next document. */
  prepare(): void {
    if (this.ready) return;
    const worker = (this.ready = start());
    // One that could not be loaded would never answer.
    worker.onerror = () => {
      worker.terminate();
      if (this.ready === worker) this.ready = undefined;
    };
  }

  /** A worker for one document; whoever takes it ends it. */
  take(): Worker {
    const worker = this.ready ?? start();
    this.ready = undefined;
    return worker;
  }
}

const start = (): Worker =>
  new Worker(new URL('./pdf.worker', import.meta.url), { type: 'module', name: KEPT_DB });
