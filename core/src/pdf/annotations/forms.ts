import type { Box, Matrix } from '../../geometry/index';
import { GRAIN, grainTile } from '../../ink/index';
import type { FaceId } from '../../typed/index';
import {
  GRAIN_SPACE,
  grainName,
  groupName,
  pictureName,
  type Content,
  type PlacedPicture,
} from '../content-stream';
import {
  PdfDict,
  WrittenObject,
  bytesOf,
  joinBytes,
  name,
  serialize,
  streamData,
  type Deflate,
  type PdfRef,
  type PdfUpdate,
  type PdfValue,
} from '../objects/index';
import { rectangle } from './write';

/** A form XObject (8.10) as it stands in a file, but for the references in its resources. */
export interface WrittenForm {
  /** From its space to default user space. */
  readonly matrix: Matrix;
  /** Its dictionary up to its resources. */
  readonly head: Uint8Array;
  /** The rest of it. */
  readonly body: Uint8Array;
  /** The whole of it, where it refers to no other object. */
  readonly alone: WrittenObject | undefined;
  readonly states: PdfDict;
  readonly grains: readonly number[];
  readonly groups: readonly WrittenForm[];
  readonly pictures: Content['pictures'];
  readonly faces: Content['faces'];
}

/** Writes content as a form with a box in default user space. */
export function writeForm(
  content: Content,
  box: Box,
  deflate: Deflate,
  isGroup = false,
): WrittenForm {
  const { data, filter } = streamData(content.bytes, deflate);
  // Thousands of these stand uncompressed. Only within a form one needs its matrix: for others 12.5.5 has viewers bring
  // the box to the annotation's rectangle.
  const head = bytesOf(
    `<</Subtype/Form/BBox${serialize(boxIn(content.matrix, rectangle(box)))}` +
      (isGroup
        ? `/Group<</S/Transparency/CS/DeviceRGB/I true>>/Matrix${serialize([...content.matrix])}`
        : '') +
      `/Length ${data.length}${filter ? `/Filter${serialize(filter)}` : ''}`,
  );
  const body = joinBytes([bytesOf('>>stream\n'), data, bytesOf('\nendstream')]);
  const states = bytesOf(
    content.states.entries.size > 0
      ? `/Resources ${serialize(PdfDict.of({ ExtGState: content.states }))}`
      : '',
  );
  return {
    matrix: content.matrix,
    head,
    body,
    alone: refersToNothing(content) ? new WrittenObject([head, states, body]) : undefined,
    states: content.states,
    grains: content.grains,
    groups: content.groups.map((group) => writeForm(group, box, deflate, true)),
    pictures: content.pictures,
    faces: content.faces,
  };
}

const refersToNothing = ({ grains, groups, pictures, faces }: Content): boolean =>
  grains.length + groups.length + pictures.length + faces.size === 0;

/** A rectangle of default user space in a form's own, of which `matrix` only moves and enlarges. */
function boxIn([a, , , d, e, f]: Matrix, [x0, y0, x1, y1]: readonly number[]): number[] {
  return [(x0 - e) / a, (y0 - f) / d, (x1 - e) / a, (y1 - f) / d].map(
    (value) => Math.round(value * 100) / 100,
  );
}

/** What forms of one file share. */
export interface Shared {
  readonly paper: () => Paper;
  /** A picture in the file. */
  readonly picture: (picture: PlacedPicture) => PdfRef;
  /** A face in the file, with these glyphs among others. */
  readonly face: (face: FaceId, glyphs: ReadonlySet<number>) => PdfRef;
}

/** Adds a form, as an object that is reserved, its groups, and the paper and pictures it needs to a file. */
export function addForm(
  update: PdfUpdate,
  form: WrittenForm,
  shared: Shared,
  at = update.reserve(),
): PdfRef {
  if (form.alone) return put(update, at, form.alone);
  const { head, body } = form;
  const entries: Record<string, PdfValue> = {};
  if (form.states.entries.size > 0) entries['ExtGState'] = form.states;
  const objects: Record<string, PdfValue> = {};
  form.groups.forEach((group, i) => (objects[groupName(i)] = addForm(update, group, shared)));
  form.pictures.forEach((picture, i) => (objects[pictureName(i)] = shared.picture(picture)));
  if (Object.keys(objects).length > 0) entries['XObject'] = PdfDict.of(objects);
  if (form.faces.size > 0) {
    const fonts = [...form.faces].map(([face, glyphs]) => [face, shared.face(face, glyphs)]);
    entries['Font'] = PdfDict.of(Object.fromEntries(fonts) as Record<string, PdfValue>);
  }
  if (form.grains.length > 0) {
    const paper = shared.paper();
    const patterns = form.grains.map((level) => [grainName(level), paper.pattern(level)]);
    entries['Pattern'] = PdfDict.of(Object.fromEntries(patterns) as Record<string, PdfValue>);
    entries['ColorSpace'] = PdfDict.of({ [GRAIN_SPACE]: [name('Pattern'), name('DeviceRGB')] });
  }
  const resources = bytesOf(`/Resources ${serialize(PdfDict.of(entries))}`);
  return put(update, at, new WrittenObject([head, resources, body]));
}

function put(update: PdfUpdate, ref: PdfRef, object: WrittenObject): PdfRef {
  update.set(ref, object);
  return ref;
}

/** The paper's grain in one file, for pages of one space: tiling patterns (8.7.3) by level. */
export class Paper {
  private readonly patterns = new Map<number, PdfRef>();

  constructor(
    private readonly update: PdfUpdate,
    private readonly toUser: Matrix,
    /** Stencils by level, which pages of every space share. */
    private readonly stencils: Map<number, PdfRef>,
  ) {}

  pattern(level: number): PdfRef {
    let ref = this.patterns.get(level);
    if (!ref) this.patterns.set(level, (ref = this.addPattern(level)));
    return ref;
  }

  private addPattern(level: number): PdfRef {
    const { size } = GRAIN;
    const dict = PdfDict.of({
      Type: name('Pattern'),
      PatternType: 1,
      PaintType: 2,
      TilingType: 1,
      BBox: [0, 0, size, size],
      XStep: size,
      YStep: size,
      Matrix: [...this.toUser],
      Resources: PdfDict.of({ XObject: PdfDict.of({ Grain: this.stencil(level) }) }),
    });
    // Images have their first row on top, page space its origin.
    return this.update.addStream(dict, bytesOf(`${size} 0 0 -${size} 0 ${size} cm /Grain Do`));
  }

  private stencil(level: number): PdfRef {
    let ref = this.stencils.get(level);
    if (!ref) this.stencils.set(level, (ref = this.addStencil(level)));
    return ref;
  }

  private addStencil(level: number): PdfRef {
    const { pixels } = GRAIN;
    const dict = PdfDict.of({
      Type: name('XObject'),
      Subtype: name('Image'),
      Width: pixels,
      Height: pixels,
      ImageMask: true,
      BitsPerComponent: 1,
      Decode: [1, 0],
      Interpolate: true,
    });
    const bits = new Uint8Array((pixels * pixels) / 8);
    grainTile(level).forEach((ink, i) => (bits[i >> 3] |= ink << (7 - (i & 7))));
    return this.update.addStream(dict, bits);
  }
}
