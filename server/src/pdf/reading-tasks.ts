import { appendFileSync, copyFileSync, writeFileSync } from 'node:fs';
import type { AttachmentFile } from '@stylet/core/api';
import { storableText } from '@stylet/core/bounds';
import { idsFor } from '@stylet/core/document';
import {
  PdfFile,
  PdfRef,
  embeddedPicture,
  readAttachments,
  readPages,
  readSheet,
  takeIn,
  type Attachment,
  type EmbeddedPicture,
  type ReadSheet,
  type TakenIn,
} from '@stylet/core/pdf';
import { factsOf, writeParts, type ImportedFacts } from '../sources/imported';
import { textIn } from '../typed/text-in';
import { writtenOut as writtenOutIn } from '../typed/written-out';
import { task } from '../work/task';
import { asProblem } from './as-problem';
import { quickly } from './deflate';
import { FileBytes } from './file-bytes';
import { inflate } from './inflate';

/** What reading a file came to. */
export type ReadResult =
  | { readonly outcome: 'read'; readonly facts: ImportedFacts; readonly isTidied: boolean }
  | Exclude<TakenIn, { outcome: 'read' }>;

export interface ReadTask {
  readonly path: string;
  /** The document it is brought in for, whose id gives those of what is in it. */
  readonly documentId: string;
  readonly now: string;
  /** Whether it is a copy that a program has mended. */
  readonly isMended: boolean;
  /** Where what was read is written, see `readParts`. */
  readonly parts: string;
  /** Where the file is written as it can be worked on, if it has to be made so. */
  readonly tidied: string;
}

export interface AttachmentsTask {
  readonly path: string;
}

/** A file inside another one, by its place among these. */
export interface AttachmentTask extends AttachmentsTask {
  readonly index: number;
  readonly to: string;
}

/** Where an annotation stands in a file. */
export interface EmbeddedTask {
  readonly path: string;
  readonly object: number;
  readonly generation: number;
}

/** Reads a PDF for import. */
function readPdf({ path, documentId, now, isMended, parts, tidied }: ReadTask): ReadResult {
  const bytes = new FileBytes(path);
  try {
    const ids = idsFor(documentId);
    const taken = takeIn(bytes, { inflate, isMended, now, ids, isOurs: isOfDisk });
    if (taken.outcome !== 'read') return taken;
    const isTidied = taken.tail.length > 0;
    if (isTidied) writeTidied(path, tidied, taken.tail);
    writeParts(parts, taken.pdf);
    return { outcome: 'read', facts: factsOf(taken.pdf), isTidied };
  } finally {
    bytes.close();
  }
}

function writeTidied(path: string, to: string, tail: Uint8Array): void {
  copyFileSync(path, to);
  appendFileSync(to, tail);
}

/** Whether an error says that something could not be written: no fault of the file's. */
const isOfDisk = (error: unknown): boolean =>
  /^(ENOSPC|EDQUOT|EIO|EROFS)$/.test((error as NodeJS.ErrnoException).code ?? '');

/** Does something with the files inside a file. */
function withAttachments<T>(
  path: string,
  work: (attachments: readonly Attachment[], file: PdfFile) => T,
): T {
  const bytes = new FileBytes(path);
  try {
    const file = new PdfFile(bytes, inflate);
    return work(readAttachments(file, readPages(file)), file);
  } catch (error) {
    throw asProblem(error);
  } finally {
    bytes.close();
  }
}

const listAttachments = ({ path }: AttachmentsTask): AttachmentFile[] =>
  withAttachments(path, (attachments) =>
    attachments.map(({ name, description, size = null }, index) => ({
      index,
      name: storableText(name, 500),
      description: storableText(description, 2000),
      size,
    })),
  );

/** Writes a file that is inside another one; its name, or undefined where there is none. */
const writeAttachment = ({ path, index, to }: AttachmentTask): string | undefined =>
  withAttachments(path, (attachments, file) => {
    const found = attachments.at(index);
    if (found) writeFileSync(to, file.decode(found.stream));
    return found && storableText(found.name, 500);
  });

/** The picture in an annotation of a file that Stylet has written. */
function takeEmbedded({ path, object, generation }: EmbeddedTask): EmbeddedPicture | undefined {
  const bytes = new FileBytes(path);
  try {
    const file = new PdfFile(bytes, inflate);
    return embeddedPicture(file, new PdfRef(object, generation), quickly);
  } finally {
    bytes.close();
  }
}

export interface SheetPagesTask {
  readonly path: string;
  readonly most: number;
}

/** The pages of a file, each by itself. */
function readSheetPages({ path, most }: SheetPagesTask): ReadSheet {
  const bytes = new FileBytes(path);
  try {
    return readSheet(bytes, most, { inflate, deflate: quickly });
  } catch (error) {
    throw asProblem(error);
  } finally {
    bytes.close();
  }
}

const filesIn = (sheet: ReadSheet): ArrayBufferLike[] =>
  sheet.outcome === 'read' ? sheet.pages.map(({ bytes }) => bytes.buffer) : [];

/* What worker threads run that read files: nothing of a database, of fonts or of writing is loaded for it. */
export const read = task(readPdf);
export const attachments = task(listAttachments);
export const attachment = task(writeAttachment);
export const embedded = task(takeEmbedded);
export const sheetPages = task(readSheetPages, filesIn);
export const text = task(textIn);
export const writtenOut = task(writtenOutIn);
