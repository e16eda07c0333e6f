import { PassThrough, type Readable } from 'node:stream';
import type { MultipartFile } from '@fastify/multipart';
import { Problem } from '@stylet/core/problems';
import type { FastifyRequest } from 'fastify';

/** How long nothing may come of a file whose request has ended, in ms. */
const SILENCE = 1000;

/**
 * A file of a multipart request as a stream that always comes to an end: a request that is cut off within it (RFC 2046,
 * 5.1.1), or whose sender goes away, makes it fail. Errors of the file itself come also when nobody reads it yet.
 */
export function streamOf({ file }: MultipartFile, { raw }: FastifyRequest): Readable {
  const stream = new PassThrough();
  // A failure before anyone reads must not end the process; whoever reads later gets it all the same.
  stream.on('error', () => undefined);
  file.on('error', (error: Error) => stream.destroy(brokenMultipart(error)));
  file.once('close', () => {
    if (!file.readableEnded) stream.destroy(brokenMultipart(new Error('it ends within a file')));
  });
  // The parser says nothing of a request that ends within a file: its file just goes on for ever.
  const watch = (): void => endWhenSilent(file, stream);
  if (raw.readableEnded) watch();
  else raw.once('end', watch);
  return file.pipe(stream);
}

function endWhenSilent(file: MultipartFile['file'], stream: PassThrough): void {
  let hasCome = true;
  const note = (): void => void (hasCome = true);
  file.on('data', note);
  const timer = setInterval(() => {
    const isOver = file.readableEnded || stream.destroyed || stream.writableEnded;
    if (!isOver && (hasCome || file.readableLength > 0 || stream.writableNeedDrain)) {
      hasCome = false;
      return;
    }
    clearInterval(timer);
    file.off('data', note);
    if (!isOver) stream.destroy(brokenMultipart(new Error('it ends within a file')));
  }, SILENCE);
  timer.unref();
}

/** What an error of reading multipart comes to. */
export const brokenMultipart = (error: unknown): Problem =>
  new Problem(
    'request-invalid',
    `The multipart body is broken: ${error instanceof Error ? error.message : String(error)}.`,
  );

/** Runs what reads multipart. Throws Problem `request-invalid` where that is none. */
export async function readingMultipart<T>(read: () => Promise<T>): Promise<T> {
  try {
    return await read();
  } catch (error) {
    const { statusCode = 500 } = error as { statusCode?: number };
    throw error instanceof Problem || statusCode < 500 ? error : brokenMultipart(error);
  }
}
