import type { FaceId } from '../../typed/index';
import type { Typesetter } from '../../typesetting/index';

/** What text is written into files with. */
export class TypeTools {
  /** What each glyph of a face stands for, in the first text in which it was met: what else it stands for is said there. */
  private readonly meanings = new Map<FaceId, Map<number, string>>();

  /** `subset` gives the file of a face with just some glyphs, which keep their numbers. */
  constructor(
    readonly typesetter: Typesetter,
    readonly subset: (face: FaceId, glyphs: ReadonlySet<number>) => Uint8Array,
  ) {}

  /** Whether a glyph stands for a text wherever it is met; notes it where nothing is known of the glyph. */
  means(face: FaceId, glyph: number, text: string): boolean {
    const known = this.meaningsOf(face);
    if (!known.has(glyph)) known.set(glyph, text);
    return known.get(glyph) === text;
  }

  meaningsOf(face: FaceId): Map<number, string> {
    let known = this.meanings.get(face);
    if (!known) this.meanings.set(face, (known = new Map()));
    return known;
  }
}
