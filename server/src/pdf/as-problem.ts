import { PdfSyntaxError } from '@stylet/core/pdf';
import { Problem } from '@stylet/core/problems';

/** What a file has that nobody has looked at before may be damaged all the same. */
export function asProblem(error: unknown): unknown {
  return error instanceof PdfSyntaxError || error instanceof RangeError
    ? new Problem('pdf-part-damaged', `What was found: ${error.message}.`)
    : error;
}
