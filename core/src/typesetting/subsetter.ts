/** What HarfBuzz's subsetting module exports (`hb-subset.wasm`). */
export interface SubsetExports {
  readonly memory: { readonly buffer: ArrayBuffer };
  readonly [name: string]: unknown;
}

/** HB_SUBSET_FLAGS_NO_HINTING, RETAIN_GIDS and NOTDEF_OUTLINE (hb-subset.h). */
const FLAGS = 0x1 | 0x2 | 0x40;
/** HB_MEMORY_MODE_WRITABLE (hb-blob.h). */
const WRITABLE = 2;

/** Makes fonts of just some glyphs, which keep their numbers. */
export class Subsetter {
  constructor(private readonly exports: SubsetExports) {}

  /** A font file with the outlines of some glyphs, and those they are made of. Throws for a file that is none. */
  subset(file: Uint8Array, glyphs: Iterable<number>): Uint8Array {
    const at = this.call('malloc', file.length);
    this.bytes().set(file, at);
    const blob = this.call('hb_blob_create', at, file.length, WRITABLE, 0, 0);
    const face = this.call('hb_face_create', blob, 0);
    this.call('hb_blob_destroy', blob);
    const input = this.call('hb_subset_input_create_or_fail');
    this.call('hb_subset_input_set_flags', input, FLAGS);
    const wanted = this.call('hb_subset_input_glyph_set', input);
    for (const glyph of glyphs) this.call('hb_set_add', wanted, glyph);
    const made = this.call('hb_subset_or_fail', face, input);
    this.call('hb_subset_input_destroy', input);
    const result = made === 0 ? 0 : this.call('hb_face_reference_blob', made);
    const length = result === 0 ? 0 : this.call('hb_blob_get_length', result);
    const from = length === 0 ? 0 : this.call('hb_blob_get_data', result, 0);
    const subset = this.bytes().slice(from, from + length);
    if (result !== 0) this.call('hb_blob_destroy', result);
    if (made !== 0) this.call('hb_face_destroy', made);
    this.call('hb_face_destroy', face);
    this.call('free', at);
    if (length === 0) throw new Error('the font cannot be subset');
    return subset;
  }

  /** Memory that has grown is another buffer. */
  private bytes(): Uint8Array {
    return new Uint8Array(this.exports.memory.buffer);
  }

  private call(name: string, ...args: number[]): number {
    return (this.exports[name] as (...args: number[]) => number)(...args);
  }
}
