import { numberOr, textOf, type PdfDict, type PdfFile, type PdfValue } from '../objects/index';
import { FLAGS, flagsOf } from './entries';
import { saysSame } from './fingerprint';

/**
 * Entries that go over those of the dictionary that stands in the file: what says the same stays as it is there, so
 * that corners do not drift by rounding, and of the flags only those change that Stylet knows.
 */
export function overBefore(
  file: PdfFile,
  before: PdfDict,
  entries: Readonly<Record<string, PdfValue>>,
): Record<string, PdfValue> {
  const flags = numberOr(entries['F']) ?? 0;
  const own = {
    hidden: (flags & FLAGS.hidden) !== 0,
    locked: (flags & FLAGS.locked) !== 0,
  };
  const isReworded = textOf(file.resolve(before.get('Contents'))) !== textOf(entries['Contents']);
  return {
    ...Object.fromEntries(
      Object.entries(entries).map(([key, value]) => {
        const there = before.get(key);
        return [key, there !== null && saysSame(file, there, value) ? there : value];
      }),
    ),
    F: flagsOf(own, numberOr(file.resolve(before.get('F'))) ?? undefined),
    // Table 170: what /Contents says, with its looks.
    ...(isReworded && !('RC' in entries) ? { RC: null } : {}),
  };
}
