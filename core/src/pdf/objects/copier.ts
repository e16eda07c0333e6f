import { bytesOf } from './bytes';
import type { PdfFile } from './file';
import { serialize } from './serialize';
import { WrittenObject, type PdfObjects } from './store';
import { PdfDict, PdfRef, PdfStream, nameText, type PdfValue } from './values';

/** Entries that lead out of what is copied, into the structure of the document and other programs' data. */
const OUT_OF_PAGES = ['StructParent', 'StructParents', 'PieceInfo'];
const LEADS_OUT = new Set([...OUT_OF_PAGES, 'Parent', 'Annots']);
const LEADS_OUT_OF_TREES = new Set(OUT_OF_PAGES);
const OUTSIDE = new Set(['Page', 'Pages', 'Catalog', 'StructTreeRoot', 'StructElem']);

/** Copies objects of one file into another, each once; streams keep their bytes as they are. */
export class Copier {
  private readonly copies: Map<number, PdfRef>;
  private readonly leadsOut: ReadonlySet<string>;

  /** `known`: objects that have their place already. With them parents are followed as well. */
  constructor(
    private readonly from: PdfFile,
    private readonly to: PdfObjects,
    known?: ReadonlyMap<number, PdfRef>,
  ) {
    this.copies = new Map(known);
    this.leadsOut = known ? LEADS_OUT_OF_TREES : LEADS_OUT;
  }

  /** Where the copy of an object is, if it was copied. */
  copyOf(object: number): PdfRef | undefined {
    return this.copies.get(object);
  }

  /** Copies an object with another dictionary in its place. */
  copyAs(ref: PdfRef, dict: PdfDict): PdfRef {
    const copy = this.copies.get(ref.object) ?? this.to.reserve();
    this.copies.set(ref.object, copy);
    this.to.set(copy, this.copyDict(dict));
    return copy;
  }

  /** The value as it is written in the other file. Pages and their tree are not followed: null. */
  copy(value: PdfValue): PdfValue {
    if (value instanceof PdfRef) return this.copyObject(value);
    if (Array.isArray(value)) return value.map((item) => this.copy(item));
    if (value instanceof PdfDict) return this.copyDict(value);
    return value;
  }

  private copyObject(ref: PdfRef): PdfValue {
    const known = this.copies.get(ref.object);
    if (known) return known;
    const value = this.from.resolve(ref);
    const dict = value instanceof PdfStream ? value.dict : value;
    if (dict instanceof PdfDict && OUTSIDE.has(nameText(this.from.resolve(dict.get('Type'))) ?? ''))
      return null;
    const copy = this.to.reserve();
    // Known before it is filled: objects may refer to each other in circles.
    this.copies.set(ref.object, copy);
    this.to.set(copy, value instanceof PdfStream ? this.copyStream(value) : this.copy(value));
    return copy;
  }

  copyDict(dict: PdfDict): PdfDict {
    const kept = [...dict.entries].filter(([key]) => !this.leadsOut.has(key));
    return new PdfDict(new Map(kept.map(([key, value]) => [key, this.copy(value)])));
  }

  private copyStream(stream: PdfStream): WrittenObject {
    const bytes = stream.raw();
    const dict = this.copyDict(stream.dict.with({ Length: bytes.length }));
    return new WrittenObject([
      bytesOf(`${serialize(dict)}\nstream\n`),
      bytes,
      bytesOf('\nendstream'),
    ]);
  }
}
