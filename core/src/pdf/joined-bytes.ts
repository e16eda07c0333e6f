import type { ByteSource } from './objects/index';

/** A file with more bytes behind it, without copying the file. */
export function bytesBehind(file: ByteSource, tail: Uint8Array): ByteSource {
  const { length } = file;
  return {
    length: length + tail.length,
    slice(start, end) {
      if (end <= length) return file.slice(start, end);
      const rest = tail.subarray(Math.max(0, start - length), Math.max(0, end - length));
      if (start >= length) return rest;
      const head = file.slice(start, length);
      const whole = new Uint8Array(head.length + rest.length);
      whole.set(head);
      whole.set(rest, head.length);
      return whole;
    },
  };
}
