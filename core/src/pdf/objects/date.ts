import { textOf, textString } from './text-string';
import type { PdfString, PdfValue } from './values';

/** A PDF date (ISO 32000-1, 7.9.4) as an ISO 8601 instant, or undefined when it is none. */
export function instantOf(value: PdfValue): string | undefined {
  const match =
    /^(?:D:)?(\d{4})(\d\d)?(\d\d)?(\d\d)?(\d\d)?(\d\d)?(?:([-+Z])(?:(\d\d)'?(\d\d)?'?)?)?/.exec(
      textOf(value),
    );
  if (!match) return undefined;
  const [year, month, day, hour, minute, second] = match.slice(1, 7).map((part) => Number(part));
  const local = Date.UTC(year, (month || 1) - 1, day || 1, hour || 0, minute || 0, second || 0);
  const offset = (Number(match[8] ?? 0) * 60 + Number(match[9] ?? 0)) * 60_000;
  const sign = match[7] === '-' ? 1 : -1;
  const date = new Date(local + (match[7] === 'Z' ? 0 : sign * offset));
  return Number.isNaN(date.getTime()) ? undefined : date.toISOString();
}

/** An ISO 8601 instant as a PDF date in universal time, to the second. */
export function pdfDate(instant: string): PdfString {
  const iso = new Date(instant).toISOString();
  const day = iso.slice(0, 4) + iso.slice(5, 7) + iso.slice(8, 10);
  return textString(`D:${day}${iso.slice(11, 13)}${iso.slice(14, 16)}${iso.slice(17, 19)}Z`);
}
