import { closeSync, fstatSync, openSync, readSync } from 'node:fs';
import { BlockBytes } from '@stylet/core/pdf';

/** A file on disk, read as it is needed. */
export class FileBytes extends BlockBytes {
  private readonly descriptor: number;

  constructor(path: string) {
    const descriptor = openSync(path, 'r');
    super(fstatSync(descriptor).size, (start, end) => {
      const bytes = new Uint8Array(end - start);
      readSync(descriptor, bytes, 0, bytes.length, start);
      return bytes;
    });
    this.descriptor = descriptor;
  }

  close(): void {
    closeSync(this.descriptor);
  }
}
