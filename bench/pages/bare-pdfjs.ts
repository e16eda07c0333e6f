// Runs in the browser: pdf.js as it comes, opening a file and drawing its first page.
import * as pdfjs from 'pdfjs-dist';

pdfjs.GlobalWorkerOptions.workerSrc = '/pdfjs/pdf.worker.min.mjs';

async function openAndDraw(url: string, width: number): Promise<number> {
  const start = performance.now();
  const document_ = await pdfjs.getDocument({
    url,
    cMapUrl: '/pdfjs/cmaps/',
    standardFontDataUrl: '/pdfjs/standard_fonts/',
    wasmUrl: '/pdfjs/wasm/',
  }).promise;
  const page = await document_.getPage(1);
  const viewport = page.getViewport({ scale: width / page.getViewport({ scale: 1 }).width });
  const canvas = document.createElement('canvas');
  canvas.width = viewport.width;
  canvas.height = viewport.height;
  document.body.append(canvas);
  await page.render({ canvas, viewport }).promise;
  // Until then the browser has a list of what to draw, and no pixels yet.
  canvas.getContext('2d')!.getImageData(0, 0, 1, 1);
  const elapsed = performance.now() - start;
  canvas.remove();
  await document_.loadingTask.destroy();
  return elapsed;
}

Object.assign(globalThis, { openAndDraw });
