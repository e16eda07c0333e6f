import { latin1 } from './bytes';
import { PdfDict, PdfName, PdfRef, PdfStream, PdfString, type PdfValue } from './values';

/** An object in the syntax of ISO 32000-1, 7.3, as characters of one byte each. */
export function serialize(value: PdfValue): string {
  if (value === null) return 'null';
  if (typeof value === 'boolean') return String(value);
  if (typeof value === 'number') return serializeNumber(value);
  if (value instanceof PdfRef) return `${value.object} ${value.generation} R`;
  if (value instanceof PdfName) return serializeName(value.text);
  if (value instanceof PdfString) return serializeString(value.bytes);
  if (Array.isArray(value)) return `[${value.map(serialize).join(' ')}]`;
  if (value instanceof PdfDict)
    return `<<${[...value.entries].map(([k, v]) => `${serializeName(k)} ${serialize(v)}`).join('')}>>`;
  if (value instanceof PdfStream) throw new TypeError('a stream must be an object of its own');
  throw new TypeError('not a PDF object');
}

/** Numbers without exponent (7.3.3), to six decimals at the most. */
export function serializeNumber(value: number): string {
  if (!Number.isFinite(value)) throw new RangeError(`${value} cannot be written to a PDF`);
  if (Number.isInteger(value)) return value.toFixed(0);
  const text = String(value);
  if (text.length < 10 && !text.includes('e')) return text;
  return value
    .toFixed(6)
    .replace(/\.?0+$/, '')
    .replace(/^-0$/, '0');
}

function serializeName(text: string): string {
  return `/${text.replace(/[^!-~]|[#()<>[\]{}/%]/g, (c) => `#${c.charCodeAt(0).toString(16).padStart(2, '0')}`)}`;
}

/** A literal string (7.3.4.2): bytes as they are, but for those that would be read otherwise. */
function serializeString(bytes: Uint8Array): string {
  return `(${latin1(bytes).replace(/[\\()\r\n]/g, (c) => ESCAPES[c])})`;
}

const ESCAPES: Record<string, string> = {
  '\\': '\\\\',
  '(': '\\(',
  ')': '\\)',
  '\r': '\\r',
  '\n': '\\n',
};
