import { createReadStream, createWriteStream } from 'node:fs';
import { writeFile } from 'node:fs/promises';
import { Readable } from 'node:stream';
import { pipeline } from 'node:stream/promises';
import type { ExportHow } from '@stylet/core/pdf';
import type { ExportReport } from '@stylet/core/api';
import { Problem } from '@stylet/core/problems';
import type { Database } from '../db/database';
import { sourcesOf, summaryOf } from '../documents/queries';
import type { SourcePath } from '../pdf/open-files';
import type { PdfPool } from '../pdf/pool';
import { rewritten } from '../pdf/rewrite';
import type { SnipTask } from '../pdf/writing-tasks';
import type { Spool } from '../sources/spool';
import type { SpooledFile } from '../sources/spooled-file';

/** An export as it is sent. */
export interface Exported {
  readonly title: string;
  readonly size: number;
  readonly stream: Readable;
}

/** Turns documents into PDFs. */
export class Exporter {
  constructor(
    private readonly database: Database,
    private readonly pool: PdfPool,
    private readonly spool: Spool,
  ) {}

  /**
   * The whole document as a PDF: its file with what is appended, or, with pages of several files, one that
   * is written anew. Throws Problem `document-not-found`, and `signature-breaks` unless that is `isConfirmed`.
   */
  async export(
    id: string,
    how: ExportHow,
    isConfirmed: boolean,
    awaited?: AbortSignal,
  ): Promise<Exported> {
    const { title, files } = await this.open(id);
    const task = { documentId: id, files, how };
    const { base, tail, isJoined, breach } = await this.pool.exportBytes(task, awaited);
    if (breach.isBreach && !isConfirmed)
      throw new Problem('signature-breaks', `${breach.signatures} of them would no longer hold.`);
    const { path, size } = files.find(({ digest }) => digest === base)!;
    if (!isJoined)
      return { title, size: size + tail.length, stream: Readable.from(joined(path, tail)) };
    const clean = await this.clean(await this.written(path, tail), awaited);
    return { title, size: clean.size, stream: this.spool.readOnce(clean.path) };
  }

  /** What an export would leave out or break. Throws Problem `document-not-found`. */
  async report(id: string, how: ExportHow, awaited?: AbortSignal): Promise<ExportReport> {
    const { files } = await this.open(id);
    const { notices } = await summaryOf(this.database, id);
    return {
      ...(await this.pool.look({ documentId: id, files, how }, awaited)),
      isUnprotected: notices.some(({ kind }) => kind === 'protected'),
    };
  }

  /** A file whose first page is as it would be exported; `release` it after use. */
  async firstPageFile(
    id: string,
    awaited: AbortSignal,
  ): Promise<{ path: string; release: () => Promise<void> }> {
    const { files } = await this.open(id);
    const how = { mode: 'editable', keepsNotes: true } as const;
    const task = { documentId: id, files, how, pages: 1 };
    const { base, tail } = await this.pool.exportBytes(task, awaited);
    const { path } = files.find(({ digest }) => digest === base)!;
    if (tail.length === 0) return { path, release: () => Promise.resolve() };
    const copy = await this.written(path, tail);
    return { path: copy, release: () => this.spool.discard(copy) };
  }

  /** Part of a page as a PDF of one page, on disk; whoever asks discards it. */
  async snip(
    id: string,
    part: Omit<SnipTask, 'documentId' | 'files'>,
    awaited?: AbortSignal,
  ): Promise<SpooledFile> {
    const { files } = await this.open(id);
    const { bytes, isReadable } = await this.pool.snip({ documentId: id, files, ...part }, awaited);
    const cut = this.spool.workPath('.pdf');
    await writeFile(cut, bytes);
    return isReadable ? this.spool.adopt(cut) : this.clean(cut);
  }

  /** The files of a document's pages, and its own. */
  private async open(
    id: string,
  ): Promise<{ title: string; files: (SourcePath & { size: number })[] }> {
    const { title, sources } = await sourcesOf(this.database, id);
    const files = await Promise.all(
      sources.map(async ({ digest, size }) => ({
        digest,
        size,
        path: await this.spool.fetch(this.database, digest, size),
      })),
    );
    return { title, files };
  }

  private async written(path: string, tail: Uint8Array): Promise<string> {
    const copy = this.spool.workPath('.pdf');
    await pipeline(Readable.from(joined(path, tail)), createWriteStream(copy));
    return copy;
  }

  /** Has qpdf write a file anew: without what is not used, and in the one way that all can read. */
  private async clean(path: string, awaited?: AbortSignal): Promise<SpooledFile> {
    try {
      return await rewritten(path, this.spool, awaited);
    } finally {
      await this.spool.discard(path);
    }
  }
}

/** Bytes handed on at a time. */
const PIECE = 1024 * 1024;

async function* joined(path: string, tail: Uint8Array): AsyncGenerator<Uint8Array> {
  for await (const chunk of createReadStream(path, { highWaterMark: PIECE }))
    yield chunk as Uint8Array;
  if (tail.length > 0) yield tail;
}
