import type { Destinations } from '../destinations';
import type { Copier, PdfFile } from '../objects/index';
import type { PdfPage } from '../pages';

/** A file with its pages, by the digest of its bytes. */
export interface SourceFile {
  readonly digest: string;
  readonly file: PdfFile;
  readonly pages: readonly PdfPage[];
}

/** A file whose pages are copied into another one. */
export interface Joining extends SourceFile {
  readonly copier: Copier;
  readonly destinations: Destinations;
}
