// The package comes without types, and whoever takes this in has to find them.
// eslint-disable-next-line @typescript-eslint/triple-slash-reference
/// <reference path="./harfbuzz.d.ts" />
import load, { type HarfBuzzModule } from 'harfbuzzjs/hb.js';
import bind, { type HarfBuzz, type HbFont } from 'harfbuzzjs/hbjs.js';
import { MATHEMATICS, type FaceId } from '../typed/index';
import type { Formula } from './formula';

/** How far a face reaches above and below its baseline, and how thick and where its lines are; shares of the size. */
export interface FaceMetrics {
  readonly ascent: number;
  /** Positive. */
  readonly descent: number;
  readonly gap: number;
  /** From the baseline up to the middle of the line. */
  readonly underline: number;
  readonly strike: number;
  readonly thickness: number;
}

/** Glyphs of a piece of text in the order in which they stand, from the left; lengths are shares of the size. */
export interface Shaped {
  readonly glyphs: Uint16Array;
  /** The first UTF-16 unit of what each stands for, in the whole text. */
  readonly clusters: Uint32Array;
  readonly advances: Float64Array;
  /** Where each is drawn, from where it stands: to the right and up. */
  readonly right: Float64Array;
  readonly up: Float64Array;
  /** Whether the text may be parted before a glyph without its being shaped anew. */
  readonly isSafe: Uint8Array;
}

/** A piece of a text: from one UTF-16 unit to another, of one face, script and direction. */
export interface Piece {
  readonly face: FaceId;
  readonly from: number;
  readonly to: number;
  readonly isRightToLeft: boolean;
  /** ISO 15924. */
  readonly script: string;
}

interface Loaded {
  readonly font: HbFont;
  readonly unitsPerEm: number;
  readonly metrics: FaceMetrics;
  readonly outlines: Map<number, string>;
}

/** HB_DIRECTION_LTR and HB_DIRECTION_RTL (hb-common.h). */
const DIRECTIONS = { left: 4, right: 5 };
/** Of a glyph's mask, HB_GLYPH_FLAG_UNSAFE_TO_BREAK (hb-buffer.h). */
const UNSAFE = 1;
/** Words of 32 bits in hb_glyph_info_t and hb_glyph_position_t (hb-buffer.h). */
const INFO = 5;
const POSITION = 5;

/** Shapes text by HarfBuzz with the faces that have been put into it. */
export class Engine {
  private readonly faces = new Map<FaceId, Loaded>();
  private readonly buffer: number;
  private readonly scripts = new Map<string, number>();
  /** Where the text lies that is shaped. */
  private textAt = 0;
  private room = 0;
  private text: string | undefined;
  private formulas: ((source: string) => Formula) | undefined;

  private constructor(
    private readonly module: HarfBuzzModule,
    private readonly harfbuzz: HarfBuzz,
    private readonly fileOf?: (face: FaceId) => Uint8Array,
  ) {
    this.buffer = this.call('hb_buffer_create');
  }

  /**
   * `wasm`: HarfBuzz itself, as its package has it (`hb.wasm`). `fileOf` gives the files of faces that are used and have
   * not been put into it, where those can be had at once.
   */
  static async of(wasm: Uint8Array, fileOf?: (face: FaceId) => Uint8Array): Promise<Engine> {
    const module = await load({ wasmBinary: wasm });
    return new Engine(module, bind(module), fileOf);
  }

  has(face: FaceId): boolean {
    return face === MATHEMATICS ? this.formulas !== undefined : this.faces.has(face);
  }

  /** Takes what formulas are set by. */
  addFormulas(formulas: (source: string) => Formula): void {
    this.formulas = formulas;
  }

  /** A formula in TeX notation. */
  formula(source: string): Formula {
    if (!this.formulas) throw new Error('what sets formulas has not been loaded');
    return this.formulas(source);
  }

  /** Takes a font file, TrueType or OpenType; it is kept for good. */
  add(face: FaceId, file: Uint8Array): void {
    if (this.faces.has(face)) return;
    const blob = this.harfbuzz.createBlob(file);
    const hbFace = this.harfbuzz.createFace(blob, 0);
    const font = this.harfbuzz.createFont(hbFace);
    const { upem } = hbFace;
    const { ascender, descender, lineGap } = font.hExtents();
    const table = (name: string): DataView => {
      const bytes = hbFace.reference_table(name) ?? new Uint8Array(0);
      return new DataView(bytes.slice().buffer);
    };
    const [post, os2] = [table('post'), table('OS/2')];
    // OpenType 1.9, “post” (underlinePosition: the middle of the line) and “OS/2” (yStrikeoutSize, yStrikeoutPosition).
    const metrics: FaceMetrics = {
      ascent: ascender / upem,
      descent: -descender / upem,
      gap: lineGap / upem,
      underline: numberAt(post, 8, -0.1 * upem) / upem,
      strike: numberAt(os2, 28, 0.3 * upem) / upem,
      thickness: numberAt(post, 10, 0.05 * upem) / upem,
    };
    this.faces.set(face, { font, unitsPerEm: upem, metrics, outlines: new Map() });
  }

