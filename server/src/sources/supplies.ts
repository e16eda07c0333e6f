import type { Readable } from 'node:stream';
import type { PageSupplyBody } from '@stylet/core/api';
import { titleFrom } from '../documents/bring-in';
import { takePdf, type FileTools } from './take-pdf';

/**
 * Takes in a PDF whose pages are to be put into documents; what it comes with is told. Throws Problem for
 * files that cannot be used.
 */
export function takeSupply(
  tools: FileTools,
  filename: string,
  stream: Readable,
  checkComplete: () => void,
): Promise<PageSupplyBody> {
  return takePdf(tools, stream, checkComplete, (_queries, _original, { file, pdf }) =>
    Promise.resolve({
      source: file.digest,
      title: titleFrom(filename, pdf.title),
      pages: pdf.pages.map(({ index, ...page }) => ({
        ...page,
        source: file.digest,
        sourceIndex: index,
      })),
      landmarks: [...pdf.landmarks],
      annotations: [...pdf.annotations],
    }),
  );
}
