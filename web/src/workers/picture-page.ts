import * as pdfjs from 'pdfjs-dist';
import { documentParameters, startParser } from './pdf-parameters';
import { drawSoftMasks } from './worker-canvas';

drawSoftMasks();
const parser = startParser();

/** The first page of a PDF, so many pixels across; clear where nothing is drawn. */
export async function drawFirstPage(file: Blob, width: number): Promise<ImageBitmap> {
  const data = new Uint8Array(await file.arrayBuffer());
  const task = pdfjs.getDocument({ ...documentParameters(parser), data } as never);
  try {
    const page = await (await task.promise).getPage(1);
    const natural = page.getViewport({ scale: 1 });
    const viewport = page.getViewport({ scale: width / natural.width });
    const canvas = new OffscreenCanvas(
      Math.max(1, Math.round(viewport.width)),
      Math.max(1, Math.round(viewport.height)),
    );
    await page.render({
      canvas: canvas as never,
      canvasContext: canvas.getContext('2d') as never,
      viewport,
      background: 'rgba(0,0,0,0)',
      annotationMode: pdfjs.AnnotationMode.DISABLE,
    }).promise;
    return canvas.transferToImageBitmap();
  } finally {
    await task.destroy();
  }
}
