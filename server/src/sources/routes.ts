import { Readable } from 'node:stream';
import { Problem } from '@stylet/core/problems';
import type { FastifyReply, FastifyRequest } from 'fastify';
import type { FastifyPluginAsyncZod } from 'fastify-type-provider-zod';
import parseRange from 'range-parser';
import { idParams } from '../documents/routes';
import { sourceOf } from '../documents/queries';
import type { Services } from '../services';
import { readSource } from './chunks';

/** Bytes read at a time. */
const PIECE = 256 * 1024;

/** The bytes of documents, streamed from a spooled copy or out of the database, with HTTP ranges (RFC 9110, 14). */
export const sourceRoutes =
  ({ database, spool }: Services): FastifyPluginAsyncZod =>
  async (app) => {
    const send = async (
      request: FastifyRequest,
      reply: FastifyReply,
      id: string,
      which: 'original' | 'working',
    ) => {
      const { digest, size, title } = await sourceOf(database, id, which);
      const tag = `"${digest}"`;
      reply
        .type('application/pdf')
        .header('accept-ranges', 'bytes')
        .header('etag', tag)
        .header('cache-control', 'private, no-cache')
        .header('content-disposition', dispositionFor(title));
      if (request.headers['if-none-match'] === tag) return reply.code(304).send();
      const range = rangeOf(request, size);
      if (range) {
        reply.code(206).header('content-range', `bytes ${range.start}-${range.end}/${size}`);
      }
      const start = range?.start ?? 0;
      const end = (range?.end ?? size - 1) + 1;
      reply.header('content-length', end - start);
      const copy = await spool.open(digest, size);
      return reply.send(
        copy
          ? copy.createReadStream({ start, end: end - 1, highWaterMark: PIECE })
          : Readable.from(readSource(database, digest, start, end)),
      );
    };

    app.get(
      '/api/documents/:id/original',
      { schema: { summary: 'The exact bytes that were brought in', params: idParams } },
      (request, reply) => send(request, reply, request.params.id, 'original'),
    );

    app.get(
      '/api/documents/:id/file',
      {
        schema: {
          summary: 'The bytes that are shown: the original, or its repaired or unlocked form',
          params: idParams,
        },
      },
      (request, reply) => send(request, reply, request.params.id, 'working'),
    );
  };

/** One satisfiable range; several, or ones not in bytes, are answered with the whole file. */
function rangeOf(
  request: FastifyRequest,
  size: number,
): { start: number; end: number } | undefined {
  const { range } = request.headers;
  if (range === undefined) return undefined;
  const parsed = parseRange(size, range);
  if (parsed === -1) throw new Problem('range-not-satisfiable', `The file has ${size} bytes.`);
  if (parsed === -2 || parsed.type !== 'bytes' || parsed.length !== 1) return undefined;
  return parsed[0];
}

/** A download's file name, with its UTF-8 form (RFC 6266, RFC 8187). */
export function dispositionFor(title: string): string {
  const safe = title.replace(/[\\/:*?"<>|\p{Cc}]/gu, ' ').trim() || 'document';
  const ascii = safe.replace(/[^\x20-\x7e]/g, '_');
  const encoded = encodeURIComponent(safe).replace(
    /['()]/g,
    (c) => `%${c.charCodeAt(0).toString(16)}`,
  );
  return `inline; filename="${ascii}.pdf"; filename*=UTF-8''${encoded}.pdf`;
}
