import { LRUCache } from 'lru-cache';
import { closeSync, fstatSync, openSync, readSync } from 'node:fs';
import type { ByteSource } from '@stylet/core/pdf';

const BLOCK = 256 * 1024;
const KEPT_BLOCKS = 64;

/** A file read in blocks as they are needed, with the last ones kept: 16 MiB at the most. */
export class FileBytes implements ByteSource {
  readonly length: number;
  private readonly descriptor: number;
  private readonly blocks = new LRUCache<number, Uint8Array>({ max: KEPT_BLOCKS });

  constructor(path: string) {
    this.descriptor = openSync(path, 'r');
    this.length = fstatSync(this.descriptor).size;
  }

  slice(start: number, end: number): Uint8Array {
    const from = Math.max(0, start);
    const to = Math.min(this.length, end);
    if (to <= from) return new Uint8Array();
    const first = Math.floor(from / BLOCK);
    if (first === Math.floor((to - 1) / BLOCK)) {
      const block = this.block(first);
      return block.subarray(from - first * BLOCK, to - first * BLOCK);
    }
    const bytes = new Uint8Array(to - from);
    readSync(this.descriptor, bytes, 0, bytes.length, from);
    return bytes;
  }

  close(): void {
    closeSync(this.descriptor);
  }

  private block(number: number): Uint8Array {
    let block = this.blocks.get(number);
    if (block) return block;
    const size = Math.min(BLOCK, this.length - number * BLOCK);
    block = new Uint8Array(size);
    readSync(this.descriptor, block, 0, size, number * BLOCK);
    this.blocks.set(number, block);
    return block;
  }
}
