import {
  PdfDict,
  PdfName,
  PdfRef,
  PdfStream,
  PdfString,
  PdfSyntaxError,
  textOf,
  type PdfFile,
  type PdfValue,
} from '../objects/index';

/** FNV-1a (G. Fowler, L. C. Noll, K.-P. Vo), 32 bits: tells whether bytes are still the same. */
export function fingerprintOf(bytes: Uint8Array): string {
  let hash = 0x811c9dc5;
  for (let i = 0; i < bytes.length; i++) hash = Math.imul(hash ^ bytes[i], 0x01000193);
  return (hash >>> 0).toString(16);
}

/** Whether a fingerprint is that of these bytes. Files of before have their length behind it. */
export const isPrintOf = (print: string, bytes: Uint8Array): boolean =>
  print.split('-')[0] === fingerprintOf(bytes);

/** What an annotation's normal appearance draws; undefined where it has none that can be read. */
export function lookOf(file: PdfFile, annotation: PdfDict): Uint8Array | undefined {
  const form = file.resolve(file.dict(annotation.get('AP'))?.get('N') ?? null);
  if (!(form instanceof PdfStream)) return undefined;
  try {
    return file.decode(form);
  } catch (error) {
    // In another encoding than Stylet writes: somebody else wrote it.
    if (error instanceof PdfSyntaxError) return undefined;
    throw error;
  }
}

/** Numbers are written to 1/100 pt, and other programs round them once more. */
const NEAR = 0.02;

/**
 * Whether two values say the same: numbers that are `near`, texts whatever their
 * encoding, dictionaries in any order. References are followed, but not into pages.
 */
export function saysSame(file: PdfFile, a: PdfValue, b: PdfValue, near = NEAR): boolean {
  if (a instanceof PdfRef && b instanceof PdfRef && a.object === b.object) return true;
  const [x, y] = [file.resolve(a), file.resolve(b)];
  if (typeof x === 'number') return typeof y === 'number' && Math.abs(x - y) <= near;
  if (x instanceof PdfName) return y instanceof PdfName && x.text === y.text;
  if (x instanceof PdfString) return y instanceof PdfString && textOf(x) === textOf(y);
  if (Array.isArray(x))
    return (
      Array.isArray(y) && x.length === y.length && x.every((v, i) => saysSame(file, v, y[i], near))
    );
  if (x instanceof PdfDict) {
    if (!(y instanceof PdfDict) || isPage(x) || isPage(y)) return x === y;
    const keys = new Set([...x.entries.keys(), ...y.entries.keys()]);
    keys.delete('Type');
    return [...keys].every((key) => saysSame(file, x.get(key), y.get(key), near));
  }
  return x === y;
}

const isPage = (dict: PdfDict): boolean => dict.get('Kids') !== null || dict.get('Annots') !== null;
