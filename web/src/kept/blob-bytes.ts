/// <reference lib="webworker" />
import { BlockBytes } from '@stylet/core/pdf';

/** In a worker: a file of the browser's, read as it is needed. */
export class BlobBytes extends BlockBytes {
  constructor(file: Blob) {
    const reader = new FileReaderSync();
    super(
      file.size,
      (start, end) => new Uint8Array(reader.readAsArrayBuffer(file.slice(start, end))),
    );
  }
}
