import { createReadStream, writeFileSync, appendFileSync } from 'node:fs';
import { createInterface } from 'node:readline';
import type { Annotation, Landmark, Notice } from '@stylet/core/document';
import type { ImportedPage, ImportedPdf, PictureInText } from '@stylet/core/pdf';

/** What is told of a file that was read, apart from what is on its pages. */
export interface ImportedFacts {
  readonly title: string | undefined;
  readonly isTyped: boolean;
  readonly pageCount: number;
  readonly landmarkCount: number;
  readonly annotationCount: number;
  readonly firstPage: ImportedPage | undefined;
  readonly notices: readonly Notice[];
  /** Pictures that annotations or its text name, each once, and where in the file one of these stands. */
  readonly pictures: readonly PictureInText[];
  /** The digests of those that its text names. */
  readonly inText: readonly string[];
}

/** A part of what was read of a file, small enough to be handled at one go. */
export interface ImportedPart {
  readonly pages?: readonly ImportedPage[];
  readonly landmarks?: readonly Landmark[];
  readonly annotations?: readonly Annotation[];
}

/** So many pages, landmarks or annotations go together. */
const TOGETHER = 100;

/**
 * Writes what was read of a file beside it, a line a part: a file may have a hundred thousand annotations, and handing
 * them from thread to thread at one go would hold up the one that answers requests.
 */
export function writeParts(path: string, { pages, landmarks, annotations }: ImportedPdf): void {
  writeFileSync(path, '');
  const write = (part: ImportedPart): void => appendFileSync(path, `${JSON.stringify(part)}\n`);
  for (const part of inPieces(pages)) write({ pages: part });
  for (const part of inPieces(landmarks)) write({ landmarks: part });
  for (const part of inPieces(annotations)) write({ annotations: part });
}

function* inPieces<T>(list: readonly T[]): Generator<T[]> {
  for (let i = 0; i < list.length; i += TOGETHER) yield list.slice(i, i + TOGETHER);
}

/** The facts of what was read. */
export function factsOf({
  title,
  pages,
  landmarks,
  annotations,
  notices,
  typed,
}: ImportedPdf): ImportedFacts {
  const inText = typed?.pictures ?? [];
  const pictures = new Map(inText.map((picture) => [picture.digest, picture]));
  for (const annotation of annotations)
    if (annotation.kind === 'picture' && annotation.origin && !pictures.has(annotation.digest)) {
      const { object, generation } = annotation.origin;
      pictures.set(annotation.digest, { digest: annotation.digest, object, generation });
    }
  return {
    title,
    isTyped: typed !== undefined,
    pageCount: pages.length,
    landmarkCount: landmarks.length,
    annotationCount: annotations.length,
    firstPage: pages.at(0),
    notices,
    pictures: [...pictures.values()],
    inText: inText.map(({ digest }) => digest),
  };
}

/** The parts that `writeParts` has written, one after the other. */
export async function* readParts(path: string): AsyncGenerator<ImportedPart> {
  const lines = createInterface({ input: createReadStream(path), crlfDelay: Infinity });
  for await (const line of lines) yield JSON.parse(line) as ImportedPart;
}
