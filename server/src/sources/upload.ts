import type { Readable } from 'node:stream';
import type { MultipartFile } from '@fastify/multipart';
import { text } from '@stylet/core/bounds';
import { digestSchema } from '@stylet/core/document';
import { Problem } from '@stylet/core/problems';
import { MOST_PICTURES } from '@stylet/core/typed-pages';
import type { FastifyReply, FastifyRequest } from 'fastify';
import { z } from 'zod';
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
): Promise<
  Omit<ComingPdf, 'documentId'> & { readonly filename: string; readonly pictures: PicturesBeside }
> {
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
    pictures: picturesIn(part),
    awaited,
  };
}

const picturesSchema = z
  .record(text(2_000), digestSchema)
  .refine((pictures) => Object.keys(pictures).length <= MOST_PICTURES);
/** Pictures that go with a text: their digests, by what they are called in it. */
export type PicturesBeside = z.infer<typeof picturesSchema>;

function picturesIn(part: MultipartFile): PicturesBeside {
  const field = fieldIn(part, 'pictures');
  if (!field) return {};
  try {
    return picturesSchema.parse(JSON.parse(String(field.value)));
  } catch (error) {
    if (!(error instanceof SyntaxError || error instanceof z.ZodError)) throw error;
    throw new Problem('request-invalid', 'The field “pictures” has no digests by names.');
  }
}

/** A field that came before the file; its value is undefined where it is sent more than once, or as a file. */
function fieldIn({ fields }: MultipartFile, name: string): { readonly value: unknown } | undefined {
  const field = fields[name];
  if (field === undefined) return undefined;
  return { value: Array.isArray(field) || field.type !== 'field' ? undefined : field.value };
}

function passwordIn(part: MultipartFile): string | undefined {
  const field = fieldIn(part, 'password');
  if (!field) return undefined;
  const { value } = field;
  const password = text(LONGEST_PASSWORD)
    .regex(/^[^\r\n]*$/)
    .safeParse(value);
  if (!password.success) throw new Problem('pdf-password-wrong', 'No password can be like that.');
  return password.data;
}
