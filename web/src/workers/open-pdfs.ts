import { LRUCache } from 'lru-cache';
import * as pdfjs from 'pdfjs-dist';
import type { PDFDocumentProxy, PDFPageProxy, PDFWorker } from 'pdfjs-dist';
import { documentParameters } from './pdf-parameters';
import { CHUNK, ServedFile } from './served-file';
import { Tidying } from './tidying';

/** PDFs kept open: a document may have pages of many files. */
const MOST_OPEN = 8;

/** Pages drawn last whose drawing is kept as it was read: they are the likeliest to be drawn again, larger. */
const MOST_KEPT = 4;

/** A PDF that is read bit by bit, as its pages are asked for. */
export class OpenPdf {
  readonly document: Promise<PDFDocumentProxy>;
  readonly tidying = new Tidying(() => this.document);
  /** Of those drawn long ago pdf.js lets go. */
  private readonly drawn = new LRUCache<PDFPageProxy, true>({
    max: MOST_KEPT,
    noDisposeOnSet: true,
    dispose: (_, oldest) => oldest.cleanup(),
  });
  /** How those are told who are at work, when its bytes cannot be had. */
  private readonly atWork = new Set<(error: unknown) => void>();

  /** `broke` is told when it is of no more use. */
  constructor(
    url: string,
    private readonly parser: PDFWorker,
    private readonly broke: () => void,
  ) {
    this.document = this.open(url);
    this.document.catch(broke);
  }

  get isIdle(): boolean {
    return this.atWork.size === 0;
  }

  private async open(url: string): Promise<PDFDocumentProxy> {
    const range = await ServedFile.open(url);
    const { promise } = pdfjs.getDocument({
      range,
      ...documentParameters(this.parser),
      disableAutoFetch: true,
      disableStream: true,
      rangeChunkSize: CHUNK,
    } as never);
    return new Promise((resolve, reject) => {
      range.broke = (error) => {
        reject(error as Error);
        for (const tell of this.atWork) tell(error);
        this.broke();
        this.close();
      };
      promise.then(resolve, reject);
    });
  }

  /** Lets go of it. */
  close(): void {
    this.document.then(
      (document) => document.loadingTask.destroy(),
      () => undefined,
    );
  }

  /** Does some work on one of its pages, counted from 0, not while it is being tidied. */
  async during<T>(index: number, work: (page: PDFPageProxy) => Promise<T>): Promise<T> {
    let tell: ((error: unknown) => void) | undefined;
    try {
      return await new Promise<T>((resolve, reject) => {
        this.atWork.add((tell = reject));
        this.tidying.during(async () => work(await this.page(index))).then(resolve, reject);
      });
    } finally {
      this.atWork.delete(tell!);
    }
  }

  async page(index: number): Promise<PDFPageProxy> {
    return (await this.document).getPage(index + 1);
  }

  /** A page was drawn. */
  drew(page: PDFPageProxy): void {
    this.drawn.set(page, true);
    this.tidying.drew();
  }
}

/** The PDFs a document has pages of, by their addresses. No LRU: what is at work must not be closed. */
export class OpenPdfs {
  private readonly open = new Map<string, OpenPdf>();

  constructor(private readonly parser: PDFWorker) {}

  /** A PDF, opened when it is not; others that rest are closed when there are too many. */
  get(url: string): OpenPdf {
    let pdf = this.open.get(url);
    if (!pdf) {
      // What could not be had is tried again the next time.
      const opened = new OpenPdf(url, this.parser, () => {
        if (this.open.get(url) === opened) this.open.delete(url);
      });
      pdf = opened;
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
      pdf.close();
    }
  }
}
