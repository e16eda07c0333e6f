/** Random access to the bytes of a file, wherever they are kept. */
export interface ByteSource {
  readonly length: number;
  /** The bytes from `start` to before `end`, cut at the end of the file. Not to be written to. */
  slice(start: number, end: number): Uint8Array;
}

/** A file held in memory. */
export function bytesInMemory(bytes: Uint8Array): ByteSource {
  return {
    length: bytes.length,
    slice: (start, end) => bytes.subarray(Math.max(0, start), Math.min(bytes.length, end)),
  };
}

/** Bytes as characters of the same codes. */
export function latin1(bytes: Uint8Array): string {
  let text = '';
  if (bytes.length < 64) {
    for (let i = 0; i < bytes.length; i++) text += String.fromCharCode(bytes[i]);
    return text;
  }
  for (let i = 0; i < bytes.length; i += 8192)
    text += String.fromCharCode.apply(null, bytes.subarray(i, i + 8192) as unknown as number[]);
  return text;
}

/** Characters up to U+00FF as bytes; others lose their upper bits. */
export function bytesOf(text: string): Uint8Array {
  const bytes = new Uint8Array(text.length);
  for (let i = 0; i < text.length; i++) bytes[i] = text.charCodeAt(i);
  return bytes;
}

/** One array out of several. */
export function joinBytes(parts: readonly Uint8Array[]): Uint8Array {
  const whole = new Uint8Array(parts.reduce((sum, part) => sum + part.length, 0));
  let at = 0;
  for (const part of parts) {
    whole.set(part, at);
    at += part.length;
  }
  return whole;
}
