import { join } from 'node:path';
import type { AttachmentFile } from '@stylet/core/api';
import type { Effect } from '@stylet/core/document';
import type { TypedText } from '@stylet/core/typed-pages';
import type { EmbeddedPicture, ReadSheet } from '@stylet/core/pdf';
import type { Breach } from '../export/breach';
import type { LeftOut } from '../export/left-out';
import type { RetypeTask } from '../typed/retype';
import type { TextTask } from '../typed/text-in';
import type { TypesetTask } from '../typed/typeset';
import type { WrittenOutFile, WrittenOutTask } from '../typed/written-out';
import { Threads } from '../work/threads';
import type {
  AttachmentTask,
  AttachmentsTask,
  EmbeddedTask,
  ReadResult,
  ReadTask,
  SheetPagesTask,
} from './reading-tasks';
import type {
  DrawingTask,
  ExportTask,
  ExportedBytes,
  SheetTask,
  SnipTask,
  Snipped,
  ThreadData,
} from './writing-tasks';

/** Reading a file for import, and what is done for looking at it. */
const READING = { light: 10_000, heavy: 60_000 };
/** Putting an export together; that of a thousand full pages takes a while. */
const EXPORTING = { light: 15_000, heavy: 180_000 };
const MOST_MEMORY = 3072;

/** Runs PDF work off the thread that answers requests. What reads files does not wait for what writes them. */
export class PdfPool {
  private readonly reading: Threads;
  private readonly exporting: Threads;

  /** `modules` is the folder of the built ones. */
  constructor(modules: string, workerData: ThreadData) {
    const settings = { atOnce: 2, mostMemory: MOST_MEMORY };
    this.reading = new Threads({
      ...settings,
      filename: join(modules, 'reading-tasks.js'),
      patience: READING,
    });
    this.exporting = new Threads({
      ...settings,
      filename: join(modules, 'writing-tasks.js'),
      workerData,
      patience: EXPORTING,
    });
  }

  read(task: ReadTask, awaited?: AbortSignal): Promise<ReadResult> {
    return this.reading.run('read', task, awaited);
  }

  embedded(task: EmbeddedTask): Promise<EmbeddedPicture | undefined> {
    return this.reading.run('embedded', task);
  }

  attachments(task: AttachmentsTask, awaited?: AbortSignal): Promise<AttachmentFile[]> {
    return this.reading.run('attachments', task, awaited);
  }

  /** Writes a file that is inside another one; its name, or undefined where there is none. */
  attachment(task: AttachmentTask, awaited?: AbortSignal): Promise<string | undefined> {
    return this.reading.run('attachment', task, awaited);
  }

  /** Writes a file of text as a PDF of typed pages. */
  typeset(task: TypesetTask, awaited?: AbortSignal): Promise<void> {
    return this.exporting.run('typeset', task, awaited);
  }

  /** Writes pictures that are written out in a text as files of their own. */
  writtenOut(task: WrittenOutTask, awaited?: AbortSignal): Promise<WrittenOutFile[]> {
    return this.reading.run('writtenOut', task, awaited);
  }

  /** The text of a file of typed pages; undefined where it has none. */
  text(task: TextTask, awaited?: AbortSignal): Promise<TypedText | undefined> {
    return this.reading.run('text', task, awaited);
  }

  /** Writes a text that has become another one as a PDF; what is done by that to its document. */
  retype(task: RetypeTask, awaited?: AbortSignal): Promise<Effect[]> {
    return this.exporting.run('retype', task, awaited);
  }

  exportBytes(task: ExportTask, awaited?: AbortSignal): Promise<ExportedBytes> {
    return this.exporting.run('exportBytes', task, awaited);
  }

  look(task: ExportTask, awaited?: AbortSignal): Promise<LeftOut & Breach> {
    return this.exporting.run('look', task, awaited);
  }

  snip(task: SnipTask, awaited?: AbortSignal): Promise<Snipped> {
    return this.exporting.run('snip', task, awaited);
  }

  drawing(task: DrawingTask, awaited?: AbortSignal): Promise<Uint8Array> {
    return this.exporting.run('drawing', task, awaited);
  }

  sheet(task: SheetTask, awaited?: AbortSignal): Promise<Uint8Array> {
    return this.exporting.run('sheet', task, awaited);
  }

  /** The pages of a file that qpdf has written, each by itself. */
  sheetPages(task: SheetPagesTask, awaited?: AbortSignal): Promise<ReadSheet> {
    return this.reading.run('sheetPages', task, awaited);
  }

  async close(): Promise<void> {
    await Promise.all([this.reading.close(), this.exporting.close()]);
  }
}
