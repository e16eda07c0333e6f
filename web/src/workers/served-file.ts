import { PDFDataRangeTransport } from 'pdfjs-dist';
import { keptFile } from '../kept/kept-file';
import { fetchPiece, pieceOf, type Piece, type Wanted } from './pieces';

/** What pdf.js asks for at a time: only what is looked at is fetched, so that a long book opens as fast as a short one. */
export const CHUNK = 128 * 1024;
/** Where files keep what is in them, and often their first pages: fetched together with the beginning. */
const TAIL = 512 * 1024;

/** Part of one file, from wherever it is. */
type Read = (wanted: Wanted) => Promise<Piece>;

/** A PDF on the server, or kept here, whose bytes are got as pdf.js asks for them. */
export class ServedFile extends PDFDataRangeTransport {
  /** Told once, when bytes cannot be had: who waits for them would wait for ever. */
  broke: (error: unknown) => void = () => undefined;

  private constructor(
    private readonly read: Read,
    head: Piece,
    private readonly tail: Piece,
    private readonly closing: AbortController,
  ) {
    super(head.size, head.bytes);
  }

  /** Gets both ends of a file, at once. Throws what `fetchPiece` throws. */
  static async open(url: string): Promise<ServedFile> {
    const closing = new AbortController();
    const kept = await keptFile(url);
    const read: Read = (wanted) =>
      kept ? pieceOf(kept, wanted) : fetchPiece(url, wanted, closing.signal);
    try {
      const [head, tail] = await Promise.all([
        read({ begin: 0, end: CHUNK }),
        read({ last: TAIL }),
      ]);
      checkSame(head, tail);
      return new ServedFile(read, head, tail, closing);
    } catch (error) {
      // One end alone is of no use.
      closing.abort();
      throw error;
    }
  }

  override requestDataRange(begin: number, end: number): void {
    const { begin: from, bytes } = this.tail;
    if (begin >= from) {
      this.onDataRange(begin, bytes.slice(begin - from, end - from));
      return;
    }
    this.read({ begin, end })
      .then((piece) => {
        checkSame(piece, this.tail);
        this.onDataRange(begin, piece.bytes.slice(begin - piece.begin, end - piece.begin));
      })
      .catch((error: unknown) => {
        if (!this.closing.signal.aborted) this.broke(error);
      });
  }

  override abort(): void {
    this.closing.abort();
  }
}

function checkSame(one: Piece, other: Piece): void {
  if (one.tag !== other.tag || one.size !== other.size)
    throw new Error('the file has become another one on the server');
}
