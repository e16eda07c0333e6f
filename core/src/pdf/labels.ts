import {
  PdfDict,
  name,
  nameText,
  numberOr,
  textOf,
  textString,
  type PdfFile,
  type PdfValue,
} from './objects/index';
import { readNumberTree } from './trees';

/** The label of every page (ISO 32000-1, 12.4.2); its number where the file gives none. */
export function readLabels(file: PdfFile, pageCount: number): string[] {
  const labels = Array.from({ length: pageCount }, (_, i) => String(i + 1));
  const ranges = readNumberTree(file, file.catalog.get('PageLabels'));
  ranges.forEach(([start, value], k) => {
    const rule = file.dict(value);
    const end = Math.min(pageCount, ranges[k + 1]?.[0] ?? pageCount);
    const style = nameText(file.resolve(rule?.get('S') ?? null));
    const prefix = textOf(file.resolve(rule?.get('P') ?? null));
    // Table 159: an integer from 1 on.
    const first = Math.max(1, Math.trunc(numberOr(file.resolve(rule?.get('St') ?? null)) ?? 1));
    for (let i = Math.max(0, Math.ceil(start)); i < end; i++)
      labels[i] = prefix + numeral(first + i - start, style);
  });
  return labels;
}

/** A number tree that gives pages these labels, in as few ranges as follow from looking ahead. */
export function labelTree(labels: readonly string[]): PdfDict {
  const nums: PdfValue[] = [];
  for (let i = 0; i < labels.length;) {
    const rule = ruleFor(labels, i);
    nums.push(i, rule.dict);
    i += rule.length;
  }
  return PdfDict.of({ Nums: nums });
}

/** The rule that holds longest from a page on. */
function ruleFor(labels: readonly string[], from: number): { dict: PdfDict; length: number } {
  const label = labels[from];
  const prefixOf = (text: string): Record<string, PdfValue> =>
    text === '' ? {} : { P: textString(text) };
  let best = { dict: PdfDict.of(prefixOf(label)), length: 1 };
  while (labels[from + best.length] === label) best.length++;
  for (let at = Math.max(0, label.length - LONGEST_NUMERAL); at < label.length; at++) {
    const [prefix, number] = [label.slice(0, at), label.slice(at)];
    for (const style of STYLES) {
      const value = valueOf(number, style);
      if (value === undefined) continue;
      let length = 1;
      while (labels[from + length] === prefix + numeral(value + length, style)) length++;
      if (length < best.length || (length === 1 && style !== 'D')) continue;
      const dict = PdfDict.of({
        ...prefixOf(prefix),
        S: name(style),
        ...(value === 1 ? {} : { St: value }),
      });
      if (length > best.length || best.dict.get('S') === null) best = { dict, length };
    }
  }
  return best;
}

const STYLES = ['D', 'r', 'R', 'a', 'A'];
const LONGEST_NUMERAL = 15;
/** Numbers above this are written in digits in every style: in letters they would fill pages. */
const MOST = 5000;

/** The number that is written so in a style, if there is one. */
function valueOf(text: string, style: string): number | undefined {
  if (style === 'D') return /^[1-9]\d*$/.test(text) ? Number(text) : undefined;
  const small = style === 'R' || style === 'A' ? text.toLowerCase() : text;
  if (style === 'a' || style === 'A') {
    if (!/^([a-z])\1*$/.test(small)) return undefined;
    const value = small.charCodeAt(0) - 96 + 26 * (small.length - 1);
    return value <= MOST && numeral(value, style) === text ? value : undefined;
  }
  if (!/^[ivxlcdm]+$/.test(small)) return undefined;
  const units: Record<string, number> = { i: 1, v: 5, x: 10, l: 50, c: 100, d: 500, m: 1000 };
  const values = [...small].map((letter) => units[letter]);
  const value = values.reduce((sum, one, i) => sum + (one < (values[i + 1] ?? 0) ? -one : one), 0);
  return value <= MOST && numeral(value, style) === text ? value : undefined;
}

/** A number in one of the numbering styles of table 159; empty for no style. */
export function numeral(value: number, style: string | undefined): string {
  if (style !== undefined && STYLES.includes(style) && value > MOST) return String(value);
  switch (style) {
    case 'D':
      return String(value);
    case 'R':
      return roman(value).toUpperCase();
    case 'r':
      return roman(value);
    case 'A':
      return letters(value).toUpperCase();
    case 'a':
      return letters(value);
    case undefined:
    default:
      return '';
  }
}

function roman(value: number): string {
  const steps: [number, string][] = [
    [1000, 'm'],
    [900, 'cm'],
    [500, 'd'],
    [400, 'cd'],
    [100, 'c'],
    [90, 'xc'],
    [50, 'l'],
    [40, 'xl'],
    [10, 'x'],
    [9, 'ix'],
    [5, 'v'],
    [4, 'iv'],
    [1, 'i'],
  ];
  let text = '';
  for (const [step, digits] of steps) {
    while (value >= step) {
      text += digits;
      value -= step;
    }
  }
  return text;
}

/** a–z, then aa–zz, then aaa–zzz. */
function letters(value: number): string {
  const letter = String.fromCharCode(97 + ((value - 1) % 26));
  return letter.repeat(Math.ceil(value / 26));
}
