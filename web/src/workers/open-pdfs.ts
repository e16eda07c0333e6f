import * as pdfjs from 'pdfjs-dist';
import type { PDFDocumentProxy, PDFPageProxy, PDFWorker } from 'pdfjs-dist';
import { documentParameters } from './pdf-parameters';
import { Tidying } from './tidying';

/** PDFs kept open: a document may have pages of many files. */
const MOST_OPEN = 8;

/** Pages drawn last whose drawing is kept as it was read: they are the likeliest to be drawn again, larger. */
const MOST_KEPT = 4;

/** A PDF that is read bit by bit, as its pages are asked for. */
export class OpenPdf {
  readonly document: Promise<PDFDocumentProxy>;
  readonly tidying = new Tidying(() => this.document);
  private readonly drawn = new Set<PDFPageProxy>();
  private atWork = 0;

  constructor(url: string, parser: PDFWorker) {
    const parameters = {
      // As a URL object: pdf.js would resolve a string against a window, which a worker lacks.
      url: new URL(url),
      ...documentParameters(parser),
      // Only what is looked at is fetched: a long book opens as fast as a short one.
      disableAutoFetch: true,
      disableStream: true,
      rangeChunkSize: 131_072,
    };
    this.document = pdfjs.getDocument(parameters as never).promise;
  }

  get isIdle(): boolean {
    return this.atWork === 0;
  }

  /** Does some work on one of its pages, counted from 0, not while it is being tidied. */
  async during<T>(index: number, work: (page: PDFPageProxy) => Promise<T>): Promise<T> {
    this.atWork++;
    try {
      return await this.tidying.during(async () => work(await this.page(index)));
    } finally {
      this.atWork--;
    }
  }

  async page(index: number): Promise<PDFPageProxy> {
    return (await this.document).getPage(index + 1);
  }

  /** A page was drawn: of those drawn long ago pdf.js lets go. */
  drew(page: PDFPageProxy): void {
    this.drawn.delete(page);
    this.drawn.add(page);
    for (const oldest of this.drawn) {
      if (this.drawn.size <= MOST_KEPT) break;
      this.drawn.delete(oldest);
      oldest.cleanup();
    }
    this.tidying.drew();
  }
}

/** The PDFs a document has pages of, by their addresses. */
export class OpenPdfs {
  private readonly open = new Map<string, OpenPdf>();

  constructor(private readonly parser: PDFWorker) {}

  /** A PDF, opened when it is not; others that rest are closed when there are too many. */
  get(url: string): OpenPdf {
    let pdf = this.open.get(url);
    if (!pdf) {
      pdf = new OpenPdf(url, this.parser);
      // What could not be opened is tried again the next time.
      pdf.document.catch(() => this.open.delete(url));
    }
    this.open.delete(url);
    this.open.set(url, pdf);
    this.closeSome(url);
    return pdf;
  }

  private closeSome(but: string): void {
    for (const [url, pdf] of this.open) {
      if (this.open.size <= MOST_OPEN) return;
      if (url === but || !pdf.isIdle) continue;
      this.open.delete(url);
      void pdf.document.then((document) => document.loadingTask.destroy());
    }
  }
}
