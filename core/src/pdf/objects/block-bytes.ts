import { LRUCache } from 'lru-cache';
import type { ByteSource } from './bytes';

const BLOCK = 256 * 1024;
const KEPT_BLOCKS = 64;

/** A file read in blocks as they are needed, with the last ones kept: 16 MiB at the most. */
export class BlockBytes implements ByteSource {
  private readonly blocks = new LRUCache<number, Uint8Array>({ max: KEPT_BLOCKS });

  /** `read` gives the bytes from one place to another, both within the file. */
  constructor(
    readonly length: number,
    private readonly read: (start: number, end: number) => Uint8Array,
  ) {}

  slice(start: number, end: number): Uint8Array {
    const from = Math.max(0, start);
    const to = Math.min(this.length, end);
    if (to <= from) return new Uint8Array();
    const first = Math.floor(from / BLOCK);
    if (first !== Math.floor((to - 1) / BLOCK)) return this.read(from, to);
    return this.block(first).subarray(from - first * BLOCK, to - first * BLOCK);
  }

  private block(number: number): Uint8Array {
    let block = this.blocks.get(number);
    if (block) return block;
    block = this.read(number * BLOCK, Math.min(this.length, (number + 1) * BLOCK));
    this.blocks.set(number, block);
    return block;
  }
}
