import type { PageOfText, TextPicture } from '../../typed-pages/index';
import { fingerprintOf, isPrintOf } from '../annotations/fingerprint';
import {
  PdfDict,
  PdfRef,
  name,
  textOf,
  textString,
  type NewPdf,
  type PdfFile,
  type PdfValue,
} from '../objects/index';
import type { PdfPage } from '../pages';
import { addPicture, shownBy, shownIn, type PreparedPicture } from '../pictures/index';

/** A picture of a text as it is written. */
export interface TypedPicture {
  readonly prepared: PreparedPicture;
  /** Its file, where that is not what draws it. */
  readonly file?: Uint8Array;
}

/** A picture of a text in its file, and the object from which it is had again (`embeddedPicture`). */
export interface PictureInText {
  readonly digest: string;
  readonly object: number;
  readonly generation: number;
}

/** The pictures of a text in the file of its pages: each once, however often it is shown. */
export class DrawnPictures {
  private readonly names = new Map<string, string>();
  private readonly forms = new Map<string, PdfRef>();
  private readonly kept: PdfValue[] = [];

  constructor(
    private readonly pdf: NewPdf,
    private readonly find: (digest: string) => TypedPicture | undefined,
  ) {}

  /** What it is called in the resources of pages. Throws where it is not at hand. */
  nameOf({ digest }: TextPicture): string {
    const known = this.names.get(digest);
    if (known) return known;
    const picture = this.find(digest);
    if (!picture) throw new Error(`The picture ${digest} of typed pages is not at hand.`);
    const called = `P${this.names.size}`;
    this.names.set(digest, called);
    const form = addPicture(this.pdf, picture.prepared);
    this.forms.set(called, form);
    const file = picture.file
      ? this.pdf.addStream(PdfDict.of({ Type: name('EmbeddedFile') }), picture.file)
      : form;
    const print = textString(fingerprintOf(shownBy(picture.prepared)));
    this.kept.push(PdfDict.of({ Digest: textString(digest), File: file, Print: print }));
    return called;
  }

  resources({ pictures }: PageOfText): Record<string, PdfValue> {
    if (pictures.length === 0) return {};
    const called = pictures.map(({ picture }) => this.nameOf(picture));
    const entries = called.map((one) => [one, this.forms.get(one)!] as const);
    return { XObject: PdfDict.of(Object.fromEntries(entries)) };
  }

  /** By what they are had again, in the order of their names. */
  sources(): PdfValue[] {
    return this.kept;
  }
}

/**
 * The pictures that are kept with a text; undefined where pages show others by their names, or one that the text has is
 * not among them.
 */
export function keptPictures(
  file: PdfFile,
  kept: PdfValue,
  pages: readonly PdfPage[],
  wanted: readonly TextPicture[],
): PictureInText[] | undefined {
  const found = file.array(kept).map((value) => {
    const dict = file.dict(value);
    const from = dict?.get('File');
    return {
      digest: textOf(file.resolve(dict?.get('Digest') ?? null)),
      print: textOf(file.resolve(dict?.get('Print') ?? null)),
      from: from instanceof PdfRef ? from : undefined,
    };
  });
  const prints = new Map(found.map(({ print }, i) => [`P${i}`, print]));
  if (!pages.every((page) => showsAll(file, page, prints))) return undefined;
  const there = new Map(found.map(({ digest, from }) => [digest, from]));
  const pictures: PictureInText[] = [];
  for (const digest of new Set(wanted.map((picture) => picture.digest))) {
    const from = there.get(digest);
    if (!from) return undefined;
    pictures.push({ digest, object: from.object, generation: from.generation });
  }
  return pictures;
}

/** Whether what a page draws by name is what was written under that name. */
function showsAll(file: PdfFile, page: PdfPage, prints: ReadonlyMap<string, string>): boolean {
  const objects = file.dict(file.dict(page.resources)?.get('XObject') ?? null);
  return [...(objects?.entries ?? [])].every(([called, ref]) => {
    const print = prints.get(called);
    const shown = ref instanceof PdfRef ? shownIn(file, ref) : undefined;
    return print !== undefined && shown !== undefined && isPrintOf(print, shown);
  });
}
