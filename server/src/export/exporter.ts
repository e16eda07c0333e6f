import { createReadStream, createWriteStream } from 'node:fs';
import { writeFile } from 'node:fs/promises';
import { Readable } from 'node:stream';
import { pipeline } from 'node:stream/promises';
import type { ExportMode } from '@stylet/core/pdf';
import { Problem } from '@stylet/core/problems';
import type { Database } from '../db/database';
import { sourceOf } from '../documents/queries';
import type { PdfPool } from '../pdf/pool';
import { run } from '../pdf/programs';
import { QPDF_DONE } from '../pdf/repair';
import type { SnipTask } from '../pdf/tasks';
import type { Spool, SpooledFile } from '../sources/spool';

/** An export as it is sent: the untouched file, then what is appended to it. */
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

  /** The whole document as a PDF. Throws Problem `document-not-found`. */
  async export(id: string, mode: ExportMode): Promise<Exported> {
    const { path, size, title } = await this.open(id);
    const tail = await this.pool.exportBytes({ documentId: id, path, mode });
    return {
      title,
      size: size + tail.length,
      stream: Readable.from(joined(path, tail)),
    };
  }

  /** A file whose first page is as it would be exported; `release` it after use. */
  async firstPageFile(id: string): Promise<{ path: string; release: () => Promise<void> }> {
    const { path } = await this.open(id);
    const tail = await this.pool.exportBytes({
      documentId: id,
      path,
      mode: 'editable',
      pages: 1,
    });
    if (tail.length === 0) return { path, release: () => Promise.resolve() };
    const copy = this.spool.workPath('.pdf');
    await pipeline(Readable.from(joined(path, tail)), createWriteStream(copy));
    return { path: copy, release: () => this.spool.discard(copy) };
  }

  /** Part of a page as a PDF of one page, on disk; whoever asks discards it. */
  async snip(id: string, part: Omit<SnipTask, 'documentId' | 'path'>): Promise<SpooledFile> {
    const { path } = await this.open(id);
    const { bytes, isReadable } = await this.pool.snip({ documentId: id, path, ...part });
    const cut = this.spool.workPath('.pdf');
    await writeFile(cut, bytes);
    if (isReadable) return this.spool.adopt(cut);
    // qpdf writes what is encoded otherwise in the one way that all can read.
    const plain = this.spool.workPath('.pdf');
    const { code, errors } = await run('qpdf', [cut, plain]);
    await this.spool.discard(cut);
    if (!QPDF_DONE.includes(code))
      throw new Problem('tool-failed', `qpdf: ${errors.slice(0, 300)}`);
    return this.spool.adopt(plain);
  }

  private async open(id: string): Promise<{ path: string; size: number; title: string }> {
    const source = await sourceOf(this.database, id, 'working');
    const path = await this.spool.fetch(this.database, source.digest, source.size);
    return { path, size: source.size, title: source.title };
  }
}

/** Bytes handed on at a time. */
const PIECE = 1024 * 1024;

async function* joined(path: string, tail: Uint8Array): AsyncGenerator<Uint8Array> {
  for await (const chunk of createReadStream(path, { highWaterMark: PIECE }))
    yield chunk as Uint8Array;
  if (tail.length > 0) yield tail;
}
