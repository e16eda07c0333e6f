import { sha256 } from '@noble/hashes/sha2.js';
import { bytesToHex } from '@noble/hashes/utils.js';

/** The SHA-256 (FIPS 180-4) of bytes, in lower-case hexadecimal. */
export async function digestOf(source: BufferSource): Promise<string> {
  const bytes = ArrayBuffer.isView(source)
    ? new Uint8Array(source.buffer as ArrayBuffer, source.byteOffset, source.byteLength)
    : new Uint8Array(source);
  // Over plain HTTP browsers have no digests of their own (Web Cryptography API, “SecureContext”).
  const { subtle } = crypto as Partial<Crypto>;
  return bytesToHex(subtle ? new Uint8Array(await subtle.digest('SHA-256', bytes)) : sha256(bytes));
}
