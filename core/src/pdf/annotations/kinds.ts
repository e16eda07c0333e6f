import type { PdfDict, PdfFile } from '../objects/index';
import { nameText } from '../objects/index';

/** Markup annotations and stamps (ISO 32000-1, table 169) that Stylet lists, removes and flattens. */
export const MARKUP: ReadonlySet<string> = new Set([
  'Text',
  'FreeText',
  'Line',
  'Square',
  'Circle',
  'Polygon',
  'PolyLine',
  'Highlight',
  'Underline',
  'Squiggly',
  'StrikeOut',
  'Stamp',
  'Caret',
  'Ink',
  'FileAttachment',
  'Sound',
]);

/** The subtype of an annotation dictionary. */
export const subtypeOf = (file: PdfFile, dict: PdfDict): string =>
  nameText(file.resolve(dict.get('Subtype'))) ?? '';

/** The key of an annotation dictionary under which Stylet keeps what ISO 32000 has no place for. */
export const OWN_KEY = 'StyletAnnotation';
