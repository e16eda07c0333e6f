import { textOf, textString } from './text-string';
import type { PdfString, PdfValue } from './values';

const DATE = /^(?:D:)?(\d{4})(\d\d)?(\d\d)?(\d\d)?(\d\d)?(\d\d)?(?:([-+Z])(?:(\d\d)'?(\d\d)?'?)?)?/;

/** A PDF date (ISO 32000-1, 7.9.4) as an ISO 8601 instant of the years 1 to 9999, or undefined when it is none. */
export function instantOf(value: PdfValue): string | undefined {
  const match = DATE.exec(textOf(value));
  if (!match) return undefined;
  const part = (i: number, usual: number): number =>
    match[i] === undefined ? usual : Number(match[i]);
  const [year, month, day] = [part(1, 0), part(2, 1), part(3, 1)];
  const [hour, minute, second] = [part(4, 0), part(5, 0), part(6, 0)];
  const isDate = month >= 1 && month <= 12 && day >= 1 && day <= 31;
  if (!isDate || hour > 23 || minute > 59 || second > 59) return undefined;
  const local = new Date(0);
  // Date.UTC takes years below 100 for those of the twentieth century.
  local.setUTCFullYear(year, month - 1, day);
  local.setUTCHours(hour, minute, second);
  const offset = (part(8, 0) * 60 + part(9, 0)) * 60_000;
  const sign = match[7] === '-' ? 1 : -1;
  const date = new Date(local.getTime() + (match[7] === 'Z' ? 0 : sign * offset));
  const inUniversal = date.getUTCFullYear();
  return inUniversal >= 1 && inUniversal <= 9999 ? date.toISOString() : undefined;
}

/** An ISO 8601 instant as a PDF date in universal time, to the second. */
export function pdfDate(instant: string): PdfString {
  const iso = new Date(instant).toISOString();
  const day = iso.slice(0, 4) + iso.slice(5, 7) + iso.slice(8, 10);
  return textString(`D:${day}${iso.slice(11, 13)}${iso.slice(14, 16)}${iso.slice(17, 19)}Z`);
}
