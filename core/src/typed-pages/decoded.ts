/** Unicode's signatures of encodings (Unicode 16, 23.8, “Byte Order Mark”). */
const SIGNATURES = [
  { encoding: 'utf-8', bytes: [0xef, 0xbb, 0xbf] },
  { encoding: 'utf-16le', bytes: [0xff, 0xfe] },
  { encoding: 'utf-16be', bytes: [0xfe, 0xff] },
] as const;

/** Encodings of the WHATWG that text can be in. */
export type Encoding = (typeof SIGNATURES)[number]['encoding'] | 'windows-1252';

/** Decodes bytes, or says that they are not of that encoding. */
export type Decode = (bytes: Uint8Array, encoding: Encoding) => string | undefined;

/**
 * Text of bytes: by its signature, else as UTF-8, and what is not that as Windows-1252, which most old text is in;
 * undefined for what is no text.
 */
export function decodedText(bytes: Uint8Array, decode: Decode): string | undefined {
  const signed = SIGNATURES.find((one) => one.bytes.every((byte, i) => bytes[i] === byte));
  const text = signed
    ? decode(bytes.subarray(signed.bytes.length), signed.encoding)
    : (decode(bytes, 'utf-8') ?? decode(bytes, 'windows-1252'));
  return text === undefined || hasControls(text) ? undefined : text;
}

/** Whether there are characters of control that no text has: tab, line ends, form feed and escape it may have. */
function hasControls(text: string): boolean {
  for (let i = 0; i < text.length; i++) {
    const code = text.charCodeAt(i);
    if (code < 9 || (code > 13 && code < 27)) return true;
  }
  return false;
}
