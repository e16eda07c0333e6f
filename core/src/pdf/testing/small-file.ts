import { PdfFile, bytesInMemory, bytesOf, joinBytes } from '../objects/index';

/**
 * A PDF with an old-fashioned cross-reference table, made by hand for tests. Objects are numbered from
 * 1 in the order given; the first is the catalogue.
 */
export function smallPdf(objects: readonly string[]): Uint8Array {
  let text = '%PDF-1.7\n';
  const offsets = objects.map((body, i) => {
    const at = text.length;
    text += `${i + 1} 0 obj\n${body}\nendobj\n`;
    return at;
  });
  const start = text.length;
  const rows = offsets.map((offset) => `${String(offset).padStart(10, '0')} 00000 n\r\n`).join('');
  text += `xref\n0 ${objects.length + 1}\n0000000000 65535 f\r\n${rows}`;
  text += `trailer\n<< /Size ${objects.length + 1} /Root 1 0 R >>\nstartxref\n${start}\n%%EOF\n`;
  return bytesOf(text);
}

export const opened = (...parts: Uint8Array[]): PdfFile =>
  new PdfFile(bytesInMemory(joinBytes(parts)));
