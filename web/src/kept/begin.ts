import { sha256 } from '@noble/hashes/sha2.js';
import { bytesToHex } from '@noble/hashes/utils.js';
import { titlesOf, type StyletDocument } from '@stylet/core/api';
import { idsFor, type Annotation } from '@stylet/core/document';
import {
  notebookPages,
  paperPdf,
  takeIn,
  type ByteSource,
  type ImportedPdf,
} from '@stylet/core/pdf';
import { bytesOf, filesOfPages } from './advancing';
import { sourcePath } from './addresses';
import type { Beginning } from './begun';
import type { KeptDb, KeptState } from './kept-db';

/** Annotations written at a time. */
const TOGETHER = 2000;

/** The bytes of a file, read as they are needed: only workers can. */
export type BytesIn = (file: Blob) => ByteSource;

/** A document as it begins: the server will have it just so. */
interface Begun {
  readonly document: StyletDocument;
  readonly annotations: readonly Annotation[];
  /** The file its pages are in. */
  readonly file: Blob;
}

/**
 * Keeps a document that the server has not heard of yet, as it will be there; what it is called, or undefined where only
 * the server can read the file: what is locked, damaged, or has pictures in it that Stylet has put there. Throws what IndexedDB throws.
 */
export async function begin(
  db: KeptDb,
  beginning: Beginning,
  bytesIn: BytesIn,
): Promise<string | undefined> {
  const begun = await read(beginning, bytesIn);
  if (!begun) return undefined;
  const { document, annotations, file } = begun;
  const { id } = document;
  await db.put('files', { path: sourcePath(document.source), blob: file });
  const counts: Record<string, number> = {};
  let bytes = 0;
  for (let i = 0; i < annotations.length; i += TOGETHER) {
    const transaction = db.transaction('annotations', 'readwrite');
    for (const annotation of annotations.slice(i, i + TOGETHER)) {
      const { pageId } = annotation;
      counts[pageId] = (counts[pageId] ?? 0) + 1;
      bytes += bytesOf(annotation);
      void transaction.store.put({ documentId: id, id: annotation.id, pageId, annotation });
    }
    await transaction.done;
  }
  const state: KeptState = {
    id,
    revision: 0,
    counts,
    bytes,
    files: filesOfPages(document),
    isChosen: false,
    isBegun: true,
    used: beginning.now,
  };
  const transaction = db.transaction(['states', 'documents'], 'readwrite');
  void transaction.objectStore('documents').put(document);
  void transaction.objectStore('states').put(state);
  await transaction.done;
  return document.title;
}

async function read({ id, origin, now }: Beginning, bytesIn: BytesIn): Promise<Begun | undefined> {
  const at = new Date(now).toISOString();
  if (origin.kind === 'file') {
    const { file, name, naming, folder } = origin;
    const taken = takeIn(bytesIn(file), { now: at, ids: idsFor(id), isMended: false });
    if (taken.outcome !== 'read') return undefined;
    const { pdf, tail } = taken;
    if (pdf.pages.length === 0 || pdf.annotations.some(({ kind }) => kind === 'picture'))
      return undefined;
    const working = tail.length > 0 ? new Blob([file, tail as BlobPart]) : file;
    const { title } = titlesOf(name, pdf.title, naming);
    return begunFrom(pdf, working, { id, at, title, original: file, folderId: folder ?? null });
  }
  const { title, paper, sheets } = origin.wanted;
  const bytes = paperPdf(paper);
  const file = new Blob([bytes as BlobPart], { type: 'application/pdf' });
  const taken = takeIn(bytesIn(file), { now: at, ids: idsFor(id), isMended: false });
  if (taken.outcome !== 'read') return undefined;
  const pages = notebookPages(id, taken.pdf.pages[0], sheets);
  const pdf = { ...taken.pdf, pages, landmarks: [], annotations: [] };
  return begunFrom(pdf, file, { id, at, title, original: file, folderId: null });
}

async function begunFrom(
  { pages, landmarks, annotations, notices, typed }: ImportedPdf,
  file: Blob,
  facts: { id: string; at: string; title: string; original: Blob; folderId: string | null },
): Promise<Begun> {
  const { id, at, title, original, folderId } = facts;
  const source = await digestOf(file);
  const document: StyletDocument = {
    id,
    title,
    folderId,
    source,
    pageCount: pages.length,
    annotationCount: annotations.length,
    size: original.size,
    digest: original === file ? source : await digestOf(original),
    created: at,
    modified: at,
    revision: 0,
    repair: 'none',
    isTyped: typed !== undefined,
    notices: [...notices],
    trashed: null,
    companion: null,
    place: null,
    pages: pages.map(({ index: sourceIndex, ...page }) => ({ ...page, source, sourceIndex })),
    landmarks: [...landmarks],
  };
  return { document, annotations, file };
}

/** Bytes of a file read at a time. */
const PIECE = 4 * 1024 * 1024;

/** The SHA-256 of a file (FIPS 180-4), without having all of it in memory. */
async function digestOf(file: Blob): Promise<string> {
  const hash = sha256.create();
  for (let at = 0; at < file.size; at += PIECE)
    hash.update(new Uint8Array(await file.slice(at, at + PIECE).arrayBuffer()));
  return bytesToHex(hash.digest());
}
