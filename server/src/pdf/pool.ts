import { Piscina } from 'piscina';
import type { EmbeddedPicture } from '@stylet/core/pdf';
import type {
  EmbeddedTask,
  ExportTask,
  ExportedBytes,
  ReadResult,
  ReadTask,
  SnipTask,
  Snipped,
  ThreadData,
} from './tasks';

/** Runs PDF work off the thread that answers requests. */
export class PdfPool {
  private readonly threads: Piscina;

  /** `filename` is the built `tasks` module. */
  constructor(filename: string, workerData: ThreadData) {
    // None before it is needed: Node 20 aborts when a thread is ended while it still loads its module.
    this.threads = new Piscina({
      filename,
      minThreads: 0,
      maxThreads: 2,
      idleTimeout: 60_000,
      workerData,
    });
  }

  read(task: ReadTask): Promise<ReadResult> {
    return this.threads.run(task, { name: 'read' }) as Promise<ReadResult>;
  }

  exportBytes(task: ExportTask): Promise<ExportedBytes> {
    return this.threads.run(task, { name: 'exportBytes' }) as Promise<ExportedBytes>;
  }

  snip(task: SnipTask): Promise<Snipped> {
    return this.threads.run(task, { name: 'snip' }) as Promise<Snipped>;
  }

  embedded(task: EmbeddedTask): Promise<EmbeddedPicture | undefined> {
    return this.threads.run(task, { name: 'embedded' }) as Promise<EmbeddedPicture | undefined>;
  }

  close(): Promise<void> {
    return this.threads.destroy();
  }
}
