import {
  annotationSchema,
  transformedFields,
  type Annotation,
  type Foreign,
} from '../../document/index';
import type { Matrix } from '../../geometry/index';
import { samplesToBase64, decodeSamples } from '../../ink/index';
import { PdfDict, PdfString, textOf, textString, type PdfFile } from '../objects/index';
import type { PdfPage } from '../pages';
import { numbersOf } from './entries';
import { OWN_KEY } from './kinds';

/** An annotation that Stylet has written. */
export type Own = Exclude<Annotation, Foreign>;

/** What Stylet keeps with an annotation, which ISO 32000 has no place for, and by which it tells what others changed. */
export interface OwnCopy {
  readonly annotation: Own;
  /** The fingerprints of what was written of it and of its look; undefined in files of before they were kept. */
  readonly prints: Prints | undefined;
}

/** By what is told whether an annotation is as it was written. */
export interface Prints {
  /** Of its standard entries, see `standardText`. */
  readonly entries: string;
  /** Of what its appearance draws, see `lookOf`. */
  readonly look: string;
  /** Its rectangle. */
  readonly rect: readonly number[];
}

/** Where the space of a page has its origin (default user space), to be kept with what is in it. */
export const originOfPage = ({ box }: Pick<PdfPage, 'box'>): number[] => [box.x0, box.y1];

/** The entry that keeps a copy. `samples` as `encodeSamples` gives them; `origin` of the page's space. */
export function ownCopyEntry(
  fields: object,
  samples: Uint8Array | undefined,
  origin: readonly number[],
  prints: Prints | undefined,
): PdfDict {
  return PdfDict.of({
    Fields: textString(JSON.stringify(fields)),
    Samples: samples && new PdfString(samples),
    Origin: [...origin],
    Prints:
      prints &&
      PdfDict.of({
        Entries: textString(prints.entries),
        Look: textString(prints.look),
        Rect: [...prints.rect],
      }),
  });
}

/**
 * The copy that was kept with an annotation, in the space its page has now; undefined where there is none, or it
 * was cut.
 */
export function readOwnCopy(
  file: PdfFile,
  page: PdfPage,
  dict: PdfDict,
  place: Pick<Annotation, 'pageId' | 'order'>,
): OwnCopy | undefined {
  const own = file.dict(dict.get(OWN_KEY));
  if (!own) return undefined;
  const kept = fieldsOf(file, own);
  if (!kept) return undefined;
  const parsed = annotationSchema.safeParse({ ...kept, ...place });
  if (!parsed.success || parsed.data.kind === 'foreign') return undefined;
  const prints = file.dict(own.get('Prints'));
  const printOf = (key: string): string => textOf(file.resolve(prints?.get(key) ?? null));
  return {
    annotation: inSpaceOf(page, parsed.data, numbersOf(file, own.get('Origin'))),
    prints: prints && {
      entries: printOf('Entries'),
      look: printOf('Look'),
      rect: numbersOf(file, prints.get('Rect')),
    },
  };
}

/** What the link's copy says of where it leads; undefined for none that can be read. */
export const keptTarget = (file: PdfFile, dict: PdfDict): object | undefined => {
  const own = file.dict(dict.get(OWN_KEY));
  const target = own && fieldsOf(file, own)?.['target'];
  return typeof target === 'object' && target !== null ? target : undefined;
};

/** What the copy says the words of an annotation were. */
export const keptContents = (file: PdfFile, dict: PdfDict): unknown => {
  const own = file.dict(dict.get(OWN_KEY));
  return own && fieldsOf(file, own)?.['contents'];
};

function fieldsOf(file: PdfFile, own: PdfDict): Record<string, unknown> | undefined {
  let kept: unknown;
  try {
    kept = JSON.parse(textOf(file.resolve(own.get('Fields'))));
    const samples = file.resolve(own.get('Samples'));
    if (samples instanceof PdfString)
      kept = { ...(kept as object), samples: samplesToBase64(decodeSamples(samples.bytes)) };
  } catch {
    return undefined; // Not ours after all, or cut by another program: its standard entries are right.
  }
  return typeof kept === 'object' && kept !== null ? (kept as Record<string, unknown>) : undefined;
}

/** Another program may have cropped the page, whose space then begins elsewhere. */
function inSpaceOf({ box }: PdfPage, annotation: Own, origin: readonly number[]): Own {
  if (origin.length !== 2) return annotation;
  const [dx, dy] = [origin[0] - box.x0, box.y1 - origin[1]];
  if (dx === 0 && dy === 0) return annotation;
  return movedBy(annotation, [1, 0, 0, 1, dx, dy]);
}

/** An annotation moved, turned or enlarged by a map of page space. */
export const movedBy = <A extends Own>(annotation: A, matrix: Matrix): A => ({
  ...annotation,
  ...transformedFields(annotation, matrix),
});
