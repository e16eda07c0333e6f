import {
  annotationSchema,
  newId,
  orderAbove,
  type Annotation,
  type Foreign,
} from '../../document/index';
import { transformBox } from '../../geometry/index';
import { samplesToBase64, decodeSamples } from '../../ink/index';
import { hexOf } from '../../paint/index';
import type { PdfDict } from '../objects/index';
import { PdfRef, PdfString, instantOf, numberOr, textOf, type PdfFile } from '../objects/index';
import { readBox, userToPage, type PdfPage } from '../pages';
import { OWN_KEY, isMark, subtypeOf } from './kinds';

/** An indirect annotation on a page. */
export interface PlacedAnnotation {
  readonly ref: PdfRef;
  readonly dict: PdfDict;
}

/** The marks of a page that are objects of their own, in painting order. */
export function marksOf(file: PdfFile, page: PdfPage): PlacedAnnotation[] {
  const marks: PlacedAnnotation[] = [];
  for (const ref of file.array(page.dict.get('Annots'))) {
    const dict = ref instanceof PdfRef ? file.dict(ref) : undefined;
    if (dict && isMark(file, dict)) marks.push({ ref: ref as PdfRef, dict });
  }
  return marks;
}

/**
 * The annotations of a page, as of `now` where the file gives no date. Those Stylet wrote come
 * back as they were; those of other programs come as `foreign`, and keep their own appearance.
 */
export function readAnnotations(
  file: PdfFile,
  page: PdfPage,
  pageId: string,
  now: string,
): Annotation[] {
  const annotations: Annotation[] = [];
  for (const mark of marksOf(file, page)) {
    const order = orderAbove(annotations.at(-1)?.order);
    annotations.push(
      readOwn(file, mark, pageId, order) ?? readForeign(file, page, mark, { pageId, order, now }),
    );
  }
  return annotations;
}

/** What Stylet wrote, unless another program has changed the annotation since. */
function readOwn(
  file: PdfFile,
  { ref, dict }: PlacedAnnotation,
  pageId: string,
  order: string,
): Annotation | undefined {
  const own = file.dict(dict.get(OWN_KEY));
  if (!own || textOf(file.resolve(own.get('M'))) !== textOf(file.resolve(dict.get('M'))))
    return undefined;
  let kept: unknown;
  try {
    kept = JSON.parse(textOf(file.resolve(own.get('Fields'))));
  } catch {
    return undefined; // Not ours after all, or cut by another program: its appearance still is right.
  }
  const samples = file.resolve(own.get('Samples'));
  const parsed = annotationSchema.safeParse({
    ...(kept as object),
    ...(samples instanceof PdfString
      ? { samples: samplesToBase64(decodeSamples(samples.bytes)) }
      : {}),
    pageId,
    order,
  });
  if (!parsed.success) return undefined;
  const { object, generation } = ref;
  return {
    ...parsed.data,
    origin: { object, generation, modified: parsed.data.modified },
  };
}

function readForeign(
  file: PdfFile,
  page: PdfPage,
  { ref, dict }: PlacedAnnotation,
  place: { pageId: string; order: string; now: string },
): Foreign {
  const box = readBox(file, dict.get('Rect'));
  const modified = instantOf(file.resolve(dict.get('M'))) ?? place.now;
  return {
    kind: 'foreign',
    id: newId(),
    pageId: place.pageId,
    order: place.order,
    subtype: subtypeOf(file, dict),
    box: box ? transformBox(userToPage(page.box), box) : { x0: 0, y0: 0, x1: 0, y1: 0 },
    color: colorOf(file, dict),
    opacity: Math.min(1, Math.max(0, numberOr(file.resolve(dict.get('CA'))) ?? 1)),
    author: textOf(file.resolve(dict.get('T'))).slice(0, 200),
    contents: textOf(file.resolve(dict.get('Contents'))).slice(0, 100_000),
    created: instantOf(file.resolve(dict.get('CreationDate'))) ?? modified,
    modified,
    origin: { object: ref.object, generation: ref.generation, modified },
  };
}

/** /C as one, three or four components (table 164); black when there is none. */
function colorOf(file: PdfFile, dict: PdfDict): string {
  const c = file.array(dict.get('C')).map((v) => numberOr(file.resolve(v)) ?? 0);
  if (c.length === 1) return hexOf(c[0], c[0], c[0]);
  if (c.length === 3) return hexOf(c[0], c[1], c[2]);
  if (c.length === 4) {
    const light = 1 - c[3];
    return hexOf((1 - c[0]) * light, (1 - c[1]) * light, (1 - c[2]) * light);
  }
  return '#000000';
}
