import type { Annotation } from '../../document/index';
import { hexOf } from '../../paint/index';
import { transform, type Matrix, type Point } from '../../geometry/index';
import { PdfDict, numberOr, serialize, type PdfFile, type PdfValue } from '../objects/index';

/** The standard entries Stylet writes, by which programs show an annotation (ISO 32000-1, 12.5), in order. */
const STANDARD = [
  ...['Subtype', 'Rect', 'NM', 'M', 'CreationDate', 'T', 'F', 'C', 'CA', 'IC', 'BS', 'Border'],
  ...['InkList', 'QuadPoints', 'L', 'LE', 'Vertices', 'RD', 'Name', 'Contents'],
  ...['DA', 'DS', 'RC', 'Q', 'IT', 'StateModel', 'State'],
] as const;

/** Those entries as they stand in a file. */
export function standardText(dict: PdfDict): string {
  const there = STANDARD.filter((key) => dict.get(key) !== null);
  return serialize(new PdfDict(new Map(there.map((key) => [key, dict.get(key)]))));
}

/** The numbers of an array; those that are none are 0. */
export const numbersOf = (file: PdfFile, value: PdfValue): number[] =>
  file.array(value).map((item) => numberOr(file.resolve(item)) ?? 0);

/** Pairs of numbers as points, where a map sends them. */
export function pointsOf(numbers: readonly number[], map: Matrix): Point[] {
  const points: Point[] = [];
  for (let i = 0; i + 1 < numbers.length; i += 2)
    points.push(transform(map, { x: numbers[i], y: numbers[i + 1] }));
  return points;
}

/** Flags of annotations (ISO 32000-1, table 165). */
export const FLAGS = { hidden: 2, print: 4, noView: 32, locked: 128 } as const;

const flagsIn = (file: PdfFile, dict: PdfDict): number =>
  numberOr(file.resolve(dict.get('F'))) ?? 0;

/** Whether an annotation is not to be seen on a screen. */
export const isHidden = (file: PdfFile, dict: PdfDict): boolean =>
  (flagsIn(file, dict) & (FLAGS.hidden | FLAGS.noView)) !== 0;

export const isLocked = (file: PdfFile, dict: PdfDict): boolean =>
  (flagsIn(file, dict) & FLAGS.locked) !== 0;

/** The flags of an annotation: those Stylet knows as it is now, the others as they are in `before`. */
export function flagsOf(
  { hidden, locked }: Pick<Annotation, 'hidden' | 'locked'>,
  before = FLAGS.print as number,
): number {
  const unseen = before & (FLAGS.hidden | FLAGS.noView);
  return (
    (before & ~(FLAGS.hidden | FLAGS.noView | FLAGS.locked)) |
    (hidden ? unseen || FLAGS.hidden : 0) |
    (locked ? FLAGS.locked : 0)
  );
}

/** /C as one, three or four components (table 164); undefined when there is none. */
export function colorOf(file: PdfFile, dict: PdfDict, key = 'C'): string | undefined {
  const c = numbersOf(file, dict.get(key));
  if (c.length === 1) return hexOf(c[0], c[0], c[0]);
  if (c.length === 3) return hexOf(c[0], c[1], c[2]);
  if (c.length !== 4) return undefined;
  const light = 1 - c[3];
  return hexOf((1 - c[0]) * light, (1 - c[1]) * light, (1 - c[2]) * light);
}
