/// <reference lib="webworker" />
import * as pdfjs from 'pdfjs-dist';
import { WorkerCanvasFactory, WorkerFilterFactory } from './worker-canvas';

/** pdf.js's files as the server serves them. */
const PDFJS = new URL('/pdfjs/', self.location.origin).href;

/** pdf.js's own worker, which parses. */
export const startParser = (): pdfjs.PDFWorker =>
  pdfjs.PDFWorker.create({
    port: new Worker(`${PDFJS}pdf.worker.min.mjs`, { type: 'module' }),
  } as never);

/** What pdf.js needs to be told to open a document in a worker. */
export const documentParameters = (parser: pdfjs.PDFWorker) => ({
  worker: parser,
  ownerDocument: {
    fonts: (self as unknown as { fonts: unknown }).fonts,
    baseURI: self.location.href,
    createElement: () => new OffscreenCanvas(1, 1),
  },
  CanvasFactory: WorkerCanvasFactory,
  FilterFactory: WorkerFilterFactory,
  useWorkerFetch: true,
  cMapUrl: `${PDFJS}cmaps/`,
  standardFontDataUrl: `${PDFJS}standard_fonts/`,
  wasmUrl: `${PDFJS}wasm/`,
  iccUrl: `${PDFJS}iccs/`,
  isOffscreenCanvasSupported: true,
  isEvalSupported: false,
  verbosity: 0,
});
