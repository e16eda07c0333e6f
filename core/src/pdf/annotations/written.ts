import type { Matrix } from '../../geometry/index';
import { PdfDict, WrittenObject, bytesOf, serialize } from '../objects/index';
import type { Deflate, PdfUpdate, PdfRef } from '../objects/index';
import { writeAnnotation, type OwnAnnotation, type WrittenAnnotation } from './write';

interface Kept {
  readonly toUser: string;
  readonly written: WrittenAnnotation;
  /** The dictionary up to where the references that differ from file to file are put in. */
  readonly head: Uint8Array;
}

/**
 * Annotations as they stand in files, kept from one export to the next for as long as the
 * annotation itself is (they are immutable) and within a bound of bytes.
 */
export class WrittenAnnotations {
  private kept = new WeakMap<OwnAnnotation, Kept>();
  private bytes = 0;

  constructor(
    readonly deflate: Deflate,
    private readonly most = Infinity,
  ) {}

  /** Adds an annotation's appearance to an update. */
  addForm(update: PdfUpdate, annotation: OwnAnnotation, toUser: Matrix): PdfRef {
    return update.add(new WrittenObject([this.of(annotation, toUser).written.form]));
  }

  /**
   * Sets an annotation's dictionary under `ref`, and adds its appearance. `before` is the
   * dictionary it replaces, whose unknown entries are kept.
   */
  setAnnotation(
    update: PdfUpdate,
    ref: PdfRef,
    annotation: OwnAnnotation,
    page: { readonly ref: PdfRef; readonly toUser: Matrix },
    before?: PdfDict,
  ): void {
    const { written, head } = this.of(annotation, page.toUser);
    const form = update.add(new WrittenObject([written.form]));
    if (before) {
      const { entries } = written;
      update.set(ref, before.with({ ...entries, P: page.ref, AP: PdfDict.of({ N: form }) }));
    } else {
      const rest = `/P ${serialize(page.ref)}/AP<</N ${serialize(form)}>>>>`;
      update.set(ref, new WrittenObject([head, bytesOf(rest)]));
    }
  }

  private of(annotation: OwnAnnotation, toUser: Matrix): Kept {
    const place = toUser.join(' ');
    const known = this.kept.get(annotation);
    if (known?.toUser === place) return known;
    const written = writeAnnotation(annotation, toUser, this.deflate);
    const head = bytesOf(serialize(PdfDict.of(written.entries)).slice(0, -'>>'.length));
    const kept = { toUser: place, written, head };
    if (this.bytes > this.most) {
      this.kept = new WeakMap();
      this.bytes = 0;
    }
    this.kept.set(annotation, kept);
    this.bytes += written.form.length + 2 * head.length;
    return kept;
  }
}
