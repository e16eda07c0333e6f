import { createReadStream, createWriteStream } from 'node:fs';
import { writeFile } from 'node:fs/promises';
import { Readable } from 'node:stream';
import { pipeline } from 'node:stream/promises';
import type { ExportMode } from '@stylet/core/pdf';
import { Problem } from '@stylet/core/problems';
import type { Database } from '../db/database';
import { sourcesOf } from '../documents/queries';
import type { SourcePath } from '../pdf/open-files';
import type { PdfPool } from '../pdf/pool';
import { run } from '../pdf/programs';
import { QPDF_DONE } from '../pdf/repair';
import type { SnipTask } from '../pdf/tasks';
import type { Spool, SpooledFile } from '../sources/spool';

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
   * is written anew. Throws Problem `document-not-found`.
   */
  async export(id: string, mode: ExportMode): Promise<Exported> {
    const { title, files } = await this.open(id);
    const { base, tail, isJoined } = await this.pool.exportBytes({ documentId: id, files, mode });
    const { path, size } = files.find(({ digest }) => digest === base)!;
    if (!isJoined)
      return { title, size: size + tail.length, stream: Readable.from(joined(path, tail)) };
    const clean = await this.clean(await this.written(path, tail));
    const stream = createReadStream(clean.path, { highWaterMark: PIECE });
    stream.once('close', () => void this.spool.discard(clean.path));
    return { title, size: clean.size, stream };
  }

  /** A file whose first page is as it would be exported; `release` it after use. */
  async firstPageFile(id: string): Promise<{ path: string; release: () => Promise<void> }> {
    const { files } = await this.open(id);
    const { base, tail } = await this.pool.exportBytes({
      documentId: id,
      files,
      mode: 'editable',
      pages: 1,
    });
    const { path } = files.find(({ digest }) => digest === base)!;
    if (tail.length === 0) return { path, release: () => Promise.resolve() };
    const copy = await this.written(path, tail);
    return { path: copy, release: () => this.spool.discard(copy) };
  }

  /** Part of a page as a PDF of one page, on disk; whoever asks discards it. */
  async snip(id: string, part: Omit<SnipTask, 'documentId' | 'files'>): Promise<SpooledFile> {
    const { files } = await this.open(id);
    const { bytes, isReadable } = await this.pool.snip({ documentId: id, files, ...part });
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
  private async clean(path: string): Promise<SpooledFile> {
    const plain = this.spool.workPath('.pdf');
    const { code, errors } = await run('qpdf', [path, plain]);
    await this.spool.discard(path);
    if (!QPDF_DONE.includes(code))
      throw new Problem('tool-failed', `qpdf: ${errors.slice(0, 300)}`);
    return this.spool.adopt(plain);
  }
}

/** Bytes handed on at a time. */
const PIECE = 1024 * 1024;

async function* joined(path: string, tail: Uint8Array): AsyncGenerator<Uint8Array> {
  for await (const chunk of createReadStream(path, { highWaterMark: PIECE }))
    yield chunk as Uint8Array;
  if (tail.length > 0) yield tail;
}
