// Runs in the browser: pdf.js as it comes, with a file open, drawing one page and then another.
import * as pdfjs from 'pdfjs-dist';

pdfjs.GlobalWorkerOptions.workerSrc = '/pdfjs/pdf.worker.min.mjs';

let opened: pdfjs.PDFDocumentProxy;

async function openBare(url: string): Promise<void> {
  opened = await pdfjs.getDocument({
    url,
    cMapUrl: '/pdfjs/cmaps/',
    standardFontDataUrl: '/pdfjs/standard_fonts/',
    wasmUrl: '/pdfjs/wasm/',
  }).promise;
}

async function drawPage(number: number, width: number): Promise<number> {
  const start = performance.now();
  const page = await opened.getPage(number);
  const viewport = page.getViewport({ scale: width / page.getViewport({ scale: 1 }).width });
  const canvas = document.createElement('canvas');
  canvas.width = viewport.width;
  canvas.height = viewport.height;
  document.body.replaceChildren(canvas);
  await page.render({ canvas, viewport }).promise;
  // Until then the browser has a list of what to draw, and no pixels yet.
  canvas.getContext('2d')!.getImageData(0, 0, 1, 1);
  return performance.now() - start;
}

/** Draws part of a page, in pixels of the page at `scale`. */
async function drawPart(
  number: number,
  { x, y, width, height, scale }: Record<'x' | 'y' | 'width' | 'height' | 'scale', number>,
): Promise<number> {
  const start = performance.now();
  const page = await opened.getPage(number);
  const viewport = page.getViewport({ scale, offsetX: -x, offsetY: -y });
  const canvas = document.createElement('canvas');
  canvas.width = width;
  canvas.height = height;
  document.body.replaceChildren(canvas);
  await page.render({ canvas, viewport }).promise;
  canvas.getContext('2d')!.getImageData(0, 0, 1, 1);
  const elapsed = performance.now() - start;
  page.cleanup();
  return elapsed;
}

Object.assign(globalThis, { openBare, drawPage, drawPart });
