import { transformBox, type Matrix } from '../../geometry/index';
import {
  PdfDict,
  PdfRef,
  PdfStream,
  serializeNumber,
  type PdfFile,
  type PdfValue,
} from '../objects/index';
import { readBox } from '../pages';
import { isHidden, numbersOf } from './entries';

/** The normal appearance of an annotation, by its state where it has several (12.5.5). */
export function normalAppearance(file: PdfFile, dict: PdfDict): PdfRef | undefined {
  if (isHidden(file, dict)) return undefined;
  let normal: PdfValue = file.dict(dict.get('AP'))?.get('N') ?? null;
  const states = file.resolve(normal);
  if (states instanceof PdfDict) {
    const state = file.resolve(dict.get('AS'));
    normal =
      state !== null && 'text' in (state as object)
        ? states.get((state as { text: string }).text)
        : null;
  }
  return normal instanceof PdfRef && file.resolve(normal) instanceof PdfStream ? normal : undefined;
}

/**
 * The matrix that puts an appearance's form where its annotation's rectangle is: algorithm 8.1 of
 * ISO 32000-1, 12.5.5. Undefined when there is nothing to show.
 */
export function placement(file: PdfFile, dict: PdfDict, form: PdfDict): Matrix | undefined {
  const rect = readBox(file, dict.get('Rect'));
  const bbox = readBox(file, form.get('BBox'));
  if (!rect || !bbox) return undefined;
  const numbers = numbersOf(file, form.get('Matrix'));
  const own: Matrix = numbers.length === 6 ? (numbers as unknown as Matrix) : [1, 0, 0, 1, 0, 0];
  const box = transformBox(own, bbox);
  const width = box.x1 - box.x0;
  const height = box.y1 - box.y0;
  if (width === 0 || height === 0) return undefined;
  const sx = (rect.x1 - rect.x0) / width;
  const sy = (rect.y1 - rect.y0) / height;
  return [sx, 0, 0, sy, rect.x0 - box.x0 * sx, rect.y0 - box.y0 * sy];
}

/** Operators that draw a named form under a matrix. */
export function drawForm(resource: string, matrix: Matrix): string {
  return `q ${matrix.map(serializeNumber).join(' ')} cm /${resource} Do Q`;
}
