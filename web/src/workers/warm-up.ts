import * as pdfjs from 'pdfjs-dist';
import { documentParameters } from './pdf-parameters';

/** Runs, ahead of time, what opening a file and drawing a page of text runs: code is slow the first time. */
export async function warmUp(parser: pdfjs.PDFWorker): Promise<void> {
  const task = pdfjs.getDocument({ data: smallPdf(), ...documentParameters(parser) } as never);
  try {
    const page = await (await task.promise).getPage(1);
    const canvas = new OffscreenCanvas(SIDE, SIDE);
    const canvasContext = canvas.getContext('2d', { alpha: false }) as never;
    const viewport = page.getViewport({ scale: 1 });
    await page.render({ canvas: canvas as never, canvasContext, viewport }).promise;
    canvas.transferToImageBitmap().close();
  } finally {
    await task.destroy();
  }
}

const SIDE = 40;
const CONTENT = `0 0 ${SIDE} ${SIDE} re W n q 0.5 g 4 4 m 20 8 30 20 36 36 c S Q BT /F 8 Tf 4 20 Td (Aq) Tj ET`;

/** One page with a line and two letters: ISO 32000-1, 7.5 (file structure). */
function smallPdf(): Uint8Array {
  const objects = [
    '<< /Type /Catalog /Pages 2 0 R >>',
    '<< /Type /Pages /Kids [3 0 R] /Count 1 >>',
    `<< /Type /Page /Parent 2 0 R /MediaBox [0 0 ${SIDE} ${SIDE}] /Contents 4 0 R ` +
      '/Resources << /Font << /F << /Type /Font /Subtype /Type1 /BaseFont /Helvetica >> >> >> >>',
    `<< /Length ${CONTENT.length} >>\nstream\n${CONTENT}\nendstream`,
  ];
  let file = '%PDF-1.4\n';
  const entries = objects.map((object, i) => {
    const at = file.length;
    file += `${i + 1} 0 obj\n${object}\nendobj\n`;
    return `${String(at).padStart(10, '0')} 00000 n \n`;
  });
  const start = file.length;
  const size = objects.length + 1;
  file += `xref\n0 ${size}\n0000000000 65535 f \n${entries.join('')}`;
  file += `trailer\n<< /Size ${size} /Root 1 0 R >>\nstartxref\n${start}\n%%EOF\n`;
  return new TextEncoder().encode(file);
}
