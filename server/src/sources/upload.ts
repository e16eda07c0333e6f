import type { MultipartFile } from '@fastify/multipart';
import { Problem } from '@stylet/core/problems';
import type { FastifyRequest } from 'fastify';

/** A file that is being sent, and what tells, once it has been read, whether all of it came. */
export interface Upload {
  readonly part: MultipartFile;
  readonly checkComplete: () => void;
}

/**
 * The file in the multipart field “file” of a request, of which no more than so many bytes are read.
 * Throws Problem `file-missing`; `checkComplete` throws `tooLarge` with the limit.
 */
export async function uploadIn(
  request: FastifyRequest,
  mostBytes: number,
  tooLarge: 'file-too-large' | 'picture-too-large',
): Promise<Upload> {
  if (!request.isMultipart())
    throw new Problem('file-missing', 'The request is not multipart/form-data.');
  const part = await request.file({ limits: { fileSize: mostBytes } });
  if (!part || part.fieldname !== 'file') {
    part?.file.resume();
    throw new Problem('file-missing', 'There is no field “file”.');
  }
  const checkComplete = (): void => {
    if (part.file.truncated)
      throw new Problem(tooLarge, `The limit is ${Math.round(mostBytes / 1048576)} MB.`);
  };
  return { part, checkComplete };
}
