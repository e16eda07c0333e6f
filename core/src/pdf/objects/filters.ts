import { inflateSync, Inflate as InflateStream, unzlibSync } from 'fflate';
import { joinBytes } from './bytes';
import { PdfSyntaxError } from './parser';
import { PdfDict, nameText, numberOr, type PdfStream, type PdfValue } from './values';

/**
 * The decoded bytes of a stream without filter or with FlateDecode and a predictor (ISO 32000-1,
 * 7.4.4), which is what cross-reference and object streams use. Other filters throw
 * PdfSyntaxError: Stylet never needs to look inside such streams.
 */
export function decodeStream(
  stream: PdfStream,
  resolve: (v: PdfValue) => PdfValue,
  inflate: Inflate = inflateHere,
): Uint8Array {
  const filters = listOf(resolve(stream.dict.get('Filter')));
  if (filters.length > MOST_FILTERS)
    throw new PdfSyntaxError(`a stream goes through ${filters.length} filters`);
  const parms = listOf(resolve(stream.dict.get('DecodeParms')));
  let bytes = stream.raw();
  filters.forEach((filter, i) => {
    const kind = nameText(resolve(filter));
    if (kind !== 'FlateDecode' && kind !== 'Fl')
      throw new PdfSyntaxError(`cannot read a stream with filter ${kind ?? '?'}`);
    bytes = inflateAll(bytes, inflate);
    const parm = resolve(parms[i] ?? null);
    if (parm instanceof PdfDict) bytes = unpredict(bytes, parm);
  });
  return bytes;
}

function listOf(value: PdfValue): PdfValue[] {
  if (value === null) return [];
  return Array.isArray(value) ? value : [value];
}

/** Filters that one stream may go through; more of them are made to take long. */
const MOST_FILTERS = 8;
/** Bytes that one stream may become: what is read here are objects and tables, never pictures of that size. */
export const MOST_DECODED = 256 * 1024 * 1024;

/** Decompresses the zlib format (RFC 1950). Throws for data that is cut or damaged, or becomes more than `MOST_DECODED`. */
export type Inflate = (bytes: Uint8Array) => Uint8Array;
const inflateHere: Inflate = (bytes) =>
  // Two bits become 258 bytes at the most (RFC 1951, 3.2.5): what is short stays within the bound.
  bytes.length <= MOST_DECODED / 1032 ? unzlibSync(bytes) : inflateByParts(bytes);

/** Inflates what can be inflated: a missing checksum or tail does not spoil what came before it. */
function inflateAll(bytes: Uint8Array, inflate: Inflate): Uint8Array {
  try {
    return inflate(bytes);
  } catch (error) {
    if (error instanceof PdfSyntaxError) throw error;
    return inflateByParts(bytes);
  }
}

function inflateByParts(bytes: Uint8Array): Uint8Array {
  const parts: Uint8Array[] = [];
  let length = 0;
  const stream = new InflateStream((part) => {
    length += part.length;
    if (length > MOST_DECODED) throw new TooLong();
    parts.push(part);
  });
  try {
    stream.push(bytes.subarray(2), true);
  } catch (error) {
    if (error instanceof TooLong)
      throw new PdfSyntaxError(`a compressed stream becomes more than ${MOST_DECODED} bytes`);
    if (parts.length === 0) {
      try {
        return inflateSync(bytes);
      } catch {
        throw new PdfSyntaxError(`a compressed stream is broken: ${String(error)}`);
      }
    }
  }
  return joinBytes(parts);
}

class TooLong extends Error {}

/** PNG predictors (RFC 2083, section 6), row by row. */
function unpredict(bytes: Uint8Array, parms: PdfDict): Uint8Array {
  if ((numberOr(parms.get('Predictor')) ?? 1) < 10) return bytes;
  // Within what table 8 allows.
  const within = (key: string, usual: number, most: number): number =>
    Math.min(most, Math.max(1, Math.trunc(numberOr(parms.get(key)) ?? usual)));
  const colors = within('Colors', 1, 32);
  const bits = within('BitsPerComponent', 8, 16);
  const columns = within('Columns', 1, bytes.length);
  const pixel = Math.max(1, (colors * bits) >> 3);
  const row = Math.floor((colors * bits * columns + 7) / 8);
  const rows = Math.floor(bytes.length / (row + 1));
  const out = new Uint8Array(rows * row);
  for (let r = 0; r < rows; r++) {
    const type = bytes[r * (row + 1)];
    for (let i = 0; i < row; i++) {
      const at = r * row + i;
      const left = i >= pixel ? out[at - pixel] : 0;
      const up = r > 0 ? out[at - row] : 0;
      const corner = r > 0 && i >= pixel ? out[at - row - pixel] : 0;
      out[at] = bytes[r * (row + 1) + 1 + i] + prediction(type, left, up, corner);
    }
  }
  return out;
}

function prediction(type: number, left: number, up: number, corner: number): number {
  switch (type) {
    case 1:
      return left;
    case 2:
      return up;
    case 3:
      return (left + up) >> 1;
    case 4: {
      const p = left + up - corner;
      const a = Math.abs(p - left);
      const b = Math.abs(p - up);
      const c = Math.abs(p - corner);
      if (a <= b && a <= c) return left;
      return b <= c ? up : corner;
    }
    default:
      return 0;
  }
}
