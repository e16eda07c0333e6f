import { nameText, numberOr, textOf, type PdfFile } from './objects/index';
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
    const first = numberOr(file.resolve(rule?.get('St') ?? null)) ?? 1;
    for (let i = Math.max(0, start); i < end; i++)
      labels[i] = prefix + numeral(first + i - start, style);
  });
  return labels;
}

/** A number in one of the numbering styles of table 159; empty for no style. */
export function numeral(value: number, style: string | undefined): string {
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
