import { bodyOfBox, roomInBox, type Annotation, type TextBox } from '../../document/index';
import type { Box, Matrix } from '../../geometry/index';
import { PdfDict, WrittenObject, bytesOf, serialize } from '../objects/index';
import type { Deflate, PdfFile, PdfUpdate, PdfRef, PdfValue } from '../objects/index';
import type { PlacedPicture } from '../content-stream';
import { ExportBefore } from '../export-before';
import { addPicture, addTinted, type PreparedPicture } from '../pictures/index';
import type { FaceId } from '../../typed/index';
import type { TextLayout } from '../../typesetting/index';
import { UsedFaces, type TypeTools } from '../type/index';
import { Paper, addForm, writeForm, type WrittenForm } from './forms';
import { standardText } from './entries';
import { fingerprintOf } from './fingerprint';
import { OWN_KEY } from './kinds';
import type { Linked } from './linked';
import { overBefore } from './over-before';
import { isUntouched, ownCopy, rectangle, writeAnnotation, type OwnAnnotation } from './write';

interface Kept {
  readonly toUser: Matrix;
  readonly entries: Record<string, PdfValue>;
  readonly form: WrittenForm;
  /** The dictionary up to where the references that differ from file to file are put in. */
  readonly head: Uint8Array;
  /** The whole of it with the references it had last. */
  whole?: { readonly rest: string; readonly object: WrittenObject };
}

/**
 * Annotations as they stand in files, kept from one export to the next for as long as the
 * annotation itself is (they are immutable) and within a bound of bytes.
 */
export class WrittenAnnotations {
  private kept = new WeakMap<OwnAnnotation, Kept>();
  private bytes = 0;
  /** The paper in each file, by the space of its pages. */
  private readonly papers = new WeakMap<PdfUpdate, Map<string, Paper>>();
  private readonly stencils = new WeakMap<PdfUpdate, Map<number, PdfRef>>();
  private readonly placed = new WeakMap<PdfUpdate, Map<string, PdfRef>>();
  private readonly faces = new WeakMap<PdfUpdate, UsedFaces>();
  private readonly numbering = new WeakMap<PdfUpdate, ExportBefore>();
  private exported = new WeakMap<PdfFile, ExportBefore>();

  /**
   * `pictures` gives the pictures that annotations name by their files' digests; `thoroughly` compresses what is kept,
   * `deflate` what each export writes anew; `tools` are needed where there is text.
   */
  constructor(
    readonly deflate: Deflate,
    private readonly pictures: (digest: string) => PreparedPicture | undefined,
    private readonly most = Infinity,
    private readonly thoroughly = deflate,
    private readonly tools?: TypeTools,
  ) {}

  /** The text of a box in lines, as it is written. */
  layoutOf(box: TextBox): TextLayout {
    return this.needed().typesetter.layout(bodyOfBox(box), roomInBox(box));
  }

  private needed(): TypeTools {
    if (!this.tools) throw new Error('text is written by what sets it');
    return this.tools;
  }

  /** What the export of a file before has left. */
  before(file: PdfFile): ExportBefore {
    return made(this.exported, file, () => new ExportBefore());
  }

  /** Adds an annotation's appearance to an update: its form, and the matrix that brings that to default user space. */
  addForm(
    update: PdfUpdate,
    annotation: OwnAnnotation,
    toUser: Matrix,
    at?: PdfRef,
  ): { readonly ref: PdfRef; readonly matrix: Matrix } {
    const { form } = this.of(annotation, toUser);
    const shared = {
      paper: () => this.paper(update, toUser),
      picture: (picture: PlacedPicture) => this.picture(update, picture),
      face: (face: FaceId, glyphs: ReadonlySet<number>) => this.facesOf(update).use(face, glyphs),
    };
    const ref = addForm(update, form, shared, at);
    return { ref, matrix: form.matrix };
  }

