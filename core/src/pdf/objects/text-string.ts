import { bytesOf, latin1 } from './bytes';
import { PdfString, type PdfValue } from './values';

/** Codes of PDFDocEncoding that differ from Latin-1 (ISO 32000-1, annex D.3). */
const PDF_DOC: Record<number, string> = Object.fromEntries([
  ...[...'˘ˇˆ˙˝˛˚˜'].map((c, i) => [0x18 + i, c]),
  ...[...'•†‡…—–ƒ⁄‹›−‰„“”‘’‚™ﬁﬂŁŒŠŸŽıłœšž'].map((c, i) => [0x80 + i, c]),
  [0xa0, '€'],
]);

/** The characters of a text string (7.9.2.2): UTF-16 or UTF-8 by its mark, else PDFDocEncoding. */
export function textOf(value: PdfValue): string {
  if (!(value instanceof PdfString)) return '';
  const b = value.bytes;
  if (b[0] === 0xfe && b[1] === 0xff) return utf16(b.subarray(2), true);
  if (b[0] === 0xff && b[1] === 0xfe) return utf16(b.subarray(2), false);
  if (b[0] === 0xef && b[1] === 0xbb && b[2] === 0xbf) return utf8(b.subarray(3));
  let text = '';
  for (const code of b) text += PDF_DOC[code] ?? String.fromCharCode(code);
  return text;
}

/** A text string: plain ASCII as it is, anything else as UTF-16BE with its mark. */
export function textString(text: string): PdfString {
  if (/^[\x20-\x7e\n\r\t]*$/.test(text)) return new PdfString(bytesOf(text));
  const bytes = new Uint8Array(2 + text.length * 2);
  bytes.set([0xfe, 0xff]);
  for (let i = 0; i < text.length; i++) {
    bytes[2 + 2 * i] = text.charCodeAt(i) >> 8;
    bytes[3 + 2 * i] = text.charCodeAt(i) & 255;
  }
  return new PdfString(bytes);
}

const ESCAPE = '\u001b';

function utf16(bytes: Uint8Array, bigEndian: boolean): string {
  let text = '';
  for (let i = 0; i + 1 < bytes.length; i += 2)
    text += String.fromCharCode(
      bigEndian ? (bytes[i] << 8) | bytes[i + 1] : (bytes[i + 1] << 8) | bytes[i],
    );
  // A language mark (7.9.2.2) is an escape, a code and an escape again.
  return text.includes(ESCAPE)
    ? text
        .split(ESCAPE)
        .filter((_, i) => i % 2 === 0)
        .join('')
    : text;
}

function utf8(bytes: Uint8Array): string {
  let escaped = '';
  for (const byte of bytes) escaped += `%${byte.toString(16).padStart(2, '0')}`;
  try {
    return decodeURIComponent(escaped);
  } catch {
    return latin1(bytes);
  }
}
