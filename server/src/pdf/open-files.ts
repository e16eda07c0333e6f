import { PdfFile, readPages, type SourceFile } from '@stylet/core/pdf';
import { FileBytes } from './file-bytes';
import { inflate } from './inflate';

/** A source on this machine's disk. */
export interface SourcePath {
  readonly digest: string;
  readonly path: string;
}

/** A file kept open, and its pages. */
export interface OpenFile extends SourceFile {
  readonly bytes: FileBytes;
}

/** Files kept open between exports. They never change, so what was read of one stays right. */
export class OpenFiles {
  private readonly open = new Map<string, OpenFile>();

  constructor(private readonly most: number) {}

  /** All of these, opened; others are closed when there are too many. */
  get(wanted: readonly SourcePath[]): OpenFile[] {
    const files = wanted.map(({ digest, path }) => {
      const known = this.open.get(digest) ?? openFile(digest, path);
      // A Map keeps the order of insertion: what was used last is closed last.
      this.open.delete(digest);
      this.open.set(digest, known);
      return known;
    });
    for (const [digest, { bytes }] of this.open) {
      if (this.open.size <= Math.max(this.most, wanted.length)) break;
      bytes.close();
      this.open.delete(digest);
    }
    return files;
  }
}

function openFile(digest: string, path: string): OpenFile {
  const bytes = new FileBytes(path);
  const file = new PdfFile(bytes, inflate);
  return { digest, bytes, file, pages: readPages(file) };
}
