import { titlesOf, type PageSupplyBody } from '@stylet/core/api';
import { newId } from '@stylet/core/document';
import { Problem } from '@stylet/core/problems';
import type { Identity } from '../access/identity';
import type { ImportedFacts } from './imported';
import { takePdf, type ComingPdf, type FileTools } from './take-pdf';

/** As much as is told of a file at one go. */
const MOST = { pages: 5000, landmarks: 10_000, annotations: 10_000 } as const;

/**
 * Takes in a PDF whose pages are to be put into documents; what it comes with is told. Throws Problem for
 * files that cannot be used.
 */
export function takeSupply(
  tools: FileTools,
  identity: Identity,
  filename: string,
  coming: Omit<ComingPdf, 'documentId'>,
): Promise<PageSupplyBody> {
  return takePdf(
    tools,
    identity,
    { ...coming, documentId: newId() },
    async (_queries, { working, facts, parts }) => {
      checkSize(facts);
      const source = working.file.digest;
      const supply: PageSupplyBody = {
        source,
        title: titlesOf(filename, facts.title, 'better').title,
        pages: [],
        landmarks: [],
        annotations: [],
      };
      for await (const { pages, landmarks, annotations } of parts()) {
        for (const { index: sourceIndex, ...page } of pages)
          supply.pages.push({ ...page, source, sourceIndex });
        supply.landmarks.push(...landmarks);
        supply.annotations.push(...annotations);
      }
      return supply;
    },
  );
}

function checkSize({ pageCount, landmarkCount, annotationCount }: ImportedFacts): void {
  const { pages, landmarks, annotations } = MOST;
  if (pageCount > pages || landmarkCount > landmarks || annotationCount > annotations)
    throw new Problem(
      'pdf-too-much',
      `At most ${pages} pages, ${landmarks} entries of the outline and ${annotations} annotations are put in at once.`,
    );
}
