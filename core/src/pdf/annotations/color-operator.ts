import { serializeNumber, type PdfFile, type PdfValue } from '../objects/index';
import { numbersOf } from './entries';

/** Operators that set a colour (8.6.8), or nothing for none. */
export function colorOperator(
  file: PdfFile,
  value: PdfValue,
  kind: 'fill' | 'stroke',
): string | undefined {
  const parts = numbersOf(file, value);
  const operator = ({ 1: 'g', 3: 'rg', 4: 'k' } as Record<number, string>)[parts.length];
  if (!operator) return undefined;
  return `${parts.map(serializeNumber).join(' ')} ${kind === 'fill' ? operator : operator.toUpperCase()}\n`;
}
