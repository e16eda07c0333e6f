import { bytesOf, joinBytes } from './bytes';
import { serialize } from './serialize';
import { PdfObjects, deflateHere, xrefTable, type Deflate } from './store';
import { PdfDict, type PdfRef } from './values';

// Four bytes above 127 tell programs that the file is not text (7.5.2).
const HEADER = joinBytes([bytesOf('%PDF-1.7\n%'), Uint8Array.of(0xe2, 0xe3, 0xcf, 0xd3, 10)]);

/** A PDF that is written from nothing (ISO 32000-1, 7.5). */
export class NewPdf extends PdfObjects {
  constructor(deflate: Deflate = deflateHere) {
    super(1, deflate);
  }

  /** The whole file; `root` is its catalogue, `info` what it says of itself (14.3.3). */
  bytes(root: PdfRef, info?: PdfRef): Uint8Array {
    const { parts, places, end } = this.written(HEADER.length, () => 0);
    const trailer = PdfDict.of({ Size: this.nextNumber, Root: root, Info: info });
    const free = '0000000000 65535 f\r\n';
    const table = xrefTable(places).replace('xref\n', `xref\n0 1\n${free}`);
    const tail = `${table}trailer\n${serialize(trailer)}\nstartxref\n${end}\n%%EOF\n`;
    return joinBytes([HEADER, ...parts, bytesOf(tail)]);
  }
}
