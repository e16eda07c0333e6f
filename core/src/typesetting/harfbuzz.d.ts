/** The parts of HarfBuzz for JavaScript that are used; the package comes without types. */
declare module 'harfbuzzjs/hb.js' {
  export interface HarfBuzzModule {
    readonly wasmExports: Readonly<Record<string, (...args: number[]) => number>>;
    readonly HEAPU8: Uint8Array;
    readonly HEAPU16: Uint16Array;
    readonly HEAP32: Int32Array;
    readonly HEAPU32: Uint32Array;
  }
  const load: (options: { readonly wasmBinary: Uint8Array }) => Promise<HarfBuzzModule>;
  export default load;
}

declare module 'harfbuzzjs/hbjs.js' {
  import type { HarfBuzzModule } from 'harfbuzzjs/hb.js';

  export interface HbBlob {
    readonly ptr: number;
    destroy(): void;
  }
  export interface HbFace {
    readonly ptr: number;
    readonly upem: number;
    collectUnicodes(): Uint32Array;
    reference_table(table: string): Uint8Array | undefined;
    destroy(): void;
  }
  export interface HbFont {
    readonly ptr: number;
    glyphToPath(glyph: number): string;
    hExtents(): { ascender: number; descender: number; lineGap: number };
    setScale(x: number, y: number): void;
    destroy(): void;
  }
  export interface HarfBuzz {
    createBlob(bytes: Uint8Array): HbBlob;
    createFace(blob: HbBlob, index: number): HbFace;
    createFont(face: HbFace): HbFont;
    version_string(): string;
  }
  const bind: (module: HarfBuzzModule) => HarfBuzz;
  export default bind;
}

declare module 'harfbuzzjs' {
  import type { HbBlob, HbFace, HbFont } from 'harfbuzzjs/hbjs.js';

  /** A glyph as `json` has it (hb-buffer.h, hb_buffer_serialize_glyphs). */
  interface Glyph {
    readonly g: number;
    readonly cl: number;
    readonly ax: number;
    readonly dx: number;
    readonly dy: number;
  }
  interface Buffer {
    addText(text: string): void;
    setDirection(direction: string): void;
    setScript(script: string): void;
    json(): Glyph[];
    getGlyphInfosAndPositions(): unknown[];
    destroy(): void;
  }
  const harfbuzz: Promise<{
    createBlob(bytes: Uint8Array): HbBlob;
    createFace(blob: HbBlob, index: number): HbFace;
    createFont(face: HbFace): HbFont;
    createBuffer(): Buffer;
    shape(font: HbFont, buffer: Buffer): void;
  }>;
  export default harfbuzz;
}
