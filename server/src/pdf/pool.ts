import { Piscina } from 'piscina';
import type { ExportTask, ReadResult, ReadTask, ThreadData } from './tasks';

/** Runs PDF work off the thread that answers requests. */
export class PdfPool {
  private readonly threads: Piscina;

  /** `filename` is the built `tasks` module. */
  constructor(filename: string, workerData: ThreadData) {
    this.threads = new Piscina({ filename, maxThreads: 2, idleTimeout: 60_000, workerData });
  }

  read(task: ReadTask): Promise<ReadResult> {
    return this.threads.run(task, { name: 'read' }) as Promise<ReadResult>;
  }

  exportBytes(task: ExportTask): Promise<Uint8Array> {
    return this.threads.run(task, { name: 'exportBytes' }) as Promise<Uint8Array>;
  }

  close(): Promise<void> {
    return this.threads.destroy();
  }
}