  /**
   * Sets an annotation's dictionary under `ref`, and adds its appearance. `before` is the
   * dictionary it replaces, whose unknown entries are kept.
   */
  setAnnotation(
    { update, before: last }: { readonly update: PdfUpdate; readonly before: ExportBefore },
    ref: PdfRef,
    annotation: OwnAnnotation,
    page: { readonly ref: PdfRef; readonly toUser: Matrix },
    { entries: more, near }: Pick<Linked, 'entries' | 'near'>,
    before?: PdfDict,
  ): void {
    const kept = this.of(annotation, page.toUser, near);
    const at = last.refFor(update, `form ${annotation.id}`);
    const { ref: form } = this.addForm(update, annotation, page.toUser, at);
    if (before) {
      const changed = { ...overBefore(update.file, before, kept.entries), P: page.ref };
      const look = { AP: PdfDict.of({ N: form }), AS: null };
      update.set(ref, before.with({ ...changed, ...more, ...look }));
    } else {
      const linked = Object.entries(more)
        .map(([key, value]) => (value === null ? '' : `/${key} ${serialize(value)}`))
        .join('');
      const rest = `/P ${serialize(page.ref)}${linked}/AP<</N ${serialize(form)}>>>>`;
      if (kept.whole?.rest !== rest)
        kept.whole = { rest, object: new WrittenObject([kept.head, bytesOf(rest)], false) };
      update.set(ref, kept.whole.object);
    }
  }

  /** Whether what was written of all of these refers to nothing that they share with others, nor to other pages. */
  areAlone(annotations: readonly Annotation[]): boolean {
    const isAlone = (one: Annotation): boolean =>
      one.kind === 'foreign' ||
      (one.kind !== 'link' && (isUntouched(one) || this.kept.get(one)?.form.alone !== undefined));
    return annotations.every(isAlone);
  }

  private of(annotation: OwnAnnotation, toUser: Matrix, near?: Box): Kept {
    const known = this.kept.get(annotation);
    if (known?.toUser.every((value, i) => value === toUser[i])) return known;
    const { standard, content, box } = writeAnnotation(annotation, toUser, this.tools, near);
    const form = writeForm(content, box, this.thoroughly);
    const text = standardText(PdfDict.of(standard));
    const copy = ownCopy(annotation, toUser, {
      entries: fingerprintOf(bytesOf(text)),
      look: fingerprintOf(content.bytes),
      rect: rectangle(box),
    });
    const entries = { ...standard, [OWN_KEY]: copy };
    const head = bytesOf(`${text.slice(0, -'>>'.length)}/Type/Annot/${OWN_KEY} ${serialize(copy)}`);
    const kept: Kept = { toUser, entries, form, head };
    if (this.bytes > this.most) {
      this.kept = new WeakMap();
      this.exported = new WeakMap();
      this.bytes = 0;
    }
    this.kept.set(annotation, kept);
    this.bytes += lengthOf(form) + 2 * head.length;
    return kept;
  }

  /** Has what is shared by the annotations of an update be the same objects as in the export before. */
  begin(update: PdfUpdate, before: ExportBefore): void {
    this.numbering.set(update, before);
  }

  /** Writes the fonts of all text that was added to an update: what comes last, when it is known which glyphs are used. */
  finish(update: PdfUpdate): void {
    this.faces.get(update)?.write();
  }

  private facesOf(update: PdfUpdate): UsedFaces {
    return made(this.faces, update, () => {
      const before = this.numbering.get(update);
      return new UsedFaces(update, this.needed(), (key) =>
        before ? before.refFor(update, key) : update.reserve(),
      );
    });
  }

  /** A picture is in a file once, however often it is used. */
  private picture(update: PdfUpdate, { picture, tint }: PlacedPicture): PdfRef {
    const placed = made(this.placed, update, () => new Map<string, PdfRef>());
    return made(placed, tint ? `${picture} ${tint}` : picture, () => {
      if (tint) return addTinted(update, this.picture(update, { picture, tint: undefined }), tint);
      const prepared = this.pictures(picture);
      if (!prepared) throw new Error(`the picture ${picture} was not given`);
      return addPicture(update, prepared);
    });
  }

  private paper(update: PdfUpdate, toUser: Matrix): Paper {
    const papers = made(this.papers, update, () => new Map<string, Paper>());
    const stencils = made(this.stencils, update, () => new Map<number, PdfRef>());
    return made(papers, toUser.join(' '), () => new Paper(update, toUser, stencils));
  }
}

const lengthOf = ({ head, body, groups }: WrittenForm): number =>
  groups.reduce((sum, group) => sum + lengthOf(group), head.length + body.length);

/** The value under a key, made when there is none. */
function made<K, V>(
  map: { get(key: K): V | undefined; set(key: K, value: V): unknown },
  key: K,
  make: () => V,
): V {
  let value = map.get(key);
  if (value === undefined) map.set(key, (value = make()));
  return value;
}
