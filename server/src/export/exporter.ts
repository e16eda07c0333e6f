import { createReadStream, createWriteStream } from 'node:fs';
import { Readable } from 'node:stream';
import { pipeline } from 'node:stream/promises';
import { documentState, noAnnotations } from '@stylet/core/document';
import type { ExportMode, ExportPage } from '@stylet/core/pdf';
import type { Database } from '../db/database';
import { readAnnotations, readDocument, sourceOf } from '../documents/queries';
import type { PdfPool } from '../pdf/pool';
import type { Spool } from '../sources/spool';

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
    const { path, size, title, pages } = await this.open(id);
    const tail = await this.pool.exportBytes({ path, pages, mode });
    return {
      title,
      size: size + tail.length,
      stream: Readable.from(joined(path, tail)),
    };
  }

  /** A file whose first page is as it would be exported; `release` it after use. */
  async firstPageFile(id: string): Promise<{ path: string; release: () => Promise<void> }> {
    const { path, pages } = await this.open(id);
    const first = pages.slice(0, 1);
    if (Object.keys(first[0].annotations).length === 0)
      return { path, release: () => Promise.resolve() };
    const tail = await this.pool.exportBytes({ path, pages: first, mode: 'editable' });
    const copy = this.spool.workPath('.pdf');
    await pipeline(Readable.from(joined(path, tail)), createWriteStream(copy));
    return { path: copy, release: () => this.spool.discard(copy) };
  }

  private async open(
    id: string,
  ): Promise<{ path: string; size: number; title: string; pages: ExportPage[] }> {
    const source = await sourceOf(this.database, id, 'working');
    const path = await this.spool.fetch(this.database, source.digest, source.size);
    const document = await readDocument(this.database, id);
    const state = documentState(document.title, await readAnnotations(this.database, id));
    const pages = document.pages.map((page) => ({
      index: page.sourceIndex,
      annotations: state.annotations[page.id] ?? noAnnotations,
    }));
    return { path, size: source.size, title: source.title, pages };
  }
}

async function* joined(path: string, tail: Uint8Array): AsyncGenerator<Uint8Array> {
  for await (const chunk of createReadStream(path)) yield chunk as Uint8Array;
  if (tail.length > 0) yield tail;
}
