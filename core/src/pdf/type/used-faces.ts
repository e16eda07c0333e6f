import type { FaceId } from '../../typed/index';
import type { PdfRef, PdfUpdate } from '../objects/index';
import { writeFace, type FaceObjects } from './fonts';
import type { TypeTools } from './type-tools';

/** The faces that an update shows text in, each with all the glyphs it is used with. */
export class UsedFaces {
  private readonly faces = new Map<FaceId, { glyphs: Set<number>; objects: FaceObjects }>();

  /** `refFor` gives the object that something is, by a key of its own: the same in each export of a file. */
  constructor(
    private readonly update: Pick<PdfUpdate, 'set' | 'setStream'>,
    private readonly tools: TypeTools,
    private readonly refFor: (key: string) => PdfRef,
  ) {}

  /** The font of a face, which will have these glyphs. */
  use(face: FaceId, glyphs: ReadonlySet<number>): PdfRef {
    let used = this.faces.get(face);
    if (!used) {
      const at = (part: string): PdfRef => this.refFor(`${part} of ${face}`);
      const objects = {
        font: at('font'),
        descendant: at('descendant'),
        descriptor: at('descriptor'),
        file: at('font file'),
        unicode: at('unicode'),
      };
      this.faces.set(face, (used = { glyphs: new Set(), objects }));
    }
    for (const glyph of glyphs) used.glyphs.add(glyph);
    return used.objects.font;
  }

  /** Writes them all. */
  write(): void {
    for (const [face, { glyphs, objects }] of this.faces)
      writeFace(this.update, face, glyphs, this.tools, objects);
  }
}