  metrics(face: FaceId): FaceMetrics {
    return this.loaded(face).metrics;
  }

  unitsPerEm(face: FaceId): number {
    return this.loaded(face).unitsPerEm;
  }

  /** How far a glyph leads on where nothing is said of it (“hmtx”), a share of the size. */
  advance(face: FaceId, glyph: number): number {
    const { font, unitsPerEm } = this.loaded(face);
    return this.call('hb_font_get_glyph_h_advance', font.ptr, glyph) / unitsPerEm;
  }

  /** The outline of a glyph as an SVG path (SVG 2, 9.3), in units of the face, y up. */
  outline(face: FaceId, glyph: number): string {
    const { font, outlines } = this.loaded(face);
    let outline = outlines.get(glyph);
    if (outline === undefined) {
      outline = font.glyphToPath(glyph);
      outlines.set(glyph, outline);
    }
    return outline;
  }

  /** Shapes a piece of a text, with what stands before and after it in mind. */
  shape(text: string, { face, from, to, isRightToLeft, script }: Piece): Shaped {
    const { font, unitsPerEm } = this.loaded(face);
    this.write(text);
    this.call('hb_buffer_reset', this.buffer);
    this.call('hb_buffer_add_utf16', this.buffer, this.textAt, text.length, from, to - from);
    this.call('hb_buffer_set_direction', this.buffer, DIRECTIONS[isRightToLeft ? 'right' : 'left']);
    this.call('hb_buffer_set_script', this.buffer, this.scriptOf(script));
    this.call('hb_shape', font.ptr, this.buffer, 0, 0);
    return this.shaped(1 / unitsPerEm);
  }

  private shaped(unit: number): Shaped {
    const count = this.call('hb_buffer_get_length', this.buffer);
    const [infos, positions] = [
      this.call('hb_buffer_get_glyph_infos', this.buffer, 0) >> 2,
      this.call('hb_buffer_get_glyph_positions', this.buffer, 0) >> 2,
    ];
    const { HEAPU32, HEAP32 } = this.module;
    const result = {
      glyphs: new Uint16Array(count),
      clusters: new Uint32Array(count),
      advances: new Float64Array(count),
      right: new Float64Array(count),
      up: new Float64Array(count),
      isSafe: new Uint8Array(count),
    };
    for (let i = 0; i < count; i++) {
      const [info, position] = [infos + i * INFO, positions + i * POSITION];
      result.glyphs[i] = HEAPU32[info];
      result.isSafe[i] = HEAPU32[info + 1] & UNSAFE ? 0 : 1;
      result.clusters[i] = HEAPU32[info + 2];
      result.advances[i] = HEAP32[position] * unit;
      result.right[i] = HEAP32[position + 2] * unit;
      result.up[i] = HEAP32[position + 3] * unit;
    }
    return result;
  }

  /** Puts a text where HarfBuzz finds it; the same one stays there. */
  private write(text: string): void {
    if (text === this.text) return;
    if (text.length > this.room) {
      if (this.textAt) this.call('free', this.textAt);
      this.room = 2 * text.length;
      this.textAt = this.call('malloc', 2 * this.room);
    }
    const units = this.module.HEAPU16.subarray(this.textAt >> 1);
    for (let i = 0; i < text.length; i++) units[i] = text.charCodeAt(i);
    this.text = text;
  }

  private scriptOf(script: string): number {
    let tag = this.scripts.get(script);
    if (tag === undefined) {
      // hb_script_t is the tag of ISO 15924 in four bytes (hb-common.h, HB_TAG).
      tag = [...script].reduce((sum, letter) => (sum << 8) | letter.charCodeAt(0), 0) >>> 0;
      this.scripts.set(script, tag);
    }
    return tag;
  }

  private loaded(face: FaceId): Loaded {
    if (this.fileOf && !this.faces.has(face)) this.add(face, this.fileOf(face));
    const loaded = this.faces.get(face);
    if (!loaded) throw new Error(`the face ${face} has not been loaded`);
    return loaded;
  }

  private call(name: string, ...args: number[]): number {
    return this.module.wasmExports[name](...args);
  }
}

/** A signed number of 16 bits in a table, or what is said instead where there is none. */
function numberAt(table: DataView, offset: number, otherwise: number): number {
  const value = table.byteLength >= offset + 2 ? table.getInt16(offset) : 0;
  return value === 0 ? otherwise : value;
}
