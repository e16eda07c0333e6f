import { createReadStream } from 'node:fs';
import { open, stat } from 'node:fs/promises';
import { madeAt } from '@stylet/core/document';
import { Problem } from '@stylet/core/problems';
import { LONGEST_PAGES, textKindOf } from '@stylet/core/typed-pages';
import type { Identity } from '../access/identity';
import type { PictureTools } from '../pictures/store';
import type { ComingPdf } from '../sources/take-pdf';
import type { PicturesBeside } from '../sources/upload';
import { picturesOfText } from './pictures-of-text';

/** Bytes of a text, of four to a letter at the most. */
const MOST_BYTES = 4 * LONGEST_PAGES;
/** The same of one with pictures written out in it. */
const MOST_BYTES_WRITTEN_OUT = 64 * 1024 * 1024;

/** A file that comes, and the document it is to be, if it has an id already. */
export interface ComingFile extends Omit<ComingPdf, 'documentId'> {
  readonly filename: string;
  readonly id: string | undefined;
  readonly pictures: PicturesBeside;
}

/**
 * Does something with a file that comes as a PDF: text (by its name) is written as typed pages first. Throws Problem
 * `text-unreadable` and `text-too-long`.
 */
export async function withPdf<T>(
  tools: PictureTools,
  identity: Identity,
  { filename, id, pictures, ...coming }: ComingFile,
  work: (pdf: Omit<ComingPdf, 'documentId'>) => Promise<T>,
): Promise<T> {
  const kind = textKindOf(filename);
  if (!kind) return work(coming);
  const { pool } = tools;
  return tools.spool.withWork(async (own) => {
    const { path } = await own.take(coming.stream);
    coming.checkComplete();
    // Whatever it is called.
    if (await isPdf(path)) return work({ ...coming, stream: createReadStream(path) });
    const { size } = await stat(path);
    const most = kind === 'plain' ? MOST_BYTES : MOST_BYTES_WRITTEN_OUT;
    if (size > most)
      throw new Problem('text-too-long', `The limit is ${Math.round(most / 1e6)} MB.`);
    const known =
      kind === 'plain'
        ? []
        : await picturesOfText({ ...tools, spool: own }, identity, path, pictures);
    const to = own.workPath('.pdf');
    // Sent once more it is the same file.
    const now = (id && madeAt(id)) ?? new Date().toISOString();
    const name = filename.replace(/\.[^.]*$/, '');
    await pool.typeset({ path, kind, known, name, now, to }, coming.awaited);
    return work({ ...coming, stream: createReadStream(to), checkComplete: () => undefined });
  });
}

async function isPdf(path: string): Promise<boolean> {
  const file = await open(path);
  try {
    const { buffer } = await file.read(Buffer.alloc(5), 0, 5, 0);
    return buffer.toString('latin1') === '%PDF-';
  } finally {
    await file.close();
  }
}
