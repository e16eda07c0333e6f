import { transform } from '../geometry/index';
import {
  PdfDict,
  PdfName,
  PdfRef,
  PdfString,
  latin1,
  nameText,
  numberOr,
  type PdfFile,
  type PdfValue,
} from './objects/index';
import { userToPage, type PdfPage } from './pages';
import { readNameTree } from './trees';

/** A place in a document: a page by its index and, where given, a point on it in page space. */
export interface Destination {
  readonly pageIndex: number;
  readonly x?: number;
  readonly y?: number;
}

/** Resolves destinations (ISO 32000-1, 12.3.2) of one file, explicit and named. */
export class Destinations {
  private readonly indexOf = new Map<number, number>();
  private names: Map<string, PdfValue> | undefined;

  constructor(
    private readonly file: PdfFile,
    private readonly pages: readonly PdfPage[],
  ) {
    pages.forEach((page, index) => this.indexOf.set(page.ref.object, index));
  }

  /** The place a /Dest entry or a go-to action leads to; undefined when it leads nowhere. */
  of(holder: PdfDict): Destination | undefined {
    const dest = this.arrayOf(holder);
    return dest && this.explicit(dest);
  }

  /** An explicit destination (12.3.2.2) as the file has it, also where it is named; undefined for none. */
  arrayOf(holder: PdfDict): PdfValue[] | undefined {
    const direct = holder.get('Dest');
    if (direct !== null) return this.resolve(direct);
    const action = this.file.dict(holder.get('A'));
    if (action && nameText(this.file.resolve(action.get('S'))) === 'GoTo')
      return this.resolve(action.get('D'));
    return undefined;
  }

  private resolve(value: PdfValue): PdfValue[] | undefined {
    let dest = this.file.resolve(value);
    if (dest instanceof PdfString) dest = this.named(latin1(dest.bytes));
    else if (dest instanceof PdfName) dest = this.named(dest.text);
    if (dest instanceof PdfDict) dest = this.file.resolve(dest.get('D'));
    return Array.isArray(dest) ? dest : undefined;
  }

  private named(key: string): PdfValue {
    if (!this.names) {
      const { catalog } = this.file;
      const names = this.file.dict(catalog.get('Names'));
      this.names = readNameTree(this.file, names?.get('Dests') ?? null);
      for (const [old, value] of this.file.dict(catalog.get('Dests'))?.entries ?? [])
        this.names.set(old, value);
    }
    return this.file.resolve(this.names.get(key) ?? null);
  }

  private explicit([target, kind, ...parms]: PdfValue[]): Destination | undefined {
    const pageIndex = target instanceof PdfRef ? this.indexOf.get(target.object) : numberOr(target);
    const page = pageIndex === undefined ? undefined : this.pages[pageIndex];
    if (pageIndex === undefined || !page) return undefined;
    const number = (i: number): number | undefined => numberOr(this.file.resolve(parms[i] ?? null));
    const at = (left: number | undefined, top: number | undefined): Destination => {
      const place = transform(userToPage(page.box), {
        x: left ?? page.box.x0,
        y: top ?? page.box.y1,
      });
      return {
        pageIndex,
        ...(left === undefined ? {} : { x: place.x }),
        ...(top === undefined ? {} : { y: place.y }),
      };
    };
    switch (nameText(this.file.resolve(kind ?? null))) {
      case 'XYZ':
        return at(number(0), number(1));
      case 'FitH':
      case 'FitBH':
        return at(undefined, number(0));
      case 'FitV':
      case 'FitBV':
        return at(number(0), undefined);
      case 'FitR':
        return at(number(0), number(3));
      // Kinds that the standard does not know lead at least to the page.
      case undefined:
      default:
        return { pageIndex };
    }
  }
}
