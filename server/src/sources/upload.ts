import type { Readable } from 'node:stream';
import type { MultipartFile } from '@fastify/multipart';
import { text } from '@stylet/core/bounds';
import { Problem } from '@stylet/core/problems';
import type { FastifyReply, FastifyRequest } from 'fastify';
import type { Services } from '../services';
import { awaitedBy } from '../work/awaited';
import { readingMultipart, streamOf } from './part-stream';
import type { ComingPdf } from './take-pdf';

/** A file that is being sent, and what tells, once it has been read, whether all of it came. */
export interface Upload {
  readonly part: MultipartFile;
  readonly stream: Readable;
  readonly checkComplete: () => void;
}

/**
 * The file in the multipart field “file” of a request, of which no more than so many bytes are read. Throws Problem
 * `file-missing`, and `disk-full` where there is no room for it; `checkComplete` throws `tooLarge` with the limit.
 */
export async function uploadIn(
  request: FastifyRequest,
  mostBytes: number,
  tooLarge: 'file-too-large' | 'picture-too-large',
  { spool }: Pick<Services, 'spool'>,
): Promise<Upload> {
  if (!request.isMultipart())
    throw new Problem('file-missing', 'The request is not multipart/form-data.');
  // The file is spooled and then stored in the database: it needs room twice.
  await spool.checkRoom(2 * (Number(request.headers['content-length']) || 0));
  const part = await readingMultipart(() => request.file({ limits: { fileSize: mostBytes } }));
  if (!part || part.fieldname !== 'file') {
    part?.file.resume();
    throw new Problem('file-missing', 'There is no field “file”.');
  }
  const checkComplete = (): void => {
    if (part.file.truncated)
      throw new Problem(tooLarge, `The limit is ${Math.round(mostBytes / 1048576)} MB.`);
  };
  return { part, stream: streamOf(part, request), checkComplete };
}

const LONGEST_PASSWORD = 1000;

/** A PDF that is being sent, with its password if that came before it. */
export async function pdfIn(
  request: FastifyRequest,
  reply: FastifyReply,
  services: Pick<Services, 'spool' | 'config'>,
): Promise<Omit<ComingPdf, 'documentId'> & { readonly filename: string }> {
  const { maxFileBytes } = services.config;
  const awaited = awaitedBy(reply);
  const { part, stream, checkComplete } = await uploadIn(
    request,
    maxFileBytes,
    'file-too-large',
    services,
  );
  return {
    stream,
    checkComplete,
    filename: part.filename ?? '',
    password: passwordIn(part),
    awaited,
  };
}

function passwordIn({ fields }: MultipartFile): string | undefined {
  const field = fields['password'];
  if (field === undefined) return undefined;
  const value = Array.isArray(field) || field.type !== 'field' ? undefined : field.value;
  const password = text(LONGEST_PASSWORD)
    .regex(/^[^\r\n]*$/)
    .safeParse(value);
  if (!password.success) throw new Problem('pdf-password-wrong', 'No password can be like that.');
  return password.data;
}
