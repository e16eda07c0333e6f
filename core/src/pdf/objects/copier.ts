import { bytesOf } from './bytes';
import type { PdfFile } from './file';
import { serialize } from './serialize';
import { WrittenObject, type PdfObjects } from './store';
import { PdfDict, PdfRef, PdfStream, nameText, type PdfValue } from './values';

/** Entries that lead out of what is copied, into the tree of pages and its structure. */
const LEADS_OUT = new Set(['Parent', 'StructParent', 'StructParents', 'PieceInfo', 'Annots']);
const OUTSIDE = new Set(['Page', 'Pages', 'Catalog', 'StructTreeRoot', 'StructElem']);

/** Copies objects of one file into another, each once; streams keep their bytes as they are. */
export class Copier {
  private readonly copies = new Map<number, PdfRef>();

  constructor(
    private readonly from: PdfFile,
    private readonly to: PdfObjects,
  ) {}

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

  private copyDict(dict: PdfDict): PdfDict {
    const kept = [...dict.entries].filter(([key]) => !LEADS_OUT.has(key));
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
