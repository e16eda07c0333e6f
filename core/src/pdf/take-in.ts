import type { Notice } from '../document/index';
import { importPdf, type ImportedPdf, type Importing } from './import';
import { bytesBehind } from './joined-bytes';
import { PdfLimitError } from './limits';
import { PdfFile, hasPdfHeader, type ByteSource, type Inflate } from './objects/index';
import { readPages } from './pages';
import { readSignatures } from './signatures';
import { tidyingUpdate } from './tidy';

/** What reading a file came to. `damaged` carries what was found wrong, `too-much` what is allowed. */
export type TakenIn =
  | {
      readonly outcome: 'read';
      readonly pdf: ImportedPdf;
      /** What is to be appended to the file so that it can be worked on; empty where it can be as it is. */
      readonly tail: Uint8Array;
    }
  | { readonly outcome: 'not-pdf' | 'encrypted' }
  | { readonly outcome: 'too-much'; readonly allowed: string }
  | { readonly outcome: 'damaged'; readonly reason: string };

/** How a file is taken in. */
export interface TakingIn extends Importing {
  /** A faster one than the default, which runs anywhere. */
  readonly inflate?: Inflate;
  /** Whether it is a copy that a program has mended. */
  readonly isMended: boolean;
  /** Whether an error is none of the file's. */
  readonly isOurs?: (error: unknown) => boolean;
}

/**
 * Reads a PDF that comes, and makes it such that it can be worked on. The same file for the same document gives the same
 * bytes and ids wherever that is done. Throws what is none of the file's faults.
 */
export function takeIn(
  bytes: ByteSource,
  { inflate, isMended, isOurs, ...how }: TakingIn,
): TakenIn {
  try {
    if (!hasPdfHeader(bytes)) return { outcome: 'not-pdf' };
    const found = new PdfFile(bytes, inflate);
    if (found.isEncrypted) return { outcome: 'encrypted' };
    const tail = tidyingUpdate(found, readPages(found), isMended);
    const file = tail.length > 0 ? new PdfFile(bytesBehind(bytes, tail), inflate) : found;
    const pdf = importPdf(file, readPages(file), how);
    const lost = isMended ? readSignatures(found).count : 0;
    const notices: Notice[] = lost > 0 ? [{ kind: 'signature-lost', count: lost }] : [];
    return { outcome: 'read', pdf: { ...pdf, notices: [...pdf.notices, ...notices] }, tail };
  } catch (error) {
    if (error instanceof PdfLimitError) return { outcome: 'too-much', allowed: error.allowed };
    if (isOurs?.(error)) throw error;
    // Whatever a broken file makes the reader trip over, repairing it comes next.
    return { outcome: 'damaged', reason: error instanceof Error ? error.message : String(error) };
  }
}
