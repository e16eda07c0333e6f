import { decodedText, type Encoding } from '@stylet/core/typed-pages';

/** The text of a file, in whichever encoding it is; undefined where it is none. */
export const decoded = (bytes: Uint8Array): string | undefined => decodedText(bytes, decode);

function decode(bytes: Uint8Array, encoding: Encoding): string | undefined {
  try {
    return new TextDecoder(encoding, { fatal: true }).decode(bytes);
  } catch (error) {
    if (error instanceof TypeError) return undefined;
    throw error;
  }
}
