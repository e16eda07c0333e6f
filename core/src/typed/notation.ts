import { FORMULA, runSchema } from './body';

/** What begins the notation of a formula that is set as large as on a line of its own. */
export const DISPLAY = '\\displaystyle ';
const DISPLAYED = /^\\displaystyle(?![A-Za-z])\s*/;

/** The notation of a formula on a line of its own. */
export const displayed = (source: string): string => DISPLAY + undisplayed(source);
export const undisplayed = (source: string): string => source.replace(DISPLAYED, '');
export const isDisplayed = (source: string): boolean => DISPLAYED.test(source);

/** What was written as a formula in TeX notation, if it can be one: on one line, and not too long. */
export function notation(written: string | null | undefined): string | undefined {
  const source = written?.trim().replace(/\s+/g, ' ') ?? '';
  return runSchema.safeParse({ text: FORMULA, look: { formula: source } }).success
    ? source
    : undefined;
}
